import type { Container } from '../../container/container';
import { readText } from '../../container/decode';
import { beginning } from '../../markup/text';
import type { Report } from '../../reports/report';
import type { ReaderRule } from '../../reports/rules';
import { parseXml } from '../../xml/parse';
import { childOf, childrenOf, descendants, textOf, type XmlElement } from '../../xml/tree';
import type { Line } from '../text/lines';
import { blockLines } from './lines';
import { listsOf } from './lists';
import { stylesOf } from './styles';
import type { Word } from './word';

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

function notesOf(root: XmlElement | null, name: string): [string, string][] {
	return (root ? childrenOf(root, name) : []).map((note) => [
		`${name} ${note.attributes.id ?? ''}`,
		descendants(note, 't').map(textOf).join('').trim()
	]);
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
