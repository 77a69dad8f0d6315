import { childrenOf, descendants, type XmlElement, type XmlNode } from '../../xml/tree';

const references = ['material_ref', 'matref'];

/** Material that is given once and shown in several places, by its label (QTI 1.2 ASI binding: material_ref, matref). */
export type Materials = Map<string, XmlElement>;

/** Notes all labelled material below an element. */
export function noteMaterials(parent: XmlElement, materials: Materials): void {
	for (const node of descendants(parent, 'material', 'mattext', 'matemtext', 'matimage', 'mataudio', 'matvideo'))
		for (const label of [node.attributes.label, node.attributes.ident]) if (label) materials.set(label, node);
}

/**
 * Puts the material that is referred to in an item in the place of each reference, looking in the item itself first.
 * Gives the labels of which nothing is known.
 */
export function placeMaterials(item: XmlElement, shared: Materials): string[] {
	if (!descendants(item, ...references).length) return [];
	const own: Materials = new Map();
	noteMaterials(item, own);
	const unknown: string[] = [];
	// what has been put in is not gone through again, so that material that names itself comes to an end
	const placed = new Set<XmlNode>(own.values());
	const replaced = (node: XmlNode): XmlNode[] => {
		if (typeof node === 'string' || !references.includes(node.name)) return [node];
		const label = node.attributes.linkrefid ?? '';
		const found = own.get(label) ?? shared.get(label);
		if (!found) {
			unknown.push(label);
			return [];
		}
		// a reference stands in the place of a whole material, or of a piece inside one
		const whole = node.name === 'material_ref';
		const put =
			whole && found.name !== 'material'
				? [{ ...found, name: 'material', children: [found] }]
				: !whole && found.name === 'material'
					? childrenOf(found)
					: [found];
		for (const one of put) placed.add(one);
		return put;
	};
	const walk = (node: XmlElement) => {
		node.children = node.children.flatMap(replaced);
		for (const child of childrenOf(node)) if (!placed.has(child)) walk(child);
	};
	walk(item);
	return unknown;
}
