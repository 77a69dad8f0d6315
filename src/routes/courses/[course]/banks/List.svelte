<script lang="ts">
	import type { FoundPart } from '$core/compare/searched';
	import type { QuestionRow } from '$lib/server/banks/question-rows';
	import { dragPart } from '$lib/ui/drag';
	import Lit from '$lib/ui/Lit.svelte';
	import Mark from '$lib/ui/Mark.svelte';
	import Rows from '$lib/ui/Rows.svelte';
	import { count } from '$lib/ui/words';
	import type { BankView } from './bank.svelte';
	import type { Column } from './columns';

	/** The questions of a bank as a table: its columns are chosen, a click on a head sorts by it. */
	let {
		view,
		columns,
		chosen,
		choose,
		categoryOf,
		mayChange
	}: {
		view: BankView;
		columns: readonly Column[];
		chosen: number | null;
		choose: (question: QuestionRow) => void;
		categoryOf: (id: number | null) => string;
		mayChange: boolean;
	} = $props();

	const tick = $derived(mayChange ? '16px ' : '');
	const { selection } = $derived(view);
	const showsStem = $derived(columns.some(({ id }) => id === 'stem'));
	const widths = $derived(tick + columns.map(({ width }) => width).join(' '));
	const narrow = $derived(
		tick +
			columns
				.filter(({ roomy }) => !roomy)
				.map(({ width }) => width)
				.join(' ')
	);
	const inFull = ({ part, before, text }: FoundPart) => `${part}: ${before}${text}`;
	function sortBy(column: Column) {
		const again = view.filter.sort === column.sort;
		void view.show({
			sort: column.sort === 'tree' ? null : column.sort,
			down: again && !view.filter.down ? '1' : null,
			question: null
		});
	}
	/** A click with Control or Shift selects, as everywhere; without them it shows the question. */
	function clicked(question: QuestionRow, event?: MouseEvent) {
		if (mayChange && event && (event.ctrlKey || event.metaKey || event.shiftKey))
			pick(question, !selection.isSelected(question.id), event.shiftKey);
		else choose(question);
	}
	function pick(question: QuestionRow, on: boolean, stretch: boolean) {
		selection.click(view.pages.placeOf(question.id), on, stretch, (place) => view.pages.at(place));
	}
	const dragged = (question: QuestionRow) =>
		mayChange
			? dragPart({
					lift: () => ({
						sort: 'question',
						keys: selection.isSelected(question.id) && !selection.ofAll ? selection.ids : [question.id]
					})
				})
			: () => undefined;
</script>

<Rows source={view.pages} follow {chosen} choose={clicked} label="Questions" columns={widths} {narrow}>
	{#snippet head()}
		{#if mayChange}<span role="columnheader"
				><input
					type="checkbox"
					class="checkbox"
					aria-label="Select all that are listed"
					checked={selection.allSelected}
					onchange={(event) => selection.selectAll(event.currentTarget.checked)}
				/></span
			>{/if}
		{#each columns as column (column.id)}
			{@const sorted = column.sort !== 'tree' && view.filter.sort === column.sort}
			<span
				role="columnheader"
				class:roomy={column.roomy}
				class:text-right={column.number}
				class="cut"
				aria-sort={sorted ? (view.filter.down ? 'descending' : 'ascending') : undefined}
				><button type="button" class="sorter" onclick={() => sortBy(column)}
					>{column.name}{sorted ? (view.filter.down ? ' ↓' : ' ↑') : ''}</button
				></span
			>
		{/each}
	{/snippet}
	{#snippet line(question: QuestionRow)}
		{#if mayChange}<span role="cell" class="flex items-center"
				><input
					type="checkbox"
					class="checkbox"
					aria-label="Select {question.title}"
					checked={selection.isSelected(question.id)}
					onclick={(event) => {
						event.stopPropagation();
						pick(question, event.currentTarget.checked, event.shiftKey);
					}}
				/></span
			>{/if}
		{#each columns as column (column.id)}
			{#if column.id === 'snags'}<span role="cell" class="cut"
					>{#if question.worst}<Mark severity={question.worst} word={count(question.snags, 'snag')} />{/if}</span
				>
			{:else}
				{@const says = column.says(question, view.pages.placeOf(question.id), categoryOf)}
				{#if column.id === 'title'}<span
						role="cell"
						class={question.found && !showsStem ? 'beside' : 'cut'}
						title={says}
						{@attach dragged(question)}
						>{#if question.found && !showsStem}<span class="cut"><Lit text={says} words={view.filter.words} /></span
							><span class="cut mute" title={inFull(question.found)}
								><Lit text={question.found.text} words={view.filter.words} /> ({question.found.part})</span
							>{:else}<Lit text={says} words={view.filter.words} />{/if}</span
					>
				{:else if column.id === 'stem' && question.found}<span
						role="cell"
						class="cut roomy mute"
						title={inFull(question.found)}
						>{question.found.part}: <Lit
							text={question.found.before + question.found.text}
							words={view.filter.words}
						/></span
					>
				{:else}<span
						role="cell"
						class="cut"
						class:roomy={column.roomy}
						class:mute={column.roomy}
						class:text-right={column.number}
						class:whole={column.id === 'key' && question.key === 'verified' && !question.stale}
						class:doubtful={column.id === 'key' && (question.key === 'disputed' || question.stale)}
						title={says}
						>{#if column.id === 'key' && question.key === 'verified' && !question.stale}✓
						{/if}{#if column.id === 'stem'}<Lit text={says} words={view.filter.words} />{:else}{says}{/if}</span
					>{/if}
			{/if}
		{/each}
	{/snippet}
</Rows>

<style>
	.beside {
		display: grid;
		grid-template-columns: minmax(0, auto) minmax(40%, 1fr);
		gap: 10px;
		align-items: center;
	}
	.sorter {
		cursor: pointer;
		font-weight: 600;
	}
	.sorter:hover {
		text-decoration: underline;
		text-underline-offset: 3px;
	}
</style>
