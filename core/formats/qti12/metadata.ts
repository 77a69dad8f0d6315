import { childOf, childrenOf, descendants, trimmed, type XmlElement } from '../../xml/tree';

/** The metadata of an item or an assessment, by label: qmd elements and qtimetadata fields alike (QTI 1.2, 3.3). */
export function metadataOf(parent: XmlElement): Map<string, string> {
	const found = new Map<string, string>();
	const holder = childOf(parent, 'itemmetadata') ?? parent;
	for (const child of childrenOf(holder)) if (child.name.startsWith('qmd_')) found.set(child.name, trimmed(child));
	for (const field of descendants(holder, 'qtimetadatafield')) {
		const label = trimmed(childOf(field, 'fieldlabel'));
		if (label) found.set(label, trimmed(childOf(field, 'fieldentry')));
	}
	return found;
}
