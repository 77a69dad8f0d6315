<script lang="ts">
	import type { FiguresLook, ShownLook } from '$lib/server/quizzes/look';
	import type { Quiz } from '$lib/server/quizzes/quiz';
	import { plainConditions } from '$lib/forms/quiz';
	import Chart from '$lib/ui/Chart.svelte';
	import Mark from '$lib/ui/Mark.svelte';
	import { percentOf } from '$lib/ui/percent';
	import {
		chanceText,
		difficultyText,
		meanOf,
		oftenOf,
		sittingsText,
		tenth,
		timeText,
		valueName,
		valuesOver,
		type Over
	} from './figures';
	import { rangeText, type Sheet } from './sheet.svelte';
	import SpreadOver from './SpreadOver.svelte';

	/** What students get of this sheet, held against another: the same without its quotas, as it is now, or another quiz. */
	let { sheet, courseId }: { sheet: Sheet; courseId: number } = $props();

	/** So many values are shown as bars. */
	const mostBars = 12;
	type Sent = Sheet['sent'];
	interface Choice {
		value: string;
		name: string;
	}

	const { parts, rules } = $derived(sheet.quiz);
	let quizzes = $state.raw<{ id: number; title: string }[]>([]);
	let over = $state<Over>('categories');
	let chosen = $state('');
	let other = $state.raw<ShownLook | null>(null);
	let failure = $state('');
	/** The sheet as it was when it was chosen to be held against what comes of it. */
	let kept = $state.raw<{ sent: Sent; moment: string } | null>(null);

	$effect(() => {
		void fetch(`/courses/${courseId}/banks/quiz`, { headers: { Accept: 'application/json' } })
			.then((answer) => (answer.ok ? (answer.json() as Promise<typeof quizzes>) : []))
			.catch(() => [])
			.then((found) => (quizzes = found.filter(({ id }) => id !== sheet.quiz.id)));
	});
	const variants: (Choice & { has: () => boolean; of: (sent: Sent) => Sent })[] = [
		{
			value: 'quotas',
			name: 'it without its quotas',
			has: () => parts.some(({ quotas }) => quotas.length),
			of: (sent) => ({ ...sent, parts: sent.parts.map((part) => ({ ...part, quotas: [] })) })
		},
		{
			value: 'rules',
			name: 'it without its pairs and groups',
			has: () => rules.never.length + rules.together.length > 0,
			of: (sent) => ({ ...sent, rules: { ...sent.rules, never: [], together: [] } })
		},
		{
			value: 'conditions',
			name: 'it with whole categories as pools',
			has: () =>
				parts.some(
					({ include, exclude, conditions }) =>
						include.length + exclude.length > 0 || JSON.stringify(conditions) !== JSON.stringify(plainConditions())
				),
			of: (sent) => ({
				...sent,
				parts: sent.parts.map((part) => ({
					...part,
					conditions: plainConditions(),
					...(part.categories.length ? { include: [], exclude: [] } : {})
				}))
			})
		}
	];
	const offered = $derived(variants.filter(({ has }) => has()));
	const moment = () => new Date().toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' });
	function choose(value: string) {
		chosen = value;
		kept = value === 'now' ? { sent: $state.snapshot(sheet.sent) as Sent, moment: moment() } : null;
	}
	/** Where a quiz is, and how it is looked into, by what was chosen. */
	async function lookAtQuiz(id: number, control: AbortController) {
		const address = `/courses/${courseId}/quizzes/${id}`;
		const answer = await fetch(`${address}?whole`, { headers: { Accept: 'application/json' }, signal: control.signal });
		if (!answer.ok) return null;
		const { quiz } = (await answer.json()) as { quiz: Quiz };
		const sent = {
			parts: quiz.parts.map((part) => ({ ...part, lost: part.lost.map((gone) => gone.id) })),
			rules: quiz.rules,
			drawingRule: quiz.drawingRule,
			attempts: quiz.settings.attempts
		};
		return sheet.lookAt(sent, control, address);
	}
	$effect(() => {
		const variant = variants.find(({ value }) => value === chosen);
		// those are of the sheet as it is; what was kept, and another quiz, stay what they are
		if (variant) void sheet.changes;
		const control = new AbortController();
		const sent = variant ? variant.of(sheet.sent) : kept?.sent;
		other = null;
		if (!chosen) return;
		const asked = sent ? sheet.lookAt(sent, control) : lookAtQuiz(Number(chosen), control);
		void asked
			.then((answer) => {
				if (control.signal.aborted) return;
				failure = !answer ? 'That quiz is gone meanwhile.' : answer.ok ? '' : answer.message;
				if (answer?.ok) other = answer.value;
			})
			.catch(() => undefined);
		return () => control.abort();
	});
	const mine = $derived(sheet.found.figures!);
	const theirs = $derived(other?.figures ?? null);
	const lines: { name: string; of: (figures: FiguresLook) => string }[] = [
		{ name: 'Points', of: ({ points }) => rangeText([points.least, points.most]) },
		{ name: 'Reading', of: ({ seconds }) => (seconds ? timeText(seconds) : '–') },
		{ name: 'Difficulty', of: ({ difficulty }) => (difficulty ? difficultyText(difficulty) : '–') },
		{ name: 'Sittings', of: ({ sittings }) => sittingsText(sittings) },
		{ name: 'A question is seen by', of: chanceText },
		{ name: 'Questions in the pools', of: ({ chance }) => chance.questions.toLocaleString('en') },
		{ name: 'Two share, on average', of: ({ overlap }) => tenth(overlap.expected) },
		{ name: 'One pair in ten shares', of: (figures) => `${oftenOf(figures)} or more` },
		{
			name: 'The next attempt repeats some',
			of: ({ attempts }) => (attempts[0] ? percentOf(attempts[0].anyAgain) : '–')
		}
	];
	const names = $derived({
		mine: 'this sheet',
		theirs: kept
			? `as it was at ${kept.moment}`
			: (variants.find(({ value }) => value === chosen)?.name.replace(/^it /, '') ??
				quizzes.find(({ id }) => String(id) === chosen)?.title ??
				'')
	});
	const spread = $derived.by(() => {
		if (!theirs) return null;
		const here = new Map(valuesOver(mine, over).map((value) => [value.path.join('\n'), value]));
		const there = new Map(valuesOver(theirs, over).map((value) => [value.path.join('\n'), value]));
		const keys = [...new Set([...here.keys(), ...there.keys()])].slice(0, mostBars);
		const mean = (values: typeof here) => keys.map((key) => (values.has(key) ? meanOf(values.get(key)!) : 0));
		return {
			of: over === 'categories' ? 'Category' : over === 'kinds' ? 'Kind' : 'Tag',
			lines: keys.map((key) => valueName((here.get(key) ?? there.get(key))!, over)),
			apart: true,
			parts: [
				{ name: names.mine, colour: 'woad' as const, values: mean(here) },
				{ name: names.theirs, colour: 'weld' as const, values: mean(there) }
			],
			written: tenth
		};
	});
	const shared = $derived.by(() => {
		if (!theirs) return null;
		const exactly = ({ overlap }: FiguresLook) =>
			overlap.atLeast.map((chance, at) => (chance - (overlap.atLeast[at + 1] ?? 0)) * 100);
		const [here, there] = [exactly(mine), exactly(theirs)];
		const places = [...Array(Math.max(here.length, there.length)).keys()];
		const told = places.filter((at) => (here[at] ?? 0) >= 0.05 || (there[at] ?? 0) >= 0.05).slice(0, 25);
		return {
			of: 'Shared',
			lines: told.map(String),
			apart: true,
			parts: [
				{ name: names.mine, colour: 'woad' as const, values: told.map((at) => here[at] ?? 0) },
				{ name: names.theirs, colour: 'weld' as const, values: told.map((at) => there[at] ?? 0) }
			],
			written: (value: number) => `${tenth(value)} %`
		};
	});
