<script lang="ts">
	import { Dialog, Portal } from '@skeletonlabs/skeleton-svelte';
	import ChevronLeft from '@lucide/svelte/icons/chevron-left';
	import ChevronRight from '@lucide/svelte/icons/chevron-right';
	import PanelLeft from '@lucide/svelte/icons/panel-left';
	import X from '@lucide/svelte/icons/x';
	import { page } from '$app/state';
	import { onMount, untrack, type Snippet } from 'svelte';
	import { keepWidths, leastWidth, mostWidth, widthsCookie } from './widths';
	import { overSheets } from './over-sheets';

	/**
	 * Where, what, and the thing itself, side by side. The widths of the outer two are dragged, or set with the arrow keys,
	 * and remembered by `name`. In a narrow window the first opens as a drawer, and in a narrower one the last over the
	 * middle once something is chosen there.
	 */
	let {
		name,
		first,
		middle,
		last,
		firstLabel = '',
		middleLabel,
		lastLabel,
		widths,
		list = true
	}: {
		name: string;
		first?: Snippet;
		middle: Snippet;
		last?: Snippet;
		firstLabel?: string;
		middleLabel: string;
		lastLabel: string;
		/** The widths of the first and the last, in pixels, where nobody has set them. */
		widths: [number, number];
		/** The middle is a list that scrolls by itself, and not a text that scrolls as a whole. */
		list?: boolean;
	} = $props();

	type Side = 0 | 1;
	const step = 16;
	let set = $state<[number, number] | null>(
		untrack(() => (page.data.widths as ReturnType<typeof widthsCookie> | undefined)?.get(name) ?? null)
	);
	const now = $derived(set ?? widths);
	/** Whether the first column is a drawer; until that is known, the window hides it. */
	let narrow = $state(false);
	let drawer = $state(false);
	/** Whether the last column is over the middle, in a narrow window. */
	let over = $state(false);

	onMount(() => {
		const query = matchMedia('(max-width: 1120px)');
		const look = () => (narrow = query.matches);
		look();
		query.addEventListener('change', look);
		return () => query.removeEventListener('change', look);
	});

	function widen(side: Side, by: number) {
		const next: [number, number] = [...now];
		next[side] = Math.min(mostWidth, Math.max(leastWidth, next[side] + by));
		set = next;
	}
	function drag(side: Side, event: PointerEvent) {
		const edge = event.currentTarget as HTMLElement;
		edge.setPointerCapture(event.pointerId);
		let at = event.clientX;
		const move = ({ clientX }: PointerEvent) => {
			widen(side, side === 0 ? clientX - at : at - clientX);
			at = clientX;
		};
		edge.addEventListener('pointermove', move);
		edge.addEventListener(
			'lostpointercapture',
			() => {
				edge.removeEventListener('pointermove', move);
				keepWidths(name, now);
			},
			{ once: true }
		);
	}
	function keys(side: Side, event: KeyboardEvent) {
		const by = { ArrowLeft: -step, ArrowRight: step }[event.key];
		if (by === undefined) return;
		event.preventDefault();
		widen(side, side === 0 ? by : -by);
		keepWidths(name, now);
	}
	/** Something that is chosen in the list is shown, also where there is no room beside it. */
	function chosen(event: Event) {
		if ((event.target as HTMLElement).closest('[data-row], [data-opens]')) over = true;
	}
</script>

<div
	class="columns frame"
	class:no-first={!first}
	class:no-last={!last}
	class:opened={over}
	style="--first: {now[0]}px; --last: {now[1]}px"
