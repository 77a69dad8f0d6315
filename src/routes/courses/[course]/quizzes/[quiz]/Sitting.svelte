<script lang="ts">
	import { presented } from '$core/draws/presented';
	import type { Question } from '$core/kinds';
	import type { Mark as Marked } from '$core/scoring/score';
	import QuestionView from '$lib/ui/QuestionView.svelte';
	import { count } from '$lib/ui/words';
	import { onMount, untrack } from 'svelte';
	import type { Sheet } from './sheet.svelte';

	/** One student's copy of a quiz by a seed: it is drawn, answered and marked. */
	let { sheet, seed = $bindable(), courseId }: { sheet: Sheet; seed: string; courseId: number } = $props();

	let sitting = $state.raw<number[][] | null>(null);
	let drawnSeed = $state('');
	let questions = $state.raw<Record<number, Question>>({});
	let marks = $state<Record<number, Marked | null>>({});

	async function draw(next: string) {
		seed = next;
		const answer = await sheet.ask(next);
		sheet.refusals = answer.refusals;
		if (!answer.sitting) {
			sitting = null;
			return;
		}
		const response = await fetch(`${sheet.address}/questions`, {
			method: 'POST',
			headers: { 'Content-Type': 'application/json' },
			body: JSON.stringify(answer.sitting.parts.flat())
		});
		if (!response.ok) return;
		questions = (await response.json()) as Record<number, Question>;
		marks = {};
		drawnSeed = next;
		sitting = answer.sitting.parts;
	}
	onMount(() => void draw(seed));
	let drawnOf = untrack(() => sheet.changes);
	// a sitting of the sheet as it was is shown no more
	$effect(() => {
		if (sheet.changes !== drawnOf) sitting = null;
		drawnOf = sheet.changes;
	});
	function another() {
		const number = /^(.*?)(\d+)$/.exec(seed);
		void draw(number ? `${number[1]}${Number(number[2]) + 1}` : `${seed}-2`);
	}
	const shownAs = (question: Question, id: number, part: number) =>
		presented(question, drawnSeed, id, sheet.quiz.parts[part]?.shuffleOptions ?? true);
	const worth = (part: number, id: number) => sheet.quiz.parts[part]?.pointsEach ?? questions[id]?.points ?? 0;
	const sumOf = (of: (part: number, id: number) => number) =>
		(sitting ?? []).reduce((sum, ids, part) => sum + ids.reduce((inner, id) => inner + of(part, id), 0), 0);
	const earned = $derived(sumOf((part, id) => (marks[id]?.credit ?? 0) * worth(part, id)));
	const outOf = $derived(sumOf(worth));
	const answered = $derived(Object.values(marks).filter((mark) => mark).length);
</script>

<div class="mb-4 flex flex-wrap items-center gap-2">
	<label class="mute flex items-center gap-2"
		>Seed <input class="input w-36" bind:value={seed} onchange={() => draw(seed)} /></label
	>
	<button class="btn btn-sm preset-filled-brand" type="button" onclick={another}>Redraw</button>
	{#if sitting}<span class="ml-auto" role="status"
			><b>{Math.round(earned * 100) / 100} of {Math.round(outOf * 100) / 100} points</b>
			<span class="mute">{answered} of {sitting.flat().length} marked</span></span
		>{/if}
</div>
{#if sitting}
	{#each sitting as ids, at (at)}
		<h2 class="mt-5 mb-1">{sheet.quiz.parts[at]?.title}</h2>
		{#each ids as id, n (`${drawnSeed}-${id}`)}
			{@const given = questions[id]}
			{#if given}
				{@const { question, order } = shownAs(given, id, at)}
				<article class="question">
					<p class="mute mb-1 text-[13px]">{n + 1} · {count(worth(at, id), 'point')}</p>
					<QuestionView
						{question}
						{courseId}
						mode="try"
						pointsEach={worth(at, id)}
						{order}
						onmark={(mark) => (marks[id] = mark)}
					/>
				</article>
			{/if}
		{/each}
	{/each}
{:else if sheet.refusals.length || !sheet.quiz.parts.length}<p class="notice broken">
		{sheet.quiz.parts.length ? 'No sitting can be drawn as the sheet stands.' : 'The quiz has no parts yet.'}
		{sheet.refusals.map((refusal) => `${sheet.quiz.parts[refusal.part]?.title}: ${refusal.message}`).join(' ')}
	</p>{/if}

<style>
	.question {
		max-width: 760px;
		padding: 12px 0 16px;
		border-bottom: 1px solid var(--line);
	}
</style>
