<script lang="ts">
	/** The source of a question as it came, with the lines lit that its reports speak of. Lines count from `first`. */
	let { source, file, first, lit }: { source: string; file: string; first: number; lit: number[] } = $props();
	const lines = $derived(source.split('\n'));
</script>

<p class="mono mute mb-1">{file}{file ? ':' : ''}{first}</p>
<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
<div class="source mono" tabindex="0" role="region" aria-label="Source">
	{#each lines as line, at (at)}<div class:lit={lit.includes(first + at)}>
			<span class="no" aria-hidden="true">{first + at}</span><code>{line}</code>
		</div>{/each}
</div>

<style>
	.source {
		background: var(--ground);
		border: 1px solid var(--line);
		border-radius: 6px;
		padding: 8px 0;
		overflow: auto;
		max-height: 60vh;
	}
	.source > div {
		display: flex;
		padding-right: 10px;
		width: max-content;
		min-width: 100%;
	}
	.no {
		flex: none;
		width: 44px;
		padding-right: 10px;
		text-align: right;
		color: var(--ink3);
		user-select: none;
	}
	code {
		white-space: pre;
		tab-size: 2;
		font: inherit;
	}
	.lit {
		background: var(--weld-soft);
		box-shadow: inset 3px 0 0 var(--weld);
	}
</style>
