<script lang="ts">
	import { presented } from '$core/draws/presented';
	import { seedAt } from '$core/draws/sheets/sitting';
	import { kindNamed, type Question } from '$core/kinds';
	import type { Mark as Marked } from '$core/scoring/score';
	import type { QuizSitting } from '$lib/server/quizzes/sittings';
	import NumberField from '$lib/ui/NumberField.svelte';
	import QuestionView from '$lib/ui/QuestionView.svelte';
	import Segments from '$lib/ui/Segments.svelte';
	import { count } from '$lib/ui/words';
	import { onMount, untrack } from 'svelte';
	import type { Sheet } from './sheet.svelte';

	/** One student's copy of a quiz by a seed: it is drawn, answered whole or question by question, and marked. */
	let { sheet, seed = $bindable(), courseId }: { sheet: Sheet; seed: string; courseId: number } = $props();

	let sitting = $state.raw<QuizSitting | null>(null);
	let questions = $state.raw<Record<number, Question>>({});
	let marks = $state<Record<number, Marked | null>>({});
	/** The points that a person gives by hand, where the program marks nothing. */
	let byHand = $state<Record<number, number | null>>({});
	let failure = $state('');
	let way = $state<'whole' | 'one by one'>('whole');
	/** Where one is, question by question. */
	let at = $state(0);
	let begun = $state(Date.now());
	let now = $state(Date.now());

	async function draw(next: string) {
		seed = next;
		const answer = await sheet.draw([next]);
		failure = answer.ok ? '' : answer.message;
		if (!answer.ok) return void (sitting = null);
		const [drawn] = answer.value;
		const response = await fetch(`${sheet.address}/questions`, {
			method: 'POST',
			headers: { 'Content-Type': 'application/json' },
			body: JSON.stringify(drawn!.parts.flat())
		});
		if (!response.ok) return;
		questions = (await response.json()) as Record<number, Question>;
		marks = {};
		byHand = {};
		at = 0;
		begun = now = Date.now();
		sitting = drawn!;
	}
	onMount(() => {
		void draw(seed);
		const ticking = setInterval(() => (now = Date.now()), 1000);
		return () => clearInterval(ticking);
	});
	let drawnOf = untrack(() => sheet.changes);
	// a sitting of the sheet as it was is shown no more
	$effect(() => {
		if (sheet.changes !== drawnOf) sitting = null;
		drawnOf = sheet.changes;
	});

	/** What is given, in its order: each question with its part and its number. */
	const given = $derived.by(() => {
		if (!sitting) return [];
		let number = 0;
		return sitting.order.flatMap((part) =>
			sitting!.parts[part]!.flatMap((id, place) => {
				const question = questions[id];
				if (!question) return [];
				const isText = question.kind === 'information';
				if (!isText) number += 1;
				return [{ id, part, question, isFirst: place === 0, isText, number }];
			})
		);
	});
	const shownAs = (question: Question, id: number, part: number) =>
		presented(
			question,
			sitting!.seed,
			id,
			(sheet.quiz.parts[part]?.shuffleOptions ?? true) && !sheet.quiz.rules.fixedOptions.includes(id)
		);
	const worth = ({ part, id, isText }: (typeof given)[number]) =>
		isText ? 0 : (sheet.quiz.parts[part]?.pointsEach ?? questions[id]?.points ?? 0);
	const asked = $derived(given.filter(({ isText }) => !isText));
	const isByHand = ({ id, question }: (typeof given)[number]) =>
		kindNamed(question.kind).marks === 'person' || marks[id]?.credit === null;
	const pointsOf = (each: (typeof given)[number]) => {
		const credit = marks[each.id]?.credit;
		return isByHand(each) ? (byHand[each.id] ?? null) : credit == null ? null : credit * worth(each);
	};
	const earned = $derived(asked.reduce((sum, each) => sum + (pointsOf(each) ?? 0), 0));
	const outOf = $derived(asked.reduce((sum, each) => sum + worth(each), 0));
	const answered = $derived(asked.filter((each) => pointsOf(each) !== null).length);
	const two = (value: number) => Math.round(value * 100) / 100;
	const { minutes } = $derived(sheet.quiz.settings);
	const clock = $derived.by(() => {
		const gone = Math.floor((now - begun) / 1000);
		const text = (seconds: number) =>
			`${Math.floor(seconds / 60)}:${String(Math.floor(seconds % 60)).padStart(2, '0')}`;
		if (!minutes) return `${text(gone)} gone`;
		const left = minutes * 60 - gone;
		return left > 0 ? `${text(left)} left of ${count(minutes, 'minute')}` : `over time by ${text(-left)}`;
	});
	const { pass } = $derived(sheet.quiz.settings);
