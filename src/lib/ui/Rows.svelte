<script lang="ts" generics="Item extends { id: number }">
	import { createVirtualizer } from '@tanstack/svelte-virtual';
	import { onMount, tick, untrack, type Snippet } from 'svelte';
	import { isNoShortcut } from './keys';
	import type { Source } from './pages.svelte';

	/**
	 * A list of any length, one line an entry, walked with the arrow keys; only what is seen is drawn, and what is not here
	 * yet is asked for as it comes into sight.
	 */
	let {
		source,
		chosen,
		choose,
		line,
		head,
		label,
		columns,
		narrow = columns,
		height = 32,
		follow = false
	}: {
		source: Source<Item>;
		chosen: number | null;
		/** Is told what was chosen, and by which click where it was one. */
		choose: (item: Item, event?: MouseEvent) => void;
		line: Snippet<[Item]>;
		head: Snippet;
		label: string;
		columns: string;
		/** The columns where the window is narrow; cells of the class `roomy` are gone there. */
		narrow?: string;
		height?: number;
		/** Another list begins at what is chosen in it, or at its top; else one stays where one is. */
		follow?: boolean;
	} = $props();

	/** Lines that are drawn beyond what is seen, above and below. */
	const beyond = 8;

	let scroller: HTMLDivElement | undefined = $state();
	// svelte-ignore state_referenced_locally
	const virtual = createVirtualizer<HTMLDivElement, HTMLDivElement>({
		count: source.total,
		getScrollElement: () => scroller ?? null,
		estimateSize: () => height,
		overscan: beyond,
		initialRect: { width: 600, height: 640 }
	});
	const drawn = $derived($virtual.getVirtualItems());
	let ready = $state(false);
	let gutter = $state(0);
	onMount(() => {
		ready = true;
		gutter = scroller!.offsetWidth - scroller!.clientWidth;
	});
	$effect(() => {
		const count = source.total;
		void ready;
		untrack(() => $virtual.setOptions({ count, getScrollElement: () => scroller ?? null }));
	});
	const at = $derived(source.placeOf(chosen));
	$effect(() => {
		const [first, last] = [drawn[0]?.index, drawn.at(-1)?.index];
		if (first !== undefined && last !== undefined) source.want(first, last);
	});
	// a question that is asked for by its address is brought into sight once, and another list begins at its top
	let shownOf: unknown = null;
	$effect(() => {
		if (!follow || !ready || source === shownOf) return;
		shownOf = source;
		if (source.isRenewed) return;
		untrack(() => {
			if (at > 0) $virtual.scrollToIndex(at, { align: 'center' });
			else scroller?.scrollTo({ top: 0 });
		});
	});

	async function go(to: number) {
		const place = Math.max(0, Math.min(source.total - 1, to));
		$virtual.scrollToIndex(place, { align: 'auto' });
		const item = await source.load(place);
		if (!item) return;
		choose(item);
		await tick();
	}
	/** The list keeps the focus, and with it the arrow keys, where the line that has it goes out of sight. */
	function scrolled() {
		const focused = scroller?.contains(document.activeElement) ? document.activeElement!.closest('[data-row]') : null;
		if (!focused) return;
		const place = Number(focused.getAttribute('aria-rowindex')) - 2;
		const first = Math.floor(scroller!.scrollTop / height) - beyond;
		const last = Math.ceil((scroller!.scrollTop + scroller!.clientHeight) / height) + beyond;
		if (place < first || place > last) scroller!.focus({ preventScroll: true });
	}
	function keys(event: KeyboardEvent) {
		const target = event.target as HTMLElement;
		if (isNoShortcut(event)) return;
		const inside = scroller?.contains(target);
		if (event.key === 'j' || (inside && event.key === 'ArrowDown')) void go(at + 1);
		else if (event.key === 'k' || (inside && event.key === 'ArrowUp')) void go(at < 0 ? 0 : at - 1);
		else if (inside && event.key === 'Home') void go(0);
		else if (inside && event.key === 'End') void go(source.total - 1);
		else return;
		event.preventDefault();
	}
</script>

<svelte:window onkeydown={keys} />
<div
	class="list"
	style="--wide: {columns}; --narrow: {narrow}; --gutter: {gutter}px"
	role="table"
	aria-label={label}
	aria-rowcount={source.total + 1}
>
	<div class="head" role="row">{@render head()}</div>
	<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
	<div class="scroll" bind:this={scroller} tabindex="0" role="rowgroup" onscroll={scrolled}>
		<div style="height: {$virtual.getTotalSize()}px; position: relative">
			{#each drawn as drawnRow (drawnRow.index)}
				{@const item = source.at(drawnRow.index)}
				{#if item}
					<!-- svelte-ignore a11y_click_events_have_key_events, a11y_interactive_supports_focus -->
					<div
						class="line"
						class:chosen={item.id === chosen}
						role="row"
						aria-rowindex={drawnRow.index + 2}
						style="transform: translateY({drawnRow.start}px); height: {height}px"
						onclick={(event) => choose(item, event)}
						data-row={item.id}
					>
						{@render line(item)}
					</div>
				{:else}<div
						class="line faint"
						aria-hidden="true"
						style="transform: translateY({drawnRow.start}px); height: {height}px"
					>
						…
					</div>{/if}
			{/each}
		</div>
	</div>
</div>

<style>
	.list {
		--columns: var(--wide);
		display: flex;
		flex-direction: column;
		min-height: 0;
		flex: 1;
	}
	.head,
	.line {
		display: grid;
		grid-template-columns: var(--columns);
		column-gap: 12px;
		padding: 0 18px;
		align-items: center;
	}
	.head {
		font-weight: 600;
		font-size: 12.5px;
		color: var(--ink2);
		padding-block: 4px 5px;
		padding-right: calc(18px + var(--gutter));
		border-bottom: 1px solid var(--line2);
	}
	.scroll {
		overflow: hidden scroll;
		flex: 1;
		min-height: 0;
	}
	.line {
		position: absolute;
		left: 0;
		right: 0;
		border-bottom: 1px solid var(--line);
		cursor: default;
	}
	.line:not(.chosen):hover {
		background: color-mix(in srgb, var(--woad-soft) 45%, transparent);
	}
	@media (max-width: 1120px) {
		.list {
			--columns: var(--narrow);
		}
		.head,
		.line {
			padding-left: 10px;
			padding-right: 10px;
			column-gap: 8px;
		}
	}
</style>
