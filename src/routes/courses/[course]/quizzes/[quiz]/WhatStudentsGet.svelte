<script lang="ts">
	import { wordsInMinute } from '$core/draws/reading-time';
	import type { ValueLook } from '$lib/server/quizzes/look';
	import Chart from '$lib/ui/Chart.svelte';
	import Mark from '$lib/ui/Mark.svelte';
	import { percentOf } from '$lib/ui/percent';
	import { count, figure } from '$lib/ui/words';
	import Beside from './Beside.svelte';
	import {
		chanceText,
		difficultyText,
		errorText,
		isOneBank,
		meanOf,
		oftenOf,
		sittingsText,
		sureOf,
		tenth,
		timeText,
		valueName,
		valuesOver,
		type Over
	} from './figures';
	import { shares } from '$core/numbers/shares';
	import { rangeText, type Sheet } from './sheet.svelte';
	import SpreadOver from './SpreadOver.svelte';

	/** What students get of a sheet, beside it: whether it can be filled, totals, spread, what two share, what comes again. */
	let { sheet, mayChange, courseId }: { sheet: Sheet; mayChange: boolean; courseId: number } = $props();

	/** So many values are shown as bars; the table has them all. */
	const mostBars = 14;
	let over = $state<Over>('categories');
	let beside = $state(false);

	const found = $derived(sheet.found);
	const figures = $derived(found.figures);
	const values = $derived(figures ? valuesOver(figures, over) : []);
	const nameOf = (value: ValueLook) => valueName(value, over);
	/** The same, set in by how deep it stands under the first. */
	const setIn = (value: ValueLook) =>
		over === 'categories'
			? '\u2003'.repeat(Math.max(0, value.path.length - (figures && isOneBank(figures) ? 2 : 1))) + nameOf(value)
			: nameOf(value);
	const fullName = ({ path }: ValueLook) => path.join(' › ');
	const shown = $derived(values.slice(0, mostBars));
	const spread = $derived({
		of: over === 'categories' ? 'Category' : over === 'kinds' ? 'Kind' : 'Tag',
		lines: shown.map(setIn),
		parts: [
			{ name: 'guaranteed', colour: 'woad' as const, values: shown.map(sureOf) },
			{ name: 'by chance', colour: 'weld' as const, values: shown.map((value) => meanOf(value) - sureOf(value)) }
		],
		written: tenth
	});
	const shared = $derived.by(() => {
		const { atLeast } = figures!.overlap;
		const chances = atLeast.map((chance, at) => chance - (atLeast[at + 1] ?? 0));
		const from = Math.max(
			0,
			chances.findIndex((chance) => chance >= 0.0005)
		);
		const last = chances.findLastIndex((chance) => chance >= 0.0005);
		const told = chances.slice(from, last + 1).slice(0, 25);
		return {
			of: 'Shared',
			lines: told.map((_, at) => String(from + at)),
			parts: [{ name: 'of all pairs', colour: 'woad' as const, values: told.map((chance) => chance * 100) }],
			written: (value: number) => `${tenth(value)} %`
		};
	});
	const differs = $derived(figures && !figures.points.equal);
	/** The parts of which one draw is worth more than another, with what is known of them. */
	const uneven = $derived(
		sheet.quiz.parts.flatMap((part, at) => {
			const look = sheet.looks[at];
			return look && look.points[0] !== look.points[1] && look.draws ? [{ part, look }] : [];
		})
	);
	/** Points each by which every sitting is worth the same: what the questions of a part are worth on average. */
	function makeEqual() {
		for (const { part, look } of uneven) {
			const mean = (look.points[0] + look.points[1]) / 2 / look.draws;
			part.pointsEach = Math.max(0.5, Math.round(mean * 2) / 2);
		}
	}
	/** Quotas by which every sitting has as many questions of each worth, as near to their share of the pool as whole numbers are. */
	function makeEven() {
		for (const { part, look } of uneven) {
			const numbers = shares(
				look.worths.map(({ holds }) => holds),
				look.draws
			);
			const even = look.worths.map(({ points }, at) => ({
				by: 'points' as const,
				values: [{ range: [points, points] }],
				spread: null,
				least: numbers[at]!,
				most: numbers[at]!
			}));
			part.quotas = [...part.quotas.filter(({ by }) => by !== 'points'), ...even];
		}
	}
</script>