</script>

<div class="mb-4 flex flex-wrap items-center gap-2">
	<label class="mute flex items-center gap-2"
		>Seed <input class="input w-36" bind:value={seed} maxlength="200" onchange={() => draw(seed)} /></label
	>
	<button class="btn btn-sm preset-filled-brand" type="button" onclick={() => draw(seedAt(seed || 'harbour', 1))}
		>Redraw</button
	>
	<Segments
		bind:value={way}
		label="How it is answered"
		choices={[
			{ value: 'whole', name: 'as a whole' },
			{ value: 'one by one', name: 'question by question' }
		]}
	/>
	{#if sitting}<span class="ml-auto" role="status"
			><b>{two(earned)} of {two(outOf)} points</b>
			<span class="mute">{answered} of {asked.length} marked</span>
			{#if pass !== null && asked.length && answered === asked.length}<b
					>{outOf && (earned / outOf) * 100 >= pass ? '· passed' : '· not passed'}</b
				>{/if}</span
		>
		<span class="mute text-[13px]">{clock}</span>{/if}
</div>
{#if sheet.quiz.settings.instructions && sitting}<p class="instructions">{sheet.quiz.settings.instructions}</p>{/if}
{#if sitting}
	{#each given as each, place (`${sitting.seed}-${each.id}`)}
		{@const { question, order } = shownAs(each.question, each.id, each.part)}
		{#if each.isFirst && way === 'whole'}<h2 class="mt-5 mb-1">{sheet.quiz.parts[each.part]?.title}</h2>{/if}
		<article class="question" hidden={way === 'one by one' && place !== at}>
			{#if !each.isText}<p class="mute mb-1 text-[13px]">{each.number} · {count(worth(each), 'point')}</p>{/if}
			<QuestionView
				{question}
				{courseId}
				mode="try"
				pointsEach={worth(each)}
				{order}
				onmark={(mark) => (marks[each.id] = mark)}
			/>
			{#if !each.isText && isByHand(each)}<p class="mt-2 flex items-center gap-2">
					<span>Points by hand</span>
					<NumberField
						label="Points by hand for question {each.number}"
						placeholder="–"
						most={worth(each)}
						width="64px"
						bind:value={() => byHand[each.id] ?? null, (points) => (byHand[each.id] = points)}
					/>
					<span class="mute">of {worth(each)}: a person marks this one</span>
				</p>{/if}
		</article>
	{/each}
	{#if way === 'one by one' && given.length}
		<div class="mt-3 flex items-center gap-3">
			<button type="button" class="btn btn-sm preset-outlined-brand" disabled={at === 0} onclick={() => (at -= 1)}
				>The one before</button
			>
			<span class="mute">{at + 1} of {given.length}</span>
			<button
				type="button"
				class="btn btn-sm preset-filled-brand"
				disabled={at >= given.length - 1}
				onclick={() => (at += 1)}>The next one</button
			>
		</div>
	{/if}
{:else if failure || !sheet.quiz.parts.length}<p class="notice broken">
		{sheet.quiz.parts.length ? failure : 'The quiz has no parts yet.'}
	</p>
{:else}<p class="mute">
		The sheet has changed. <button type="button" class="word" onclick={() => draw(seed)}>Draw this sitting anew</button>
	</p>{/if}

<style>
	.question {
		max-width: 760px;
		padding: 12px 0 16px;
		border-bottom: 1px solid var(--line);
	}
	.instructions {
		max-width: 760px;
		white-space: pre-wrap;
	}
</style>
