<script lang="ts">
	import { onMount } from 'svelte';
	import type { Bars } from './chart';
	import { figure } from './words';

	/** Bars that lie side by side, stacked where a line has several parts; the same figures stand in a table behind them. */
	let { bars, label }: { bars: Bars; label: string } = $props();

	let place: HTMLDivElement;
	let mode = $state('');
	let draw = $state<((bars: Bars) => void) | null>(null);
	const height = $derived(24 + bars.lines.length * (bars.apart ? 34 : 24) + (bars.parts.length > 1 ? 22 : 0));

	onMount(() => {
		let gone = false;
		let end: () => void = () => undefined;
		void import('./chart').then(async ({ drawBars }) => {
			if (gone) return;
			const drawn = await drawBars(place);
			end = drawn.end;
			if (gone) end();
			else draw = drawn.show;
		});
		const turned = new MutationObserver(() => (mode = document.documentElement.dataset.mode ?? ''));
		turned.observe(document.documentElement, { attributeFilter: ['data-mode'] });
		return () => {
			gone = true;
			turned.disconnect();
			end();
		};
	});
	$effect(() => {
		void mode;
		draw?.(bars);
	});
</script>

<figure>
	<figcaption class="heading text-[14px]">{label}</figcaption>
	<div
		bind:this={place}
		style="height: {height}px"
		role="img"
		aria-label="{label}, as bars; the figures stand below"
	></div>
	<details class="text-[13px]">
		<summary class="mute">The figures</summary>
		<table class="table">
			<thead
				><tr
					><th>{bars.of}</th>{#each bars.parts as part (part.name)}<th class="number">{part.name}</th>{/each}</tr
				></thead
			>
			<tbody>
				{#each bars.lines as line, at (at)}<tr
						><td>{line}</td>{#each bars.parts as part (part.name)}<td class="number"
								>{(bars.written ?? figure)(part.values[at] ?? 0)}</td
							>{/each}</tr
					>{/each}
			</tbody>
		</table>
	</details>
</figure>

<style>
	figure {
		min-width: 0;
		overflow: hidden;
	}
	summary {
		cursor: pointer;
	}
</style>
