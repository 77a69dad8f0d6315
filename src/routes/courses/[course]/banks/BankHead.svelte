<script lang="ts">
	import SearchField from '$lib/ui/SearchField.svelte';
	import Segments from '$lib/ui/Segments.svelte';
	import { figure } from '$lib/ui/words';
	import KeyRound from '@lucide/svelte/icons/key-round';
	import Plus from '@lucide/svelte/icons/plus';
	import type { PageData } from './$types';
	import type { BankView } from './bank.svelte';
	import ColumnChoice from './ColumnChoice.svelte';
	import Filters from './Filters.svelte';

	/** The head of the questions of a bank: where one is, how they are shown, and by what they are filtered. */
	let {
		view,
		title,
		total,
		isWeave,
		words,
		saved,
		mayChange,
		columns,
		chooseColumns,
		keying,
		setKeys,
		make
	}: {
		view: BankView;
		title: string;
		total: number;
		isWeave: boolean;
		words: string;
		saved: PageData['saved'];
		mayChange: boolean;
		columns: string[];
		chooseColumns: (ids: string[]) => void;
		keying: boolean;
		setKeys: () => void;
		make: () => void;
	} = $props();

	const views = [
		{ value: 'list', name: 'List' },
		{ value: 'weave', name: 'Weave' }
	] as const;
</script>

<div class="filters">
	<h2 class="mr-auto flex min-w-0 gap-1" {title}>
		<span class="cut">{title}</span>
		<span class="mute font-normal">{figure(total)}</span>
	</h2>
	<Segments
		value={isWeave ? 'weave' : 'list'}
		choices={views}
		label="List or weave"
		change={(value) => view.show({ view: value === 'weave' ? 'weave' : null })}
	/>
	{#if !isWeave}
		<SearchField
			{words}
			label="Find words"
			placeholder="find words"
			look={(sought) => view.show({ words: sought, question: null })}
		/>
		<Filters {view} {saved} {mayChange} />
		<ColumnChoice chosen={columns} choose={chooseColumns} />
		{#if mayChange}<button
				type="button"
				class="btn btn-sm preset-outlined-brand"
				aria-label="Set keys"
				aria-pressed={keying}
				title="Set the keys of questions that have none, one after the other"
				onclick={setKeys}><KeyRound size={13} /></button
			>
			<button type="button" class="btn btn-sm preset-filled-brand" aria-label="Make a question" onclick={make}
				><Plus size={14} /></button
			>{/if}
	{/if}
</div>

<style>
	.filters {
		--search-width: 130px;
		flex-wrap: wrap;
		gap: 6px;
	}
	.filters h2 {
		flex: 1 1 100px;
		min-width: 90px;
	}
	/* the name and the tools need a line each there */
	@media (max-width: 1000px) {
		.filters h2 {
			flex-basis: 100%;
		}
	}
</style>
