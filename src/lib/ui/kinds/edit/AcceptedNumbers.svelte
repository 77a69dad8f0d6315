<script lang="ts">
	import type { AcceptedNumber } from '$core/model/pieces';
	import NumberField from '../../NumberField.svelte';
	import CreditField from './CreditField.svelte';
	import List from './List.svelte';

	/** The numbers that are accepted; `of` says for what, where a question has several answers. */
	let { accepted = $bindable(), of = '' }: { accepted: AcceptedNumber[]; of?: string } = $props();

	const lowest = -1e15;
</script>

<List
	bind:items={accepted}
	what="number{of}"
	head={of ? '' : 'Accepted numbers'}
	unit={of ? '' : 'credit in percent'}
	make={() => ({ value: 0, tolerance: 0, credit: 1 })}
>
	{#snippet line(accepted: AcceptedNumber, at: number)}
		{#if 'value' in accepted}
			<NumberField live width="74px" least={lowest} label="Number {at + 1}{of}" required bind:value={accepted.value} />
			give or take
			<NumberField live width="74px" label="Tolerance {at + 1}{of}" required bind:value={accepted.tolerance} />
		{:else}
			from <NumberField live width="74px" least={lowest} label="Least number {at + 1}{of}" bind:value={accepted.min} />
			to
			<NumberField live width="74px" least={lowest} label="Greatest number {at + 1}{of}" bind:value={accepted.max} />
		{/if}
		<span class="ml-auto"></span>
		<CreditField bind:credit={accepted.credit} label="Credit of number {at + 1}{of}" />
	{/snippet}
</List>
