/** Something in a tree, by its key and that of what it stands under. */
interface InTree {
	id: number;
	parentId: number | null;
}

/** A node of a tree and everything under it, by key; the nodes are in the order of the tree. */
export function withUnder(tree: readonly InTree[], id: number): number[] {
	const found = new Set([id]);
	for (const node of tree) if (node.parentId !== null && found.has(node.parentId)) found.add(node.id);
	return [...found];
}