</script>

<label class="mt-2 flex items-center gap-2"
	><span class="mute whitespace-nowrap">Beside</span>
	<select class="select w-full" value={chosen} onchange={(event) => choose(event.currentTarget.value)}>
		<option value="">choose what to hold it against</option>
		{#each offered as { value, name } (value)}<option {value}>{name}</option>{/each}
		<option value="now">it as it is now, while you change it</option>
		{#if quizzes.length}<optgroup label="Another quiz"
				>{#each quizzes as quiz (quiz.id)}<option value={String(quiz.id)}>{quiz.title}</option>{/each}</optgroup
			>{/if}
	</select></label
>
{#if failure}<p class="notice broken" role="alert">{failure}</p>{/if}
{#if chosen && !other && !failure}<p class="mute mt-2" role="status">Counting …</p>{/if}
{#if other && !theirs}<p class="mt-2">
		<Mark severity="broken" word="That one cannot be filled." />
		{other.stops.message}
	</p>{/if}
{#if theirs && spread && shared}
	<table class="table figures mt-2 text-[13px]">
		<thead><tr><th>What students get</th><th>{names.mine}</th><th>{names.theirs}</th></tr></thead>
		<tbody>
			{#each lines as { name, of } (name)}<tr
					><td class="mute">{name}</td><td>{of(mine)}</td><td class:other={of(mine) !== of(theirs)}>{of(theirs)}</td
					></tr
				>{/each}
		</tbody>
	</table>
	<p class="mute mt-1 text-[12.5px]">
		{mine.isExact && theirs.isExact
			? 'Both counted exactly.'
			: 'By 20,000 sittings where it could not be counted exactly.'}
	</p>
	<div class="mt-3">
		<SpreadOver bind:over />
	</div>
	<div class="mt-1"><Chart label="Questions a sitting, on average" bars={spread} /></div>
	<div class="mt-4"><Chart label="Questions two neighbours share" bars={shared} /></div>
{/if}

<style>
	.figures {
		table-layout: fixed;
	}
	.other {
		font-weight: 600;
	}
</style>
