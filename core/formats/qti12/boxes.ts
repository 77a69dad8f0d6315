import { childrenOf, descendants, type XmlElement, type XmlNode } from '../../xml/tree';

const written = new Set(['response_str', 'response_num']);

/** The name of one of several boxes of a response, by its place from 1. */
const boxName = (ident: string, place: number) => `${ident}.${place}`;

/**
 * Takes a response apart that shows several boxes to write in (ASI binding, render_fib with several response_label),
 * so that each is a response of its own. Conditions tell the boxes by their `index`; where they stand side by side
 * without one, by their order. An item without such a response stays as it is.
 */
export function partBoxes(item: XmlElement): XmlElement {
	if (!descendants(item, 'render_fib').some((fib) => descendants(fib, 'response_label').length > 1)) return item;
	const boxes = new Map<string, string[]>();
	const parted = (response: XmlElement): XmlElement[] => {
		const ident = response.attributes.ident ?? '';
		const [fib] = childrenOf(response).filter((node) => node.name === 'render_fib');
		if (!fib || descendants(fib, 'response_label').length < 2) return [response];
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
		boxes.set(ident, labels);
		return pieces;
	};
	const presentation = (node: XmlElement): XmlElement => ({
		...node,
		children: node.children.flatMap((child): XmlNode[] =>
			typeof child === 'string' ? [child] : written.has(child.name) ? parted(child) : [presentation(child)]
		)
	});
	const shown = item.children.map((child) =>
		typeof child !== 'string' && child.name === 'presentation' ? presentation(child) : child
	);
	if (!boxes.size) return item;
	const conditions = (node: XmlElement): XmlElement => {
		const next = new Map<string, number>();
		return {
			...node,
			children: node.children.map((child) => {
				if (typeof child === 'string') return child;
				const ident = child.attributes.respident ?? '';
				const labels = boxes.get(ident);
				if (!labels) return conditions(child);
				const said = Number(child.attributes.index ?? 0);
				const named = labels.indexOf(child.attributes.labelrefid ?? '') + 1;
				const place = said || named || (next.get(ident) ?? 0) + 1;
				next.set(ident, place);
				const { index: _, ...attributes } = child.attributes;
				return { ...child, attributes: { ...attributes, respident: boxName(ident, place) } };
			})
		};
	};
	return {
		...item,
		children: shown.map((child) =>
			typeof child !== 'string' && child.name === 'resprocessing' ? conditions(child) : child
		)
	};
}
