<script lang="ts">
	import { drawingRule } from '$core/draws/sheets/rule';
	import Mark from '$lib/ui/Mark.svelte';
	import Toggle from '$lib/ui/Toggle.svelte';
	import { count } from '$lib/ui/words';
	import PartEditor from './PartEditor.svelte';
	import PartLine from './PartLine.svelte';
	import { rangeText, type Sheet } from './sheet.svelte';

	/** The draw sheet: a line a part, with what is drawn and what it is worth, totals at the foot; below it the chosen part. */
	let { sheet, mayChange, courseId }: { sheet: Sheet; mayChange: boolean; courseId: number } = $props();

	const { parts } = $derived(sheet.quiz);
</script>

{#if sheet.quiz.drawingRule === 1}
	<p class="notice mb-2">
		This quiz keeps the sittings that it had: it draws by rule 1, part after part, which knows no quotas, pairs and
		groups.
		{#if mayChange}<button type="button" class="word" onclick={() => (sheet.quiz.drawingRule = drawingRule)}
				>Draw by rule {drawingRule}, every valid sitting as likely as any other</button
			> (its sittings by seed change).{/if}
	</p>
{/if}
<table class="table parts">
	<colgroup
		><col style="width: 26px" /><col style="width: 22%" /><col /><col style="width: 58px" /><col
			style="width: 76px"
		/><col style="width: 84px" /><col style="width: 72px" /><col style="width: 64px" /></colgroup
	>
	<thead
		><tr
			><th><span class="visually-hidden">Drag</span></th><th>Part</th><th>Pool</th><th class="number">holds</th><th
				class="number">draw</th
			><th class="number">points each</th><th class="number">total</th><th><span class="visually-hidden">Do</span></th
			></tr
		></thead
	>
	<tbody>
		{#each parts as part, at (part)}<PartLine {sheet} {part} {at} {mayChange} />{/each}
	</tbody>
	<tfoot>
		<tr>
			<td></td>
			<td colspan="2"
				>{#if mayChange}<button type="button" class="word" onclick={() => sheet.add()}>+ part</button>{/if}
				{#if !parts.length}<span class="mute"
						>A part lists questions, or draws so many from the categories you choose.</span
					>{/if}</td
			>
			<td></td>
			<td class="number"><b>{sheet.inAll}</b></td>
			<td class="number mute">in all</td>
			<td class="number"><b>{rangeText(sheet.total)}</b></td>
			<td></td>
		</tr>
	</tfoot>
</table>
{#if parts.length}
	<div class="mt-2 flex flex-wrap items-center gap-x-6 gap-y-1">
		{#if sheet.found.state === 'unfillable'}<Mark
				severity="broken"
				word="{count(sheet.found.stops.parts.length, 'part')} cannot be filled."
			/>
		{:else if sheet.found.state === 'unknown'}<Mark
				severity="doubtful"
				word="It is not known whether it can be filled."
			/>
		{:else}<Mark severity="whole" word="Can be filled in every draw." />{/if}
		<Toggle
			on={sheet.shufflesAll}
			change={(on) => sheet.shuffleAll(on)}
			disabled={!mayChange}
			label="shuffle the options of all parts"
		/>
		{#if parts.length > 1}<Toggle
				bind:on={sheet.quiz.rules.partsShuffled}
				disabled={!mayChange || !sheet.knowsQuotas}
				label="parts in random order"
			/>{/if}
	</div>
	{#if sheet.part}{#key sheet.chosen}<PartEditor {sheet} part={sheet.part} {mayChange} {courseId} />{/key}{/if}
{/if}

<style>
	.parts {
		table-layout: fixed;
	}
	button {
		cursor: pointer;
	}
</style>
