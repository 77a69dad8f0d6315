import { childOf, childrenOf, type XmlElement } from '../../xml/tree';
import { value, type Styles } from './word';

/** The styles of a document, out of its part of that name. */
export function stylesOf(root: XmlElement | null): Styles {
	const found: Styles = { headings: new Map(), lists: new Map(), runs: new Map() };
	const styles = new Map(
		(root ? childrenOf(root, 'style') : []).map((style) => [style.attributes.styleId ?? '', style])
	);
	/** A style and those that it is based on, the nearest first (ECMA-376 part 1, 17.7.4.3). */
	const chain = (id: string): XmlElement[] => {
		const out: XmlElement[] = [];
		for (let one = styles.get(id); one && !out.includes(one); one = styles.get(value(childOf(one, 'basedOn'))))
			out.push(one);
		return out;
	};
	for (const id of styles.keys()) {
		const family = chain(id);
		for (const style of family) {
			const name = value(childOf(style, 'name')).toLowerCase();
			const outline = childOf(childOf(style, 'pPr'), 'outlineLvl');
			const named = /^heading (\d)/.exec(name);
			const level =
				name === 'title'
					? 0
					: named
						? Number(named[1])
						: outline && Number(value(outline)) < 9
							? Number(value(outline)) + 1
							: null;
			if (level !== null && !found.headings.has(id)) found.headings.set(id, level);
		}
		const numbered = family.map((style) => childOf(childOf(style, 'pPr'), 'numPr'));
		const nearest = (name: string) => numbered.map((one) => value(childOf(one, name))).find(Boolean);
		const list = nearest('numId');
		const named = family
			.map((style) => /^list (?:number|bullet) ?([2-9])$/i.exec(value(childOf(style, 'name')))?.[1])
			.find(Boolean);
		if (list) found.lists.set(id, { list, level: Number(nearest('ilvl') ?? (named ? Number(named) - 1 : 0)) });
		const properties = family.flatMap((style) => childrenOf(childOf(style, 'rPr') ?? { ...style, children: [] }));
		if (properties.length) found.runs.set(id, { name: 'rPr', attributes: {}, children: properties, line: 0 });
	}
	return found;
}