<div class="flex items-baseline gap-3">
	<h2>What students get</h2>
	{#if figures}<button type="button" class="word text-[13px]" aria-pressed={beside} onclick={() => (beside = !beside)}
			>{beside ? 'this sheet alone' : 'beside another'}</button
		>{/if}
	<span class="mute ml-auto text-[12.5px]" role="status"
		>{figures ? (figures.isExact ? 'counted exactly' : 'by 20,000 sittings, with their error') : ''}{sheet.isFresh ||
		!figures
			? ''
			: ' · counting …'}</span
	>
</div>
{#if found.state === 'unfillable'}
	<p class="broken mt-2"><Mark severity="broken" word="It cannot be filled." /></p>
	<p class="mt-1">{found.stops.message}</p>
{:else if found.state === 'unknown'}
	<p class="doubtful mt-2"><Mark severity="doubtful" word={found.stops.message} /></p>
{:else if !sheet.quiz.parts.length}
	<p class="mute mt-2">Add a part, and see here what each student will get of it.</p>
{:else if figures && beside}<Beside {sheet} {courseId} />
{:else if figures}
	<dl class="facts">
		<dt>Points</dt>
		<dd>
			{#if differs}<span class="doubtful"><Mark severity="doubtful" word="Totals differ:" /></span>
				{rangeText([figures.points.least, figures.points.most])}, {tenth(figures.points.mean)} on average{#if mayChange}
					<span class="block"
						>Make them equal: <button type="button" class="word" onclick={makeEqual}>by points each</button
						>{#if sheet.knowsQuotas},
							<button type="button" class="word" onclick={makeEven}>by as many of each worth</button>{/if}</span
					>{/if}
			{:else if figures.points.most === 0}<span class="doubtful"
					><Mark severity="doubtful" word="It is worth nothing." /></span
				> Give points to its questions, or points each to its parts.
			{:else}{rangeText([figures.points.least, figures.points.most])}, the same for all{/if}
		</dd>
		{#if figures.seconds}<dt title="All that is asked and offered, at {wordsInMinute} words a minute">Reading</dt>
			<dd>
				{timeText(
					figures.seconds
				)}{#if sheet.quiz.settings.minutes && figures.seconds.most > sheet.quiz.settings.minutes * 60}
					<span class="doubtful block"
						><Mark severity="doubtful" word="Longer than the time limit" /> of {count(
							sheet.quiz.settings.minutes,
							'minute'
						)}.</span
					>{/if}
			</dd>{/if}
		{#if figures.difficulty}<dt>Difficulty</dt>
			<dd>{difficultyText(figures.difficulty)}</dd>{/if}
		<dt>Sittings</dt>
		<dd>{sittingsText(figures.sittings)} different ones</dd>
		<dt>A question</dt>
		<dd>
			is seen by {chanceText(figures)} of the students{errorText(figures.chance.error)}
			<span class="mute">({count(figures.chance.questions, 'question')} in the pools)</span>
			{#if figures.never}<span class="doubtful block"
					><Mark severity="doubtful" word="{count(figures.never, 'question')} can never come:" /></span
				>
				the quotas, pairs and groups leave no room for {figures.never === 1 ? 'it' : 'them'}.{/if}
		</dd>
	</dl>
	{#each found.warnings as warning (warning)}<p class="doubtful text-[13px]">
			<Mark severity="doubtful" word={warning.replace(/^parts\[(\d+)\]\S*/, (_, at) => `Part ${Number(at) + 1}`)} />
		</p>{/each}
	<div class="mt-3">
		<SpreadOver bind:over />
	</div>
	{#if shown.length}
		<div class="mt-1"><Chart label="Questions a sitting, on average" bars={spread} /></div>
		<details class="text-[13px]">
			<summary class="mute"
				>Least, most and chances{values.length > shown.length ? ` of all ${values.length}` : ''}</summary
			>
			<table class="table">
				<thead
					><tr
						><th>{spread.of}</th><th class="number">holds</th><th class="number">least</th><th class="number">most</th
						><th class="number">none at all</th></tr
					></thead
				>
				<tbody>
					{#each values as value (fullName(value))}<tr
							><td title={fullName(value)}>{nameOf(value)}</td><td class="number">{figure(value.holds)}</td><td
								class="number">{sureOf(value)}</td
							><td class="number">{value.chances.findLastIndex((chance) => chance > 1e-9)}</td><td class="number"
								>{percentOf(value.chances[0] ?? 0)}{errorText(figures.error)}</td
							></tr
						>{/each}
				</tbody>
			</table>
		</details>
	{:else}<p class="mute">None of the questions has a {spread.of.toLowerCase()}.</p>{/if}
	<div class="mt-4"><Chart label="Questions two neighbours share" bars={shared} /></div>
	<p class="mute text-[13px]">
		{tenth(figures.overlap.expected)} of {sheet.inAll} on average{errorText(figures.overlap.error)}; one pair in ten
		shares
		{oftenOf(figures)} or more.
	</p>
	<h3 class="mt-4">Another attempt</h3>
	<table class="table text-[13px]">
		<thead
			><tr
				><th>After</th><th class="number" title="The share of the pools that was seen">seen</th><th
					class="number"
					title="How many of the next were seen before">again</th
				><th class="number" title="The chance that any of the next was seen">any again</th></tr
			></thead
		>
		<tbody>
			{#each figures.attempts as attempt (attempt.after)}<tr
					><td>{count(attempt.after, 'attempt')}</td><td class="number">{percentOf(attempt.seen)}</td><td class="number"
						>{tenth(attempt.again)} of {sheet.inAll}</td
					><td class="number">{percentOf(attempt.anyAgain)}{errorText(attempt.error)}</td></tr
				>{/each}
		</tbody>
	</table>
{:else}<p class="mute mt-2">Counting …</p>{/if}

<style>
	.facts {
		display: grid;
		grid-template-columns: max-content minmax(0, 1fr);
		gap: 4px 14px;
		margin-top: 8px;
	}
	dt {
		color: var(--ink2);
	}
	summary,
	button {
		cursor: pointer;
	}
</style>
