<script lang="ts">
	import { litPieces } from './lit';

	/** A text in which the words that are looked for are lit. */
	let { text, words }: { text: string; words: string } = $props();
</script>

{#each litPieces(text, words) as piece, at (at)}{#if piece.lit}<mark>{piece.text}</mark>{:else}{piece.text}{/if}{/each}

<style>
	mark {
		background: color-mix(in srgb, var(--weld) 34%, transparent);
		color: inherit;
	}
</style>
