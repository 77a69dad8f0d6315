import { childOf, childrenOf, type XmlElement } from '../../xml/tree';
import type { Line } from '../text/lines';
import { value, type Word } from './word';

/** The lists of a document, out of its part of numbering. */
export function listsOf(root: XmlElement | null): Word['lists'] {
	const levels = (node: XmlElement | undefined) =>
		new Map(
			childrenOf(node ?? { name: '', attributes: {}, children: [], line: 0 }, 'lvl').map((level) => [
				Number(level.attributes.ilvl ?? 0),
				{ format: value(childOf(level, 'numFmt')) || 'decimal', start: Number(value(childOf(level, 'start')) || 1) }
			])
		);
	const abstract = new Map(
		(root ? childrenOf(root, 'abstractNum') : []).map((node) => [node.attributes.abstractNumId ?? '', levels(node)])
	);
	const lists: Word['lists'] = new Map();
	for (const node of root ? childrenOf(root, 'num') : []) {
		const id = value(childOf(node, 'abstractNumId'));
		const own = new Map(abstract.get(id) ?? []);
		const restarts = new Map<number, number>();
		for (const override of childrenOf(node, 'lvlOverride')) {
			const level = Number(override.attributes.ilvl ?? 0);
			const start = childOf(override, 'startOverride');
			const given = levels({ ...override, children: childrenOf(override, 'lvl') }).get(level);
			if (given) own.set(level, given);
			if (start) restarts.set(level, Number(value(start)));
		}
		lists.set(node.attributes.numId ?? '', { key: id, levels: own, restarts });
	}
	return lists;
}

const romans: [number, string][] = [
	[10, 'x'],
	[9, 'ix'],
	[5, 'v'],
	[4, 'iv'],
	[1, 'i']
];

function labelOf(count: number, format: string): string {
	if (/Letter$/.test(format)) {
		const letter = String.fromCharCode(97 + ((count - 1) % 26));
		return format.startsWith('upper') ? letter.toUpperCase() : letter;
	}
	if (/Roman$/.test(format)) {
		let left = count;
		let out = '';
		for (const [worth, sign] of romans)
			while (left >= worth) {
				out += sign;
				left -= worth;
			}
		return format.startsWith('upper') ? out.toUpperCase() : out;
	}
	return String(count);
}

/** What stands before a paragraph of a list, which is counted on; null where it is of none. */
export function listMark(word: Word, properties: XmlElement | undefined, style: string): Line['list'] {
	const own = childOf(properties, 'numPr');
	const ofStyle = word.styles.lists.get(style);
	const id = value(childOf(own, 'numId')) || ofStyle?.list || '';
	const list = word.lists.get(id);
	if (!list || id === '0') return null;
	const level = Number(value(childOf(own, 'ilvl')) || ofStyle?.level || 0);
	const definition = list.levels.get(level) ?? { format: 'decimal', start: 1 };
	const counters = word.counters.get(list.key) ?? [];
	// lists of one definition count on together, but for one that starts anew where it first comes (17.9.26: startOverride)
	if (!word.begun.has(id))
		for (const [at, start] of list.restarts) if (at < counters.length || at === level) counters[at] = start - 1;
	word.begun.add(id);
	counters[level] = (counters[level] ?? definition.start - 1) + 1;
	counters.length = level + 1;
	word.counters.set(list.key, counters);
	const kind = definition.format === 'bullet' ? 'bullet' : /Letter|Roman/.test(definition.format) ? 'letter' : 'number';
	return { level, kind, label: kind === 'bullet' ? '' : labelOf(counters[level], definition.format) };
}
