<script lang="ts">
	import type { CategoryNode } from '$lib/server/banks/tree';
	import type { Part } from '$lib/server/quizzes/quiz';
	import Toggle from '$lib/ui/Toggle.svelte';
	import PickCategories from '../PickCategories.svelte';

	/** The categories that a part of a quiz draws from. */
	let { part, tree, mayChange }: { part: Part; tree: readonly CategoryNode[]; mayChange: boolean } = $props();
</script>

{#if tree.length}
	<PickCategories
		{tree}
		bind:chosen={part.categories}
		holds={({ all, own }) => (part.withUnder ? all : own)}
		label="What it draws from"
		disabled={!mayChange}
	/>
	<div class="mt-2">
		<Toggle bind:on={part.withUnder} disabled={!mayChange} label="with what is under each" />
	</div>
{:else}<p class="mute">This course has no bank yet. Take questions in first, or make a bank.</p>{/if}
