<script lang="ts">
	import type { Across, WeaveCell } from '$lib/server/banks/weave';
	import Mark from '$lib/ui/Mark.svelte';
	import { figure } from '$lib/ui/words';
	import { shareOf, type Shade, type WovenBank } from './weave';

	/** A cell of a weave: its count, as dark as it is whole, or a hole. */
	let {
		weave,
		by,
		shade,
		cell,
		narrow,
		picked,
		none,
		label,
		at,
		inTurn,
		onfocus,
		choose,
		open,
		onkeydown
	}: {
		weave: WovenBank;
		by: Across;
		shade: Shade;
		cell: WeaveCell | undefined;
		/** Another bank lies beside it. */
		narrow: boolean;
		picked: boolean;
		/** Its bank has no such category. */
		none: boolean;
		label: string;
		/** Its line and column, by which keys find it. */
		at: [number, number];
		/** Tab comes to it. */
		inTurn: boolean;
		onfocus: () => void;
		choose: () => void;
		open: () => void;
		onkeydown: (event: KeyboardEvent) => void;
	} = $props();

	const share = $derived(cell ? shareOf(cell, weave, by, shade) : 0);
</script>

<button
	type="button"
	class="cell"
	class:narrow
	class:hole={!cell}
	class:dark={cell && share > 0.45}
	class:picked
	style={cell ? `--share: ${Math.round(12 + share * 88)}%` : ''}
	tabindex={inTurn ? 0 : -1}
	data-cell={at.join(' ')}
	disabled={none}
	aria-label={label}
	title={narrow ? weave.bank.name : undefined}
	{onfocus}
	onclick={choose}
	ondblclick={open}
	onkeydown={(event) => {
		onkeydown(event);
		if (event.key === 'Enter' && picked) open();
	}}
	>{#if cell}{figure(cell.questions)}{#if cell.broken}<span class="mark"><Mark severity="broken" word="" /></span
			>{/if}{/if}</button
>

<style>
	.cell {
		position: relative;
		display: grid;
		place-items: center;
		width: 58px;
		height: 32px;
		border-radius: 4px;
		cursor: pointer;
		background: color-mix(in srgb, var(--woad) var(--share), var(--ground));
		color: var(--ink);
		font-weight: 600;
	}
	.cell.narrow {
		width: 44px;
	}
	.cell.dark {
		color: var(--paper);
	}
	.cell.picked {
		outline: 2px solid var(--weld);
		outline-offset: 1px;
	}
	.cell:disabled::after {
		border-style: none;
	}
	.hole {
		background: none;
		cursor: default;
	}
	.hole::after {
		content: '';
		width: 11px;
		height: 11px;
		border: 1.5px dashed var(--line2);
		border-radius: 50%;
	}
	.mark {
		position: absolute;
		top: 2px;
		right: 1px;
		background: var(--paper);
		border-radius: 3px;
		line-height: 1;
		padding: 1px 2px;
	}
</style>
