<script lang="ts">
	import type { CategoryNode } from '$lib/server/banks/tree';
	import type { Part } from '$lib/server/quizzes/quiz';
	import Toggle from '$lib/ui/Toggle.svelte';
	import PickCategories from '../PickCategories.svelte';

	/** The categories that a part of a quiz draws from. */
	let { part, tree, mayChange }: { part: Part; tree: readonly CategoryNode[]; mayChange: boolean } = $props();

	/** The banks of the course, each by its key made negative. */
	const banks = $derived(tree.filter(({ id }) => id < 0).map(({ id }) => id));
	const drawsFromAll = $derived(part.withUnder && banks.every((id) => part.categories.includes(id)));
	function takeAll() {
		part.categories = banks;
		part.withUnder = true;
	}
</script>

{#if tree.length}
	<PickCategories
		{tree}
		bind:chosen={part.categories}
		holds={({ all, own }) => (part.withUnder ? all : own)}
		label="What it draws from"
		disabled={!mayChange}
	/>
	<div class="mt-2 flex flex-wrap items-center gap-x-6">
		<Toggle bind:on={part.withUnder} disabled={!mayChange} label="with what is under each" />
		{#if mayChange && banks.length > 1 && !drawsFromAll}<button type="button" class="word" onclick={takeAll}
				>Draw from all {banks.length} banks</button
			>{/if}
	</div>
{:else}<p class="mute">This course has no bank yet. Take questions in first, or make a bank.</p>{/if}

<style>
	button {
		cursor: pointer;
	}
</style>
