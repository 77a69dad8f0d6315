import type { XmlElement, XmlNode } from '../../xml/tree';

/** How a response is taken apart into several, each with one answer. */
export interface Parting {
	/** What stands in its place in the presentation: material, and responses of their own. */
	pieces: XmlElement[];
	/** A condition on it as one on the pieces; `place` counts from 1 the conditions on it that stand side by side. */
	condition: (node: XmlElement, place: number) => XmlElement;
}

/** An item with responses taken apart, by their ident, in its presentation and in its conditions alike. */
export function withParted(item: XmlElement, partings: ReadonlyMap<string, Parting>): XmlElement {
	if (!partings.size) return item;
	const presentation = (node: XmlElement): XmlElement => ({
		...node,
		children: node.children.flatMap((child): XmlNode[] => {
			if (typeof child === 'string') return [child];
			const parting = child.name.startsWith('response_') ? partings.get(child.attributes.ident ?? '') : undefined;
			return parting?.pieces ?? [presentation(child)];
		})
	});
	const conditions = (node: XmlElement): XmlElement => {
		const next = new Map<string, number>();
		return {
			...node,
			children: node.children.map((child) => {
				if (typeof child === 'string') return child;
				const ident = child.attributes.respident ?? '';
				const parting = partings.get(ident);
				if (!parting) return conditions(child);
				const place = (next.get(ident) ?? 0) + 1;
				next.set(ident, place);
				return parting.condition(child, place);
			})
		};
	};
	return {
		...item,
		children: item.children.map((child) => {
			if (typeof child === 'string') return child;
			if (child.name === 'presentation') return presentation(child);
			return child.name === 'resprocessing' ? conditions(child) : child;
		})
	};
}
