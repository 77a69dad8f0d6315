<script lang="ts">
	import type { CategoryNode } from '$lib/server/banks/tree';
	import CategoryTree from '$lib/ui/CategoryTree.svelte';
	import { figure } from '$lib/ui/words';

	/** The banks of a course with their categories, of which several are ticked; each with how many questions it has. */
	let {
		tree,
		chosen = $bindable(),
		holds,
		label,
		disabled = false
	}: {
		tree: readonly CategoryNode[];
		/** Keys of categories; a negative one is the bank of that key itself. */
		chosen: number[];
		holds: (node: CategoryNode) => number;
		label: string;
		disabled?: boolean;
	} = $props();

	const nodes = $derived(
		tree.map((node) => ({
			id: String(node.id),
			parentId: node.parentId === null ? null : String(node.parentId),
			name: node.name,
			node
		}))
	);
	let looked = $state('');
	const digits = $derived(Math.max(1, ...tree.map(({ all }) => figure(all).length)));
	function take(id: number, on: boolean) {
		chosen = on ? [...chosen, id] : chosen.filter((other) => other !== id);
	}
</script>

<div class="tree">
	<CategoryTree {nodes} chosen={looked} choose={(id) => (looked = id)} {label} columns="max({digits}ch, 30px)">
		{#snippet head()}<span>Category</span><span class="text-right">Q</span>{/snippet}
		{#snippet line({ name, node }: (typeof nodes)[number])}
			<!-- svelte-ignore a11y_click_events_have_key_events, a11y_no_noninteractive_element_interactions -->
			<label class="flex min-w-0 items-center gap-2" onclick={(event) => event.stopPropagation()}>
				<input
					type="checkbox"
					class="checkbox"
					{disabled}
					checked={chosen.includes(node.id)}
					onchange={(event) => take(node.id, event.currentTarget.checked)}
				/>
				<span class="cut" class:font-bold={node.id < 0} title={name}>{name}</span>
			</label>
			<span class="mute text-right">{figure(holds(node))}</span>
		{/snippet}
	</CategoryTree>
</div>

<style>
	.tree {
		max-height: 310px;
		overflow: auto;
	}
</style>