>
	{#if first && !narrow}
		<section class="column first" aria-label={firstLabel}>{@render first()}</section>
		{@render edge(0, firstLabel)}
	{/if}
	<!-- svelte-ignore a11y_click_events_have_key_events, a11y_no_noninteractive_element_interactions -->
	<section class="column" class:middle={list} aria-label={middleLabel} onclick={chosen}>
		{#if first}<button
				type="button"
				class="btn btn-sm preset-outlined-brand opens-drawer"
				onclick={() => (drawer = true)}><PanelLeft size={14} aria-hidden="true" /> {firstLabel}</button
			>{:else if last}<button
				type="button"
				class="btn btn-sm preset-outlined-brand opens-last"
				onclick={() => (over = true)}>{lastLabel} <ChevronRight size={14} aria-hidden="true" /></button
			>{/if}
		{@render middle()}
	</section>
	{#if last}
		{@render edge(1, lastLabel)}
		<section class="column paper last" aria-label={lastLabel}>
			<button type="button" class="btn btn-sm preset-outlined-brand back" onclick={() => (over = false)}
				><ChevronLeft size={14} aria-hidden="true" /> {middleLabel}</button
			>
			{@render last()}
		</section>
	{/if}
</div>

{#if first}
	<Dialog open={drawer} persistentElements={overSheets} onOpenChange={(details) => (drawer = details.open)}>
		<Portal>
			<Dialog.Backdrop class="dialog-backdrop" />
			<Dialog.Positioner class="drawer-place">
				<Dialog.Content class="drawer">
					<div class="mb-2 flex justify-between">
						<Dialog.Title><h2>{firstLabel}</h2></Dialog.Title>
						<Dialog.CloseTrigger aria-label="Close" class="cursor-pointer"><X size={18} /></Dialog.CloseTrigger>
					</div>
					{#if drawer && narrow}{@render first()}{/if}
				</Dialog.Content>
			</Dialog.Positioner>
		</Portal>
	</Dialog>
{/if}

{#snippet edge(side: Side, label: string)}
	<!-- svelte-ignore a11y_no_noninteractive_tabindex, a11y_no_noninteractive_element_interactions -->
	<div
		class="edge"
		role="separator"
		aria-orientation="vertical"
		aria-label="Width of {label}"
		aria-valuenow={now[side]}
		aria-valuemin={leastWidth}
		aria-valuemax={mostWidth}
		tabindex="0"
		onpointerdown={(event) => drag(side, event)}
		onkeydown={(event) => keys(side, event)}
	></div>
{/snippet}

<style>
	.last {
		overflow-wrap: break-word;
	}
	.frame {
		grid-template-columns: minmax(0, var(--first)) 0 minmax(0, 1fr) 0 minmax(0, var(--last));
	}
	.frame.no-first {
		grid-template-columns: minmax(0, 1fr) 0 minmax(0, var(--last));
	}
	.frame.no-last {
		grid-template-columns: minmax(0, var(--first)) 0 minmax(0, 1fr);
	}
	.frame.no-first.no-last {
		grid-template-columns: minmax(0, 1fr);
	}
	.edge {
		position: relative;
		z-index: 2;
		width: 9px;
		margin-left: -4px;
		border-left: 1px solid transparent;
		cursor: col-resize;
		touch-action: none;
	}
	.edge::before {
		content: '';
		position: absolute;
		inset: 0 auto 0 3px;
		width: 1px;
		background: var(--line);
	}
	.edge:hover::before,
	.edge:focus-visible::before {
		width: 3px;
		background: var(--woad);
	}
	.edge:focus-visible {
		outline: none;
	}
	.opens-drawer,
	.opens-last,
	.back {
		display: none;
	}
	@media (max-width: 1120px) {
		.frame {
			grid-template-columns: minmax(0, 1fr) 0 minmax(0, min(var(--last), 44%));
		}
		.frame.no-first {
			grid-template-columns: minmax(0, 1fr) 0 minmax(0, min(var(--last), 36%));
		}
		.first,
		.first + .edge {
			display: none;
		}
		.frame.no-last {
			grid-template-columns: minmax(0, 1fr);
		}
		.opens-drawer {
			display: inline-flex;
			align-self: flex-start;
			margin: 0 0 8px;
		}
		.middle > .opens-drawer {
			margin-inline: 10px;
		}
	}
	/* what has no drawer beside it needs its middle whole sooner */
	@media (max-width: 1000px) {
		.frame.no-first {
			grid-template-columns: minmax(0, 1fr);
			position: relative;
		}
		.no-first > .edge {
			display: none;
		}
		.no-first > .last {
			position: absolute;
			inset: 0;
			z-index: 3;
			display: none;
		}
		.frame.no-first.opened > .last {
			display: block;
		}
		.no-first .back {
			display: inline-flex;
			margin-bottom: 8px;
		}
		.opens-last {
			display: inline-flex;
			align-self: flex-start;
			margin: 0 0 8px;
		}
		.middle > .opens-last {
			margin-inline: 10px;
		}
	}
	@media (max-width: 899px) {
		.frame,
		.frame.no-first {
			grid-template-columns: minmax(0, 1fr);
			position: relative;
		}
		.edge {
			display: none;
		}
		.last {
			position: absolute;
			inset: 0;
			z-index: 3;
			display: none;
		}
		.frame.opened .last {
			display: block;
		}
		.back {
			display: inline-flex;
			margin-bottom: 8px;
		}
	}
</style>
