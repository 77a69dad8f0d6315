<script lang="ts">
	import type { Part } from '$lib/server/quizzes/quiz';
	import Segments from '$lib/ui/Segments.svelte';
	import Toggle from '$lib/ui/Toggle.svelte';
	import { figure } from '$lib/ui/words';
	import Balance from './Balance.svelte';
	import ListedQuestions from './ListedQuestions.svelte';
	import OnlySome from './OnlySome.svelte';
	import PartPool from './PartPool.svelte';
	import PoolQuestions from './PoolQuestions.svelte';
	import type { Sheet } from './sheet.svelte';

	/** The chosen part: what it draws from, which questions these are, how they are balanced and ordered. */
	let { sheet, part, mayChange, courseId }: { sheet: Sheet; part: Part; mayChange: boolean; courseId: number } =
		$props();

	let shown = $state<'categories' | 'questions'>('categories');
	const holds = $derived(sheet.looks[sheet.chosen]?.holds ?? 0);
	const isList = $derived(part.questions.length > 0);
</script>

<section class="editor" aria-label="The part {part.title}">
	<div class="min-w-0">
		<div class="mb-2 flex flex-wrap items-center gap-3">
			<h2 class="cut">{part.title || 'This part'}: {isList ? 'its list' : 'its pool'}</h2>
			{#if !isList}<div class="ml-auto">
					<Segments
						bind:value={shown}
						label="What is shown of the pool"
						choices={[
							{ value: 'categories', name: 'Categories' },
							{ value: 'questions', name: `Questions · ${figure(holds)}` }
						]}
					/>
				</div>{/if}
		</div>
		{#if isList}<ListedQuestions {sheet} {part} {mayChange} />
		{:else if shown === 'questions'}<PoolQuestions {sheet} {part} {mayChange} {courseId} />
		{:else}<PartPool {part} tree={sheet.tree} {mayChange} />
			<OnlySome {part} look={sheet.looks[sheet.chosen]} disabled={!mayChange || !sheet.knowsQuotas} />{/if}
	</div>
	<div class="min-w-0">
		<Balance {sheet} {part} {mayChange} />
		<h3 class="mt-4 mb-1">Order</h3>
		<Segments
			value={part.order}
			change={(order) => mayChange && (part.order = order)}
			label="Order of the questions"
			choices={[
				{ value: 'shuffled', name: 'shuffled' },
				{ value: 'kept', name: isList ? 'as listed' : 'as in the bank' },
				{ value: 'easy first', name: 'easy first' }
			]}
		/>
		<div class="mt-2">
			<Toggle
				bind:on={part.shuffleOptions}
				disabled={!mayChange}
				label="shuffle the options; pinned ones stay, and questions that forbid it"
			/>
		</div>
	</div>
</section>

<style>
	.editor {
		display: grid;
		grid-template-columns: minmax(0, 3fr) minmax(0, 2fr);
		gap: 0 28px;
		margin-top: 14px;
		padding-top: 12px;
		border-top: 1px solid var(--line);
	}
	@container (max-width: 620px) {
		.editor {
			grid-template-columns: minmax(0, 1fr);
			gap: 18px;
		}
	}
</style>
