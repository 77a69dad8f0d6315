<script lang="ts">
	import type { AcceptedNumber } from '$core/model/pieces';
	import CreditField from './CreditField.svelte';
	import List from './List.svelte';

	/** The numbers that are accepted; `of` says for what, where a question has several answers. */
	let { accepted = $bindable(), of = '' }: { accepted: AcceptedNumber[]; of?: string } = $props();
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
			<input
				class="input amount"
				type="number"
				step="any"
				aria-label="Number {at + 1}{of}"
				bind:value={accepted.value}
			/>
			give or take
			<input
				class="input amount"
				type="number"
				min="0"
				step="any"
				aria-label="Tolerance {at + 1}{of}"
				bind:value={accepted.tolerance}
			/>
		{:else}
			from <input
				class="input amount"
				type="number"
				step="any"
				aria-label="Least number {at + 1}{of}"
				bind:value={accepted.min}
			/>
			to
			<input
				class="input amount"
				type="number"
				step="any"
				aria-label="Greatest number {at + 1}{of}"
				bind:value={accepted.max}
			/>
		{/if}
		<span class="ml-auto"></span>
		<CreditField bind:credit={accepted.credit} label="Credit of number {at + 1}{of}" />
	{/snippet}
</List>

<style>
	.amount {
		width: 74px;
		flex: none;
	}
</style>
