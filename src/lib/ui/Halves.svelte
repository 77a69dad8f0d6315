<script lang="ts">
	import type { Snippet } from 'svelte';

	/** A page in two halves, what one works on and what comes of it, with a bar along the bottom. */
	let {
		left,
		right,
		bar,
		leftName,
		rightName,
		columns = '1fr 1fr'
	}: { left: Snippet; right: Snippet; bar: Snippet; leftName: string; rightName: string; columns?: string } = $props();
</script>

<div class="halves" style="grid-template-columns: {columns}">
	<section class="half" aria-label={leftName}>{@render left()}</section>
	<!-- it scrolls by the keys where nothing in it takes the focus -->
	<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
	<section class="half paper" aria-label={rightName} tabindex="0">{@render right()}</section>
</div>
<div class="foot">{@render bar()}</div>

<style>
	.halves {
		display: grid;
		height: calc(100vh - 77px - 56px);
	}
	.half {
		display: flex;
		flex-direction: column;
		overflow: auto;
		padding: 16px 20px;
	}
	.paper {
		background: var(--paper);
		border-left: 1px solid var(--line);
	}
	.foot {
		position: fixed;
		inset: auto 0 0;
		padding: 10px 20px;
		background: var(--paper);
		border-top: 1px solid var(--line2);
	}
	.foot :global(> *) {
		display: flex;
		gap: 16px;
		align-items: center;
	}
</style>
