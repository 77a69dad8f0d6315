<script lang="ts">
	import { sourceLines } from './source-lines';

	/**
	 * The source of a question as it came, with the lines lit that its reports speak of; within a line that was broken to be
	 * read, what has the words that they speak of. Lines count from `first`.
	 */
	let {
		source,
		file,
		first,
		lit,
		words = []
	}: { source: string; file: string; first: number; lit: number[]; words?: string[] } = $props();
	const lines = $derived(sourceLines(source, first));
	const broken = $derived(new Set(lines.filter((line) => !line.first).map((line) => line.number)));
	const isLit = (line: (typeof lines)[number]) =>
		lit.includes(line.number) &&
		(!broken.has(line.number) || !words.length || words.some((word) => line.text.includes(word)));
</script>

<p class="mono mute mb-1">{file}{file ? ':' : ''}{first}</p>
<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
<div class="source mono" tabindex="0" role="region" aria-label="Source">
	{#each lines as line, at (at)}<div class:lit={isLit(line)}>
			<span class="no" aria-hidden="true">{line.first ? line.number : ''}</span><code>{line.text}</code>
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
