import type { ReaderRule } from '../../reports/rules';
import { lookup } from '../../model/lookup';
import { readText } from '../../container/decode';
import { resolvePath, type Container } from '../../container/container';
import type { Report } from '../../reports/report';
import { beginning } from '../../markup/text';
import { escapeAttribute, escapeText } from '../../xml/serialise';
import { parseXml } from '../../xml/parse';
import { childOf, childrenOf, descendants, textOf, type XmlElement } from '../../xml/tree';
import { lineOf, type Line } from '../text/lines';
import { fieldOf } from '../text/marks';
import { equation } from './equations';
import { signOf, withSigns } from './symbols';

interface Level {
	format: string;
	start: number;
}

interface Styles {
	/** The level of a heading by the identifier of its style; 0 for a title. */
	headings: Map<string, number>;
	/** The list that a style belongs to. */
	lists: Map<string, { list: string; level: number }>;
	/** The properties of text that a style sets, by its identifier, those of the styles that it is based on with them. */
	runs: Map<string, XmlElement>;
}

interface Word {
	container: Container;
	path: string;
	relations: Map<string, string>;
	styles: Styles;
	/** The levels of each list by its number (ECMA-376 part 1, 17.9). */
	lists: Map<string, { key: string; levels: Map<number, Level>; restarts: Map<number, number> }>;
	counters: Map<string, number[]>;
	/** The lists that have come, by their numbers. */
	begun: Set<string>;
	/** The words of footnotes and endnotes, by what they are and their number. */
	notes: Map<string, string>;
	/** The words of text boxes, which lie beside the text. */
	boxes: string[];
	/** Words that nobody sees who does not ask for them, and that were left out. */
	hidden: string[];
}

async function xml(container: Container, path: string, told: (report: Report) => void): Promise<XmlElement | null> {
	const found = container.find(path);
	if (!found) return null;
	const { root, fault } = parseXml((await readText(container, found)).text);
	if (fault)
		told({
			rule: fault.rule,
			severity: 'broken',
			message: `“${found}” in the document is damaged in line ${fault.line}: ${fault.message}. What comes after it cannot be read. Open the document in a word processor, save it again, and load that.`,
			place: { file: found, line: fault.line }
		});
	return root ?? null;
}

const value = (node: XmlElement | undefined) => node?.attributes.val ?? node?.attributes['w:val'] ?? '';
const isOn = (node: XmlElement | undefined) => node !== undefined && !/^(0|false|none|off)$/.test(value(node));

