<script lang="ts">
	import { pathOfKey } from '$core/take-in/paths';
	import type { Outcome } from '$core/take-in/plan-row';
	import { count, pathText } from '$lib/ui/words';
	import type { StagedQuiz } from '$lib/server/loads/review';
	import type { Review } from './review.svelte';

	/** What taking in would change, in full: the new categories, and the questions by what becomes of them. */
	let {
		review,
		quizzes,
		target,
		show,
		close
	}: { review: Review; quizzes: StagedQuiz[]; target: string; show: (id: number) => void; close: () => void } =
		$props();

	const names: [Outcome, (many: boolean) => string][] = [
		['replaced', () => 'put in the place of one that is there, whose old version is kept'],
		['skipped', (many) => `skipped, because ${many ? 'they are' : 'it is'} in the course already`],
		['aside', () => 'set aside'],
		['left', () => 'left out'],
		['taken', () => 'taken in']
	];
	const most = 100;
	/** What becomes of the questions of a quiz, in words. */
	const outcomeByNumber = $derived(new Map(review.questions.map((one, at) => [one.number, review.plan.outcomes[at]!])));
	function quizWords(quiz: StagedQuiz): string {
		const of = (...outcomes: Outcome[]) =>
			quiz.numbers.filter((number) => outcomes.includes(outcomeByNumber.get(number)!)).length;
		const there = of('skipped', 'replaced');
		const missing = of('aside', 'left');
		return [
			count(quiz.numbers.length, 'question'),
			...(there ? [`${there} of them in the course already, which it points to`] : []),
			...(missing ? [`${missing} of them missing, since they are set aside or left out`] : [])
		].join(', ');
	}
	const by = (outcome: Outcome) => review.questions.filter((_, at) => review.plan.outcomes[at] === outcome);
</script>

<svelte:window onkeydown={(event) => event.key === 'Escape' && close()} />
<section class="panel" aria-label="What will change">
	<div class="flex items-baseline">
		<h2>What will change</h2>
		<button type="button" class="button small ghost ml-auto" onclick={close}>Close</button>
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
	{#if quizzes.length}
		<h3 class="mt-3">{count(quizzes.length, 'quiz', 'quizzes')}</h3>
		<ul>
			{#each quizzes as quiz (quiz.id)}<li><b>{quiz.title}</b> <span class="mute">{quizWords(quiz)}</span></li>{/each}
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
		{@const list = by(outcome)}
		{#if list.length}
			<h3 class="mt-3">{count(list.length, 'question')} {words(list.length > 1)}</h3>
			<p class="names">
				{#each list.slice(0, most) as one (one.id)}<button type="button" class="word" onclick={() => show(one.id)}
						>{one.number} {one.title || '(no title)'}</button
					>{/each}{#if list.length > most}<span class="mute">and {(list.length - most).toLocaleString('en')} more</span
					>{/if}
			</p>
		{/if}
	{/each}
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
