<script lang="ts">
	import { pathOfKey } from '$core/take-in/paths';
	import type { Outcome } from '$core/take-in/planned-question';
	import { latest } from '$lib/ui/latest';
	import { count, pathText } from '$lib/ui/words';
	import type { LoadChanges } from '$lib/server/loads/changes';
	import type { Review } from './review.svelte';

	/** What taking in would change, in full: the new categories, and the questions by what becomes of them. */
	let {
		review,
		target,
		show,
		close
	}: { review: Review; target: string; show: (id: number) => void; close: () => void } = $props();

	const names: [Outcome, (many: boolean) => string][] = [
		['replaced', () => 'put in the place of one that is there, whose old version is kept'],
		['skipped', (many) => `skipped, because ${many ? 'they are' : 'it is'} in the course already`],
		['aside', () => 'set aside'],
		['left', () => 'left out'],
		['taken', () => 'taken in']
	];
	let changes = $state.raw<LoadChanges | null>(null);
	const fetchChanges = latest(async () => {
		const answer = await fetch(`${review.address}/changes`).catch(() => null);
		return answer?.ok ? ((await answer.json()) as LoadChanges) : undefined;
	});
	$effect(() => {
		void review.summary;
		if (review.counting) return;
		void fetchChanges().then((found) => {
			if (found) changes = found;
		});
	});
	/** What becomes of the questions of a quiz, in words. */
	const quizWords = (quiz: LoadChanges['quizzes'][number]) =>
		[
			count(quiz.questions, 'question'),
			...(quiz.there ? [`${quiz.there} of them in the course already, which it points to`] : []),
			...(quiz.missing ? [`${quiz.missing} of them missing, since they are set aside or left out`] : []),
			...(quiz.isKnown
				? ['and the course has one with this title: the same is not taken in again, another gets a number']
				: [])
		].join(', ');
</script>

<svelte:window onkeydown={(event) => event.key === 'Escape' && close()} />
<section class="panel" aria-label="What will change" aria-busy={changes === null || review.counting}>
	<div class="flex items-baseline">
		<h2>What will change</h2>
		<button type="button" class="btn btn-sm preset-outlined-brand ml-auto" onclick={close}>Close</button>
	</div>
	<p class="mute mt-1">
		In {target}. Nothing else in the course is touched{review.plan.replaced
			? ', but for those put in the place of another'
			: ''}.
	</p>
	{#if review.plan.newCategories.length}
		<h3 class="mt-3">{count(review.plan.newCategories.length, 'new category', 'new categories')}</h3>
		<p>{review.plan.newCategories.map((key) => pathText(pathOfKey(key))).join(' · ')}</p>
	{/if}
	{#if changes?.quizzes.length}
		<h3 class="mt-3">{count(changes.quizzes.length, 'quiz', 'quizzes')}</h3>
		<ul>
			{#each changes.quizzes as quiz (quiz.id)}<li>
					<b>{quiz.title}</b> <span class="mute">{quizWords(quiz)}</span>
				</li>{/each}
		</ul>
	{/if}
	{#if review.plan.effects.length}
		<h3 class="mt-3">By rules that are not the plain ones</h3>
		<ul>
			{#each review.plan.effects as effect (effect.rule)}<li>
					{effect.what} <span class="mute">{count(effect.questions, 'question')}</span>
				</li>{/each}
		</ul>
	{/if}
	{#each names as [outcome, words] (outcome)}
		{@const found = changes?.outcomes.find((other) => other.outcome === outcome)}
		{#if found}
			<h3 class="mt-3">{count(found.questions, 'question')} {words(found.questions > 1)}</h3>
			<p class="names">
				{#each found.first as question (question.id)}<button
						type="button"
						class="word"
						onclick={() => show(question.id)}>{question.number} {question.title || '(no title)'}</button
					>{/each}{#if found.questions > found.first.length}<span class="mute"
						>and {(found.questions - found.first.length).toLocaleString('en')} more</span
					>{/if}
			</p>
		{/if}
	{/each}
	{#if !changes}<p class="mute mt-3">Counting…</p>{/if}
</section>

<style>
	.panel {
		position: fixed;
		inset: auto 0 54px;
		z-index: 5;
		padding: 16px 20px;
		max-height: 60vh;
		overflow: auto;
		background: var(--paper);
		border-top: 1.5px solid var(--line2);
	}
	.names {
		display: flex;
		flex-wrap: wrap;
		gap: 2px 16px;
		font-size: 13px;
	}
	.names button {
		cursor: pointer;
		max-width: 320px;
		overflow: hidden;
		text-overflow: ellipsis;
		white-space: nowrap;
	}
</style>
