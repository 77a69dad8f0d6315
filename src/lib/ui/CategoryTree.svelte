<script lang="ts">
	import { createTreeViewCollection, TreeView } from '@skeletonlabs/skeleton-svelte';
	import ChevronRight from '@lucide/svelte/icons/chevron-right';
	import type { CategoryNode } from '$lib/server/banks/tree';
	import { untrack } from 'svelte';
	import { count, figure } from './words';

	/** The categories of a bank as a tree: arrow keys, letters and clicks choose one; `null` is the bank as a whole. */
	let {
		nodes,
		whole,
		chosen,
		choose,
		label
	}: {
		nodes: CategoryNode[];
		/** What the whole is called, and how much is in it. */
		whole: { name: string; questions: number };
		chosen: number | null;
		choose: (id: number | null) => void;
		label: string;
	} = $props();

	interface Branch {
		id: string;
		name: string;
		node: CategoryNode | null;
		children: Branch[];
	}
	/** So many categories are opened by themselves; of more, only the first level is. */
	const mostOpen = 150;
	const root = 'whole';

	const branches = $derived.by(() => {
		const byId = new Map<number | null, Branch>([[null, { id: root, name: whole.name, node: null, children: [] }]]);
		for (const node of nodes) byId.set(node.id, { id: String(node.id), name: node.name, node, children: [] });
		for (const node of nodes) byId.get(node.parentId)?.children.push(byId.get(node.id)!);
		return byId.get(null)!;
	});
	const collection = $derived(
		createTreeViewCollection<Branch>({
			nodeToValue: (branch) => branch.id,
			nodeToString: (branch) => branch.name,
			rootNode: { id: 'all', name: '', node: null, children: [{ ...branches, children: [] }, ...branches.children] }
		})
	);
	/** The categories above one, so that it can be seen. */
	function above(id: number | null): string[] {
		const parents = new Map(nodes.map((node) => [node.id, node.parentId]));
		const found: string[] = [];
		for (let at = parents.get(id ?? 0) ?? null; at !== null; at = parents.get(at) ?? null) found.push(String(at));
		return found;
	}
	let expanded = $state(
		untrack(() => [
			...nodes.filter((node) => nodes.length <= mostOpen || node.depth === 0).map((node) => String(node.id)),
			...above(chosen)
		])
	);
	/** As wide as the longest number. */
	const digits = $derived(figure(whole.questions).length);
	const toggle = (id: string) =>
		(expanded = expanded.includes(id) ? expanded.filter((open) => open !== id) : [...expanded, id]);
</script>

<TreeView
	{collection}
	style="--count: max({digits}ch, 30px)"
	selectionMode="single"
	expandOnClick={false}
	selectedValue={[chosen === null ? root : String(chosen)]}
	onSelectionChange={({ selectedValue: [value] }) => {
		if (value !== undefined) choose(value === root ? null : Number(value));
	}}
	expandedValue={expanded}
	onExpandedChange={(details) => (expanded = details.expandedValue)}
>
	<TreeView.Label>
		{#snippet element(attributes)}<span {...attributes as object} class="visually-hidden">{label}</span>{/snippet}
	</TreeView.Label>
	<div class="head" aria-hidden="true"><span>Category</span><span>here</span><span>all</span></div>
	<TreeView.Tree>
		{#each collection.rootNode.children as branch, at (branch.id)}{@render line(branch, [at])}{/each}
	</TreeView.Tree>
</TreeView>

{#snippet words(branch: Branch)}
	<span class="cut name" class:whole-name={branch.id === root} title={branch.name}
		>{branch.name}{#if branch.node?.allSnags}<span class="doubtful snags" title={count(branch.node.allSnags, 'snag')}
				>~{figure(branch.node.allSnags)}<span class="visually-hidden"> snags</span></span
			>{/if}</span
	>
	<span class="mute count">{branch.node?.own ? figure(branch.node.own) : ''}</span>
	<span class="count">{figure(branch.node ? branch.node.all : whole.questions)}</span>
{/snippet}

{#snippet line(branch: Branch, path: number[])}
	<TreeView.NodeProvider value={{ node: branch, indexPath: path }}>
		{#if branch.children.length}
			<TreeView.Branch>
				<TreeView.BranchControl class="category" style="--depth: {path.length - 1}">
					<!-- the keyboard opens and shuts with the arrows; this is for the mouse -->
					<span
						class="opener"
						class:open={expanded.includes(branch.id)}
						aria-hidden="true"
						onclick={(event) => {
							event.stopPropagation();
							toggle(branch.id);
						}}><ChevronRight size={13} /></span
					>
					{@render words(branch)}
				</TreeView.BranchControl>
				<TreeView.BranchContent>
					{#if expanded.includes(branch.id)}
						{#each branch.children as child, at (child.id)}{@render line(child, [...path, at])}{/each}
					{/if}
				</TreeView.BranchContent>
			</TreeView.Branch>
		{:else}
			<TreeView.Item class="category" style="--depth: {path.length - 1}"
				><span class="opener"></span>{@render words(branch)}</TreeView.Item
			>
		{/if}
	</TreeView.NodeProvider>
{/snippet}

<style>
	.head,
	:global(.category) {
		display: grid;
		grid-template-columns: minmax(0, 1fr) var(--count) var(--count);
		column-gap: 8px;
		align-items: baseline;
		padding: 4px 8px;
		border-bottom: 1px solid var(--line);
	}
	.head {
		border-color: var(--line2);
		color: var(--ink2);
		font-weight: 600;
		font-size: 12.5px;
	}
	.head span + span,
	.count {
		text-align: right;
	}
	:global(.category) {
		grid-template-columns: 15px minmax(0, 1fr) var(--count) var(--count);
		column-gap: 5px;
		padding-left: calc(2px + var(--depth) * 13px);
		cursor: pointer;
	}
	:global(.category[data-selected]) {
		background: var(--woad-soft);
	}
	:global(.category:hover:not([data-selected])) {
		background: color-mix(in srgb, var(--woad-soft) 45%, transparent);
	}
	.opener {
		align-self: center;
		color: var(--ink2);
		cursor: pointer;
	}
	.opener.open {
		transform: rotate(90deg);
	}
	.whole-name {
		font-weight: 700;
	}
	.snags {
		margin-left: 6px;
		font-size: 12px;
	}
</style>
