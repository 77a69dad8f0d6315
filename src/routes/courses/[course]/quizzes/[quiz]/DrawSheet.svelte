<script lang="ts">
	import Mark from '$lib/ui/Mark.svelte';
	import { count } from '$lib/ui/words';
	import PartLine from './PartLine.svelte';
	import { rangeText, type Sheet } from './sheet.svelte';

	/** The draw sheet: a line a part, with what is drawn and what it is worth, totals at the foot, and what stops it. */
	let { sheet, mayChange }: { sheet: Sheet; mayChange: boolean } = $props();

	const { parts } = $derived(sheet.quiz);
</script>

<table class="table parts">
	<colgroup
		><col style="width: 20%" /><col /><col style="width: 122px" /><col style="width: 88px" /><col
			style="width: 60px"
		/><col style="width: 92px" /></colgroup
	>
	<thead
		><tr
			><th>Part</th><th>Pool</th><th class="number">draw</th><th class="number">points each</th><th class="number"
				>total</th
			><th><span class="visually-hidden">Order</span></th></tr
		></thead
	>
	<tbody>
		{#each parts as part, at (at)}<PartLine {sheet} {part} {at} {mayChange} />{/each}
	</tbody>
	<tfoot>
		<tr>
			<td
				>{#if mayChange}<button type="button" class="word" onclick={() => sheet.add()}>+ part</button>{/if}</td
			>
			<td class="mute">{parts.length ? '' : 'A part draws so many questions from the categories you choose.'}</td>
			<td class="number"><b>{sheet.inAll}</b></td>
			<td></td>
			<td class="number"><b>{rangeText(sheet.total)}</b></td>
			<td></td>
		</tr>
	</tfoot>
</table>
{#if parts.length}
	<p class="mt-3">
		{#if sheet.refusals.length}<Mark
				severity="broken"
				word="{count(sheet.refusals.length, 'part')} cannot be filled."
			/>
		{:else}<Mark severity="whole" word="Can be filled in every draw." />{/if}
		{#if sheet.total[0] !== sheet.total[1]}<span class="doubtful ml-3"
				><Mark severity="doubtful" word="Totals differ: two students may be marked out of {rangeText(sheet.total)}." /> Set
				the points each to make them equal.</span
			>{/if}
	</p>
{/if}

<style>
	.parts {
		table-layout: fixed;
	}
	button {
		cursor: pointer;
	}
</style>
