import { lookup } from '../../model/lookup';
import type { ReaderRule } from '../../reports/rules';
import { childOf, childrenOf, descendants, textOf, type XmlElement } from '../../xml/tree';
import { lineOf, type Line } from '../text/lines';
import { fieldOf } from '../text/marks';
import { listMark } from './lists';
import { runsOf, type Run } from './runs';
import { value, type Word } from './word';

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
export function blockLines(word: Word, node: XmlElement, next: () => number): Line[] {
	return childrenOf(node).flatMap((child) => {
		if (child.name === 'p') return paragraphLines(word, child, next());
		if (child.name === 'tbl') {
			const number = next();
			return layoutLines(word, child, number) ?? [tableLine(word, child, number)];
		}
		return holders.has(child.name) ? blockLines(word, child, next) : [];
	});
}
