import { childrenOf, descendants, type XmlElement } from '../../xml/tree';
import { withParted, type Parting } from './parting';

/** The name of one of several boxes of a response, by its place from 1. */
const boxName = (ident: string, place: number) => `${ident}.${place}`;

function partingOf(response: XmlElement): Parting | null {
	const ident = response.attributes.ident ?? '';
	const fib = childrenOf(response).find((node) => node.name === 'render_fib');
	if (!fib || descendants(fib, 'response_label').length < 2) return null;
	const pieces: XmlElement[] = childrenOf(response).filter((node) => node !== fib);
	const labels: string[] = [];
	const walk = (node: XmlElement) => {
		for (const child of childrenOf(node))
			if (child.name === 'response_label') {
				pieces.push(...childrenOf(child));
				labels.push(child.attributes.ident ?? '');
				pieces.push({
					...response,
					attributes: { ...response.attributes, ident: boxName(ident, labels.length), rcardinality: 'Single' },
					children: [{ ...fib, children: [] }]
				});
			} else if (child.name === 'material') pieces.push(child);
			else walk(child);
	};
	walk(fib);
	return {
		pieces,
		condition: (node, place) => {
			const said = Number(node.attributes.index ?? 0);
			const named = labels.indexOf(node.attributes.labelrefid ?? '') + 1;
			const { index: _, ...attributes } = node.attributes;
			return { ...node, attributes: { ...attributes, respident: boxName(ident, said || named || place) } };
		}
	};
}

/**
 * Takes a response apart that shows several boxes to write in (ASI binding, render_fib with several response_label),
 * so that each is a response of its own. Conditions tell the boxes by their `index`; where they stand side by side
 * without one, by their order. An item without such a response stays as it is.
 */
export function partBoxes(item: XmlElement): XmlElement {
	if (!descendants(item, 'render_fib').some((fib) => descendants(fib, 'response_label').length > 1)) return item;
	const partings = new Map<string, Parting>();
	for (const response of descendants(item, 'response_str', 'response_num')) {
		const parting = partingOf(response);
		if (parting) partings.set(response.attributes.ident ?? '', parting);
	}
	return withParted(item, partings);
}