function stylesOf(root: XmlElement | null): Styles {
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

function listsOf(root: XmlElement | null): Word['lists'] {
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

function notesOf(root: XmlElement | null, name: string): [string, string][] {
	return (root ? childrenOf(root, name) : []).map((note) => [
		`${name} ${note.attributes.id ?? ''}`,
		descendants(note, 't').map(textOf).join('').trim()
	]);
}

function listMark(word: Word, properties: XmlElement | undefined, style: string): Line['list'] {
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

interface Run {
	text: string;
	markup: string;
	stressed: boolean;
	/** Nobody sees it who does not ask for it. */
	hidden?: boolean;
	/** It is struck through. */
	struck?: boolean;
}

const pixels = (length: string | undefined) => (length ? Math.round(Number(length) / 9525) : 0);

function picture(word: Word, node: XmlElement): string {
	const blip = descendants(node, 'blip', 'imagedata')[0];
	const id =
		blip?.attributes.embed ?? blip?.attributes['r:embed'] ?? blip?.attributes.id ?? blip?.attributes['r:id'] ?? '';
	const target = word.relations.get(id);
	const path = target ? resolvePath(word.path, target) : null;
	if (!path) return '';
	const extent = descendants(node, 'extent')[0];
	const described = descendants(node, 'docPr')[0]?.attributes.descr ?? '';
	const [width, height] = [pixels(extent?.attributes.cx), pixels(extent?.attributes.cy)];
	const size = `${width ? ` width="${width}"` : ''}${height ? ` height="${height}"` : ''}`;
	return `<img src="media:${escapeAttribute(word.container.find(path) ?? path)}" alt="${escapeAttribute(described)}"${size}/>`;
}

/** The box of a form that can be ticked, as a control for content has it. */
const checkboxOf = (node: XmlElement) => childOf(childOf(node, 'sdtPr'), 'checkbox');
const ticked = (isTicked: boolean) => (isTicked ? '☒' : '☐');

/** The pieces of a paragraph; a null is the end of a line. */
function runsOf(word: Word, parent: XmlElement, told: (rule: ReaderRule) => void): (Run | null)[] {
	const out: (Run | null)[] = [];
	for (const node of childrenOf(parent)) {
		if (node.name === 'del' || node.name === 'moveFrom') told('tracked-changes');
		else if (node.name === 'ins' || node.name === 'moveTo') {
			told('tracked-changes');
			out.push(...runsOf(word, node, told));
		} else if (node.name === 'sdt' && checkboxOf(node)) {
			const box = ticked(isOn(childOf(checkboxOf(node), 'checked')));
			out.push({ text: box, markup: box, stressed: false });
		} else if (['hyperlink', 'smartTag', 'sdt', 'sdtContent', 'fldSimple', 'customXml'].includes(node.name))
			out.push(...runsOf(word, node, told));
		else if (node.name === 'AlternateContent')
			out.push(...runsOf(word, childOf(node, 'Choice') ?? childOf(node, 'Fallback') ?? node, told));
		else if (node.name === 'oMath' || node.name === 'oMathPara') {
			out.push({ ...equation(node), stressed: false });
		} else if (node.name === 'r') out.push(...runOf(word, node, told));
	}
	return out;
}

const lineToWriteOn = /^[\s\u00a0]{3,}$/;
const writingLine = '_____';

/** The element for text above or below its line, also where it was only moved there (ECMA-376 part 1, 17.3.2.24). */
function verticalOf(style: XmlElement | undefined): 'sup' | 'sub' | null {
	const said = value(childOf(style, 'vertAlign'));
	if (said === 'superscript') return 'sup';
	if (said === 'subscript') return 'sub';
	const moved = childOf(style, 'sz') ? Number(value(childOf(style, 'position')) || 0) : 0;
	return moved > 0 ? 'sup' : moved < 0 ? 'sub' : null;
}

function runOf(word: Word, node: XmlElement, told: (rule: ReaderRule) => void): (Run | null)[] {
	const own = childOf(node, 'rPr');
	const ofStyle = word.styles.runs.get(value(childOf(own, 'rStyle')));
	const style = own && ofStyle ? { ...own, children: [...own.children, ...ofStyle.children] } : own;
	const hidden = isOn(childOf(style, 'vanish'));
	const struck = isOn(childOf(style, 'strike')) || isOn(childOf(style, 'dstrike'));
	const colour = value(childOf(style, 'color'));
	const bold = isOn(childOf(style, 'b'));
	const italic = isOn(childOf(style, 'i'));
	const under = childOf(style, 'u') !== undefined && value(childOf(style, 'u')) !== 'none';
	const highlight = childOf(style, 'highlight') !== undefined && value(childOf(style, 'highlight')) !== 'none';
	const shade = childOf(style, 'shd')?.attributes.fill;
	const coloured = colour !== '' && !/^(auto|000000|black)$/i.test(colour);
	const shaded = shade !== undefined && !/^(auto|ffffff)$/i.test(shade);
	const stressed = bold || under || highlight || coloured || shaded;
	const vertical = verticalOf(style);
	const fonts = childOf(style, 'rFonts')?.attributes;
	const font = fonts?.ascii ?? fonts?.hAnsi ?? '';
	const wrap = (text: string) => {
		let rich = escapeText(text);
		if (bold && text.trim()) rich = `<b>${rich}</b>`;
		if (italic && text.trim()) rich = `<i>${rich}</i>`;
		return vertical ? `<${vertical}>${rich}</${vertical}>` : rich;
	};
	const how = { stressed, ...(hidden ? { hidden } : {}), ...(struck ? { struck } : {}) };
	const plain = (text: string, markup = wrap(text)): Run => ({ text, markup, ...how });
	const worded = childrenOf(node, 't').some((child) => textOf(child).trim() !== '');
	const out: (Run | null)[] = [];
	for (const child of childrenOf(node)) {
		if (child.name === 't') {
			const text = withSigns(font, textOf(child));
			// blanks that are underlined are a line to write on
			out.push(under && lineToWriteOn.test(text) ? plain(writingLine) : plain(text));
		} else if (child.name === 'fldChar') {
			const box = descendants(child, 'checkBox')[0];
			// what was ticked counts, and what is ticked at first where nothing was (17.16.8: checkBox)
			if (box) out.push(plain(ticked(isOn(childOf(box, 'checked') ?? childOf(box, 'default')))));
		} else if (child.name === 'tab') out.push(under && !worded ? plain(writingLine) : plain('    ', ' '));
		else if (child.name === 'br' || child.name === 'cr') out.push(null);
		else if (child.name === 'noBreakHyphen') out.push(plain('-'));
		else if (child.name === 'sym') {
			const sign = signOf(child.attributes.font ?? '', Number.parseInt(child.attributes.char ?? '', 16));
			if (sign === null) told('unknown-sign');
			out.push(plain(sign ?? '□'));
		} else if (['drawing', 'pict', 'object', 'AlternateContent'].includes(child.name)) {
			const inner =
				child.name === 'AlternateContent' ? (childOf(child, 'Choice') ?? childOf(child, 'Fallback')) : child;
			if (!inner) continue;
			out.push({ text: '', markup: picture(word, inner), stressed });
			const boxed = descendants(inner, 'txbxContent').flatMap((box) => descendants(box, 't').map(textOf));
			if (boxed.join('').trim()) word.boxes.push(boxed.join('').trim());
		} else if (child.name === 'footnoteReference' || child.name === 'endnoteReference') {
			const said = word.notes.get(`${child.name.replace('Reference', '')} ${child.attributes.id ?? ''}`);
			if (!said) continue;
			told('footnote');
			out.push({ text: ` (${said})`, markup: ` (${escapeText(said)})`, stressed: false });
		}
	}
	return out;
}

/**
 * The pieces of a paragraph without those that nobody sees, which are told. An answer that is hidden from students is read:
 * it is what whoever wrote it has hidden.
 */
function withoutHidden(
	word: Word,
	runs: (Run | null)[],
	number: number,
	told: (rule: ReaderRule) => void
): (Run | null)[] {
	const hidden = runs.filter((run) => run?.hidden);
	if (!hidden.length) return runs;
	const words = hidden
		.map((run) => run?.text ?? '')
		.join('')
		.trim();
	if (runs.every((run) => run === null || run.hidden || !run.text.trim()) && fieldOf(lineOf(words, number))) {
		told('hidden-text');
		return runs;
	}
	if (words) word.hidden.push(words);
	return runs.filter((run) => !run?.hidden);
}

const oddities = lookup<string>({
	'hidden-text': 'Its answer is hidden in the document. It was read all the same; look at it once.',
	'tracked-changes':
		'It holds changes that somebody tracked and nobody has accepted yet. It was read as if they were accepted; look at its words.',
	'unknown-sign':
		'It holds a sign of a symbol font that is not known here; □ stands in its place. Look at the document and write it.',
	footnote: 'It holds a footnote, whose words were put in brackets where it is called.'
});

const loneLabel = /^\s*\(?[A-Za-z0-9]{1,3}[.)]\s*$/;

function paragraphLines(word: Word, node: XmlElement, number: number): Line[] {
	const properties = childOf(node, 'pPr');
	const style = value(childOf(properties, 'pStyle'));
	const outline = childOf(properties, 'outlineLvl');
	const heading =
		word.styles.headings.get(style) ?? (outline && Number(value(outline)) < 9 ? Number(value(outline)) + 1 : null);
	const odd = new Set<ReaderRule>();
	const runs = runsOf(word, node, (rule) => odd.add(rule));
	const list = heading === null ? listMark(word, properties, style) : null;
	const indent =
		Number(childOf(properties, 'ind')?.attributes.left ?? childOf(properties, 'ind')?.attributes.start ?? 0) / 120;
	const shade = childOf(properties, 'shd')?.attributes.fill;
	const shaded = shade !== undefined && !/^(auto|ffffff)$/i.test(shade);
	const lines: Line[] = [];
	let piece: Run[] = [];
	const end = () => {
		const text = piece.map((run) => run.text).join('');
		// the label in front, or the full stop behind, need not stand out as well
		const words = piece.filter((run) => /[\p{L}\p{N}]/u.test(run.text));
		const written = words.length > 1 && loneLabel.test(words[0]!.text) ? words.slice(1) : words;
		lines.push({
			text: text.replace(/\u00a0/g, ' ').trim(),
			markup: piece
				.map((run) => run.markup)
				.join('')
				.replace(/<\/(b|i|sup|sub)><\1>/g, '')
				.trim(),
			number,
			indent: indent + (text.length - text.trimStart().length),
			heading: lines.length ? null : heading,
			list: lines.length ? null : list,
			stressed: written.length > 0 && (shaded || written.every((run) => run.stressed)),
			...(written.length && written.every((run) => run.struck) ? { struck: true } : {}),
			table: null,
			...(odd.size && !lines.length ? { odd: [...odd].map((rule) => ({ rule, message: oddities[rule]! })) } : {})
		});
		piece = [];
	};
	for (const run of withoutHidden(word, runs, number, (rule) => odd.add(rule)))
		if (run) piece.push(run);
		else end();
	end();
	return lines;
}

const numberCell = /^\(?\d{1,4}\s*[.)]?$/;

/** What stands in a control for content, or is marked in another way, as if it stood by itself. */
const holders = new Set(['sdt', 'sdtContent', 'customXml', 'smartTag', 'ins', 'moveTo']);

/** The children of a name, also those within controls for content. */
const within = (node: XmlElement, name: string): XmlElement[] =>
	childrenOf(node).flatMap((child) =>
		child.name === name ? [child] : holders.has(child.name) ? within(child, name) : []
	);

/** The lines of a table that only lays out text: one column, or a number beside each question. Null for any other. */
function layoutLines(word: Word, node: XmlElement, number: number): Line[] | null {
	const rows = within(node, 'tr').map((row) => within(row, 'tc'));
	const words = (cell: XmlElement | undefined) => (cell ? descendants(cell, 't').map(textOf).join('').trim() : '');
	const single = rows.every((cells) => cells.length === 1);
	const labels = rows.map((cells) => words(cells[0]).replace(/[.()\s]/g, ''));
	// figures that do not count are what the table is about
	const counts = labels.every((label, at) => at === 0 || Number(label) === Number(labels[at - 1]) + 1);
	const beside =
		rows.length > 0 &&
		counts &&
		rows.every((cells) => cells.length === 2 && numberCell.test(words(cells[0])) && words(cells[1]));
	if (!single && !beside) return null;
	return rows.flatMap((cells, at) => {
		const lines = blockLines(word, cells.at(-1)!, () => number);
		const [first, ...others] = lines;
		if (single || !first) return lines;
		const label = labels[at]!;
		return [{ ...first, text: `${label}. ${first.text}`, markup: `${label}. ${first.markup}`, list: null }, ...others];
	});
}

function tableLine(word: Word, node: XmlElement, number: number): Line {
	const rows = within(node, 'tr').map((row) =>
		within(row, 'tc').map((cell) => {
			const lines = within(cell, 'p').flatMap((paragraph) => paragraphLines(word, paragraph, number));
			const some = lines.filter((line) => line.markup);
			return {
				text: some.map((line) => line.text).join(' '),
				markup: some.map((line) => line.markup).join(' '),
				...(some.length && some.every((line) => line.stressed) ? { stressed: true } : {})
			};
		})
	);
	return { text: '', markup: '', number, indent: 0, heading: null, list: null, stressed: false, table: rows };
}

/** The lines of the paragraphs and tables within an element; `next` numbers each of them. */
function blockLines(word: Word, node: XmlElement, next: () => number): Line[] {
	return childrenOf(node).flatMap((child) => {
		if (child.name === 'p') return paragraphLines(word, child, next());
		if (child.name === 'tbl') {
			const number = next();
			return layoutLines(word, child, number) ?? [tableLine(word, child, number)];
		}
		return holders.has(child.name) ? blockLines(word, child, next) : [];
	});
}

/** Tells what lies beside the text and is part of no question: text boxes and comments. */
function tellBeside(word: Word, comments: XmlElement | null, told: (report: Report) => void): void {
	const said = (comments ? childrenOf(comments, 'comment') : []).map((one) =>
		descendants(one, 't').map(textOf).join('').trim()
	);
	const quoted = (words: string[]) =>
		words
			.slice(0, mostQuoted)
			.map((one) => `“${beginning(one, 80)}”`)
			.join(', ') + (words.length > mostQuoted ? ` and ${words.length - mostQuoted} more` : '');
	const kinds: [ReaderRule, string, string[]][] = [
		['text-box', 'text in boxes that lie beside the text', word.boxes],
		['comment', 'comments of readers', said.filter(Boolean)],
		['hidden-text', 'hidden text', word.hidden]
	];
	for (const [rule, what, words] of kinds)
		if (words.length)
			told({
				rule,
				severity: 'untidy',
				message: `The document has ${what}: ${quoted(words)}. They were left out; where they belong to a question, put them into it.`,
				place: { file: word.path, line: 1 }
			});
}

const mostQuoted = 4;

/** The part that holds the text of a document, as its package says (ECMA-376 part 2, 9.3: relationships of the package). */
async function mainPart(container: Container, told: (report: Report) => void): Promise<string> {
	const root = await xml(container, '_rels/.rels', told);
	const target = (root ? descendants(root, 'Relationship') : []).find(({ attributes }) =>
		/\/officeDocument$/.test(attributes.Type ?? '')
	)?.attributes.Target;
	const path = target?.replace(/^\//, '') ?? 'word/document.xml';
	return container.find(path) ?? container.find('word/document.xml') ?? path;
}

/** The paragraphs of a Word document as lines, with their numbers and letters, headings, tables and pictures. */
export async function linesOfWord(container: Container, told: (report: Report) => void): Promise<Line[]> {
	const path = await mainPart(container, told);
	const [, folder = '', name = ''] = /^(.*\/)?([^/]*)$/.exec(path) ?? [];
	const root = await xml(container, path, told);
	const relations = await xml(container, `${folder}_rels/${name}.rels`, told);
	const word: Word = {
		container,
		path,
		relations: new Map(
			(relations ? descendants(relations, 'Relationship') : []).map((node) => [
				node.attributes.Id ?? '',
				node.attributes.Target ?? ''
			])
		),
		styles: stylesOf(await xml(container, `${folder}styles.xml`, told)),
		lists: listsOf(await xml(container, `${folder}numbering.xml`, told)),
		counters: new Map(),
		begun: new Set(),
		notes: new Map([
			...notesOf(await xml(container, `${folder}footnotes.xml`, told), 'footnote'),
			...notesOf(await xml(container, `${folder}endnotes.xml`, told), 'endnote')
		]),
		boxes: [],
		hidden: []
	};
	const comments = await xml(container, `${folder}comments.xml`, told);
	const body = root && childOf(root, 'body');
	let number = 0;
	const lines = body ? blockLines(word, body, () => (number += 1)) : [];
	tellBeside(word, comments, told);
	return lines;
}
