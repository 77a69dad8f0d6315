<script lang="ts" generics="Node extends { id: string; parentId: string | null; name: string }">
	import { createTreeViewCollection, TreeView } from '@skeletonlabs/skeleton-svelte';
	import ChevronRight from '@lucide/svelte/icons/chevron-right';
	import { untrack, type Snippet } from 'svelte';
	import { dragPart, type DragPart } from './drag';

	/**
	 * Categories as a tree: arrow keys, letters and clicks choose one, and open and shut what is under it. `line` gives what
	 * stands in the line of a category, in the columns that `columns` and `head` name.
	 */
	let {
		nodes,
		chosen,
		choose,
		label,
		columns,
		head,
		line,
		drag
	}: {
		/** In the order of the tree. */
		nodes: readonly Node[];
		chosen: string;
		choose: (id: string) => void;
		label: string;
		/** Widths as a grid of CSS has them. */
		columns: string;
		head: Snippet;
		line: Snippet<[Node]>;
		/** What can be dragged onto what. */
		drag?: (node: Node) => DragPart;
	} = $props();

	interface Branch {
		id: string;
		name: string;
		node: Node | null;
		children: Branch[];
	}
	/** So many categories are opened by themselves; of more, only the first level is. */
	const mostOpen = 150;

	const root = $derived.by(() => {
		const top: Branch = { id: 'all categories', name: '', node: null, children: [] };
		const byId = new Map<string | null, Branch>([[null, top]]);
		for (const node of nodes) byId.set(node.id, { id: node.id, name: node.name, node, children: [] });
		for (const node of nodes) byId.get(node.parentId)?.children.push(byId.get(node.id)!);
		return top;
	});
	const collection = $derived(
		createTreeViewCollection<Branch>({
			nodeToValue: (branch) => branch.id,
			nodeToString: (branch) => branch.name,
			rootNode: root
		})
	);
	/** The categories above one, so that it can be seen. */
	function above(id: string): string[] {
		const parents = new Map(nodes.map((node) => [node.id, node.parentId]));
		const found: string[] = [];
		for (let at = parents.get(id) ?? null; at !== null; at = parents.get(at) ?? null) found.push(at);
		return found;
	}
	let expanded = $state(
		untrack(() => [
			...nodes.filter((node) => nodes.length <= mostOpen || node.parentId === null).map((node) => node.id),
			...above(chosen)
		])
	);
	const toggle = (id: string) =>
		(expanded = expanded.includes(id) ? expanded.filter((open) => open !== id) : [...expanded, id]);
	/** What has the focus is the line itself; what is around it and what is under it is no item for a screen reader. */
	const noItem = { role: 'none', 'aria-level': undefined, 'aria-expanded': undefined, 'aria-selected': undefined };
	const attached = (node: Node) => (drag ? dragPart(drag(node)) : () => undefined);
</script>

<TreeView
	{collection}
	style="--columns: {columns}"
	selectionMode="single"
	expandOnClick={false}
	selectedValue={[chosen]}
	onSelectionChange={({ selectedValue: [value] }) => {
		if (value !== undefined) choose(value);
	}}
	expandedValue={expanded}
	onExpandedChange={(details) => (expanded = details.expandedValue)}
>
	<TreeView.Label>
		{#snippet element(attributes)}<span {...attributes as object} class="visually-hidden">{label}</span>{/snippet}
	</TreeView.Label>
	<div class="head" aria-hidden="true">{@render head()}</div>
	<TreeView.Tree>
		{#each collection.rootNode.children as branch, at (branch.id)}{@render drawn(branch, [at])}{/each}
	</TreeView.Tree>
</TreeView>

{#snippet drawn(branch: Branch, path: number[])}
	<TreeView.NodeProvider value={{ node: branch, indexPath: path }}>
		{#if branch.children.length}
			<TreeView.Branch>
				{#snippet element(attributes)}<div {...attributes as object} {...noItem}>
						<TreeView.BranchControl>
							{#snippet element(attributes)}
								<div
									{...attributes as object}
									role="treeitem"
									aria-level={path.length}
									aria-expanded={expanded.includes(branch.id)}
									aria-selected={branch.id === chosen}
									class="category"
									style="--depth: {path.length - 1}"
									{@attach attached(branch.node!)}
								>
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
									{@render line(branch.node!)}
								</div>
							{/snippet}
						</TreeView.BranchControl>
						<TreeView.BranchContent>
							{#if expanded.includes(branch.id)}
								{#each branch.children as child, at (child.id)}{@render drawn(child, [...path, at])}{/each}
							{/if}
						</TreeView.BranchContent>
					</div>{/snippet}
			</TreeView.Branch>
		{:else}
			<TreeView.Item>
				{#snippet element(attributes)}
					<div
						{...attributes as object}
						class="category"
						style="--depth: {path.length - 1}"
						{@attach attached(branch.node!)}
					>
						<span class="opener"></span>{@render line(branch.node!)}
					</div>
				{/snippet}
			</TreeView.Item>
		{/if}
	</TreeView.NodeProvider>
{/snippet}

<style>
	.head,
	.category {
		display: grid;
		grid-template-columns: minmax(0, 1fr) var(--columns);
		column-gap: 8px;
		align-items: center;
		padding: 4px 8px;
		border-bottom: 1px solid var(--line);
	}
	.head {
		border-color: var(--line2);
		color: var(--ink2);
		font-weight: 600;
		font-size: 12.5px;
	}
	.category {
		grid-template-columns: 15px minmax(0, 1fr) var(--columns);
		column-gap: 5px;
		padding-left: calc(2px + var(--depth) * 13px);
		cursor: pointer;
	}
	.category[data-selected],
	.category[data-over] {
		background: var(--woad-soft);
	}
	.category[data-over] {
		outline: 1px solid var(--woad);
		outline-offset: -1px;
	}
	.category[data-dragged] {
		opacity: 0.5;
	}
	.category:hover:not([data-selected]) {
		background: color-mix(in srgb, var(--woad-soft) 45%, transparent);
	}
	.opener {
		color: var(--ink2);
		cursor: pointer;
	}
	.opener.open {
		transform: rotate(90deg);
	}
</style>
