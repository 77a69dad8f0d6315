import type { ReaderRule } from '../../reports/rules';
import { readText, streamText } from '../../container/decode';
import { resolvePath, type Container } from '../../container/container';
import type { Report } from '../../reports/report';
import { escapeText } from '../../xml/serialise';
import { parseXml, streamXml } from '../../xml/stream';
import { childOf, childrenOf, descendants, textOf, type XmlElement } from '../../xml/tree';
import type { DocumentReader, ReadEvent } from '../format';
import type { Recipe } from '../recipe/recipe';
import { tableEvents } from './csv';
import { cellOf, type Cell, type Row } from './row';
import { widthOf } from './cells';

interface Book {
	strings: Cell[];
	formats: string[];
	date1904: boolean;
}

/** Built-in number formats that show dates or times (ECMA-376 part 1, 18.8.30). */
const dateFormats = new Set([
	14, 15, 16, 17, 18, 19, 20, 21, 22, 27, 28, 29, 30, 31, 32, 33, 34, 35, 36, 45, 46, 47, 50, 51, 52, 53, 54, 55, 56,
	57, 58
]);

const damaged = (path: string, fault: { rule: ReaderRule; line: number; message: string }): Report => ({
	rule: fault.rule,
	severity: 'broken',
	message: `“${path}” in the workbook is damaged in line ${fault.line}: ${fault.message}. What comes after it cannot be read. Open the workbook, save it again, and load that.`,
	place: { file: path, line: fault.line }
});

/** The elements of some names in a part of the workbook, one at a time, since a sheet may be larger than what can be held. */
async function* elementsOf(
	container: Container,
	path: string,
	names: string[],
	told: (report: Report) => void
): AsyncGenerator<XmlElement> {
	if (!container.has(path)) return;
	const collect = (name: string) => names.includes(name);
	for await (const event of streamXml(
		streamText(container, path, () => undefined),
		{ collect, withoutSource: true }
	)) {
		if (event.type === 'fault') told(damaged(path, event));
		else if (event.type === 'element') yield event.element;
	}
}

async function xml(container: Container, path: string, told: (report: Report) => void): Promise<XmlElement | null> {
	if (!container.has(path)) return null;
	const { root, fault } = parseXml((await readText(container, path)).text);
	if (fault) told(damaged(path, fault));
	return root ?? null;
}

/** The text of a string item: its runs one after the other, without the reading aids (18.4.8). */
function stringOf(node: XmlElement): Cell {
	const runs = childrenOf(node, 'r');
	if (!runs.length) return cellOf(textOf(childOf(node, 't')));
	let text = '';
	let markup = '';
	for (const run of runs) {
		const piece = textOf(childOf(run, 't'));
		const style = childOf(run, 'rPr');
		text += piece;
		let rich = escapeText(piece).replace(/\r\n|\r|\n/g, '<br/>');
		const vertical = childOf(style, 'vertAlign')?.attributes.val;
		if (childOf(style, 'b')) rich = `<b>${rich}</b>`;
		if (childOf(style, 'i')) rich = `<i>${rich}</i>`;
		if (vertical === 'superscript') rich = `<sup>${rich}</sup>`;
		if (vertical === 'subscript') rich = `<sub>${rich}</sub>`;
		markup += rich;
	}
	return { text: text.trim(), markup: markup.trim() };
}

async function bookOf(
	container: Container,
	folder: string,
	root: XmlElement,
	told: (report: Report) => void
): Promise<Book> {
	const strings: Cell[] = [];
	for await (const node of elementsOf(container, `${folder}sharedStrings.xml`, ['si'], told))
		strings.push(stringOf(node));
	const styles = await xml(container, `${folder}styles.xml`, told);
	const custom = new Map(
		(styles ? descendants(styles, 'numFmt') : []).map((node) => [
			node.attributes.numFmtId ?? '',
			node.attributes.formatCode ?? ''
		])
	);
	const formats = childrenOf(childOf(styles ?? undefined, 'cellXfs') ?? { ...root, children: [] }, 'xf').map((node) => {
		const id = node.attributes.numFmtId ?? '0';
		return (
			custom.get(id) ?? (dateFormats.has(Number(id)) ? 'yyyy-mm-dd' : Number(id) === 9 || Number(id) === 10 ? '0%' : '')
		);
	});
	return {
		strings,
		formats,
		date1904: /^(1|true)$/.test(descendants(root, 'workbookPr')[0]?.attributes.date1904 ?? '')
	};
}

const isDate = (format: string) =>
	/[dmyhs]/i.test(format.replace(/"[^"]*"|\\.|\[[^\]]*\]/g, '')) && !/^general$/i.test(format);

function dateText(serial: number, { date1904 }: Book): string {
	const day = new Date(Math.round((serial - (date1904 ? 24107 : 25569)) * 86_400_000));
	return Number.isNaN(day.getTime())
		? String(serial)
		: day
				.toISOString()
				.slice(0, serial % 1 ? 16 : 10)
				.replace('T', ' ');
}

function valueOf(node: XmlElement, book: Book, name: string): Cell {
	const type = node.attributes.t ?? 'n';
	const value = textOf(childOf(node, 'v'));
	if (type === 's') return book.strings[Number(value)] ?? cellOf('');
	if (type === 'inlineStr') return stringOf(childOf(node, 'is') ?? node);
	if (type === 'b') return cellOf(value === '1' ? 'TRUE' : value === '' ? '' : 'FALSE');
	if (type === 'e')
		return {
			...cellOf(value),
			odd: { rule: 'error-cell', message: `Cell ${name} shows the error ${value} in the sheet. Mend it there.` }
		};
	if (type === 'str' || type === 'd') return cellOf(value);
	if (value === '') return cellOf('');
	const format = book.formats[Number(node.attributes.s ?? 0)] ?? '';
	const number = Number(value);
	if (isDate(format)) {
		const text = dateText(number, book);
		return {
			...cellOf(text),
			odd: {
				rule: 'date-cell',
				message: `Cell ${name} is a date in the sheet (${text}). If something like “3-4” was typed there, the sheet has changed it; write it again as text.`
			}
		};
	}
	if (/^0+$/.test(format) && Number.isInteger(number))
		return cellOf(String(Math.abs(number)).padStart(format.length, '0'));
	if (/%/.test(format)) return cellOf(`${Number((number * 100).toPrecision(12))}%`);
	return cellOf(Number.isFinite(number) ? String(Number(number.toPrecision(15))) : value);
}

const columnOf = (reference: string) =>
	[...(/^[A-Z]+/i.exec(reference)?.[0].toUpperCase() ?? '')].reduce(
		(sum, letter) => sum * 26 + letter.charCodeAt(0) - 64,
		0
	) - 1;
const rowOf = (reference: string) => Number(/\d+$/.exec(reference)?.[0] ?? 0);

/** More columns, or merged areas, than people make for questions; what goes beyond is said, and costs no memory. */
const mostColumns = 512;
const mostAreas = 5000;

const empty = cellOf('');

function cellsOf(node: XmlElement, number: number, book: Book, beyond: () => void): Cell[] {
	const cells: Cell[] = [];
	childrenOf(node, 'c').forEach((cell, at) => {
		const place = cell.attributes.r ? columnOf(cell.attributes.r) : at;
		if (place < 0 || place >= mostColumns) {
			if (textOf(cell).trim()) beyond();
			return;
		}
		while (cells.length < place) cells.push(empty);
		cells[place] = valueOf(cell, book, cell.attributes.r ?? `${number}:${place + 1}`);
	});
	return cells;
}

/** Repeats what the first cell of each merged area says in the others of its first column (18.3.1.55). */
function spread(rows: Row[], areas: string[]): void {
	const byNumber = new Map(rows.map((row) => [row.number, row]));
	const last = rows.reduce((most, row) => Math.max(most, row.number), 0);
	for (const area of areas) {
		const [from = '', to = from] = area.split(':');
		const first = byNumber.get(rowOf(from))?.cells[columnOf(from)];
		if (!first || rowOf(from) === rowOf(to)) continue;
		for (let row = rowOf(from) + 1; row <= Math.min(last, rowOf(to)); row += 1) {
			const cells = byNumber.get(row)?.cells;
			if (!cells) continue;
			while (cells.length <= columnOf(from)) cells.push(empty);
			if (!cells[columnOf(from)]!.text)
				cells[columnOf(from)] = { text: first.text, markup: first.markup, merged: true };
		}
	}
}

/** The rows of a sheet; merged areas repeat what their first cell says. Null where its part is not there. */
async function rowsOf(
	container: Container,
	path: string,
	book: Book,
	told: { report: (report: Report) => void; beyond: (cells: number) => void }
): Promise<Row[] | null> {
	if (!container.has(path)) return null;
	const rows: Row[] = [];
	const areas: string[] = [];
	let beyond = 0;
	let number = 0;
	for await (const node of elementsOf(container, path, ['row', 'mergeCell'], told.report)) {
		if (node.name === 'mergeCell') {
			if (areas.length < mostAreas) areas.push(node.attributes.ref ?? '');
			continue;
		}
		number = Number(node.attributes.r ?? number + 1);
		const cells = cellsOf(node, number, book, () => (beyond += 1));
		rows.push({ cells, number, hidden: /^(1|true)$/.test(node.attributes.hidden ?? '') });
	}
	if (beyond) told.beyond(beyond);
	spread(rows, areas);
	const width = widthOf(rows);
	// a sheet does not store empty cells at the end of a row: that they are missing says nothing
	for (const row of rows) while (row.cells.length < width) row.cells.push(empty);
	return rows;
}

/** The sheets of a workbook with their rows, in the order of its tabs. */
export async function sheetsOf(
	container: Container,
	told: (report: Report) => void = () => undefined
): Promise<{ name: string; hidden: boolean; rows: Row[] }[]> {
	const path = container.find('xl/workbook.xml') ?? 'xl/workbook.xml';
	const folder = path.slice(0, path.lastIndexOf('/') + 1);
	const root = await xml(container, path, told);
	if (!root) return [];
	const book = await bookOf(container, folder, root, told);
	const relations = await xml(container, `${folder}_rels/workbook.xml.rels`, told);
	const targets = new Map(
		(relations ? descendants(relations, 'Relationship') : []).map((node) => [
			node.attributes.Id ?? '',
			node.attributes.Target ?? ''
		])
	);
	const sheets: { name: string; hidden: boolean; rows: Row[] }[] = [];
	for (const node of descendants(root, 'sheet')) {
		const id = node.attributes.id ?? node.attributes['r:id'] ?? '';
		const target = targets.get(id);
		const file = target ? resolvePath(path, target) : null;
		const name = node.attributes.name ?? '';
		if (!file) continue;
		const rows = await rowsOf(container, container.find(file) ?? file, book, {
			report: told,
			beyond: (cells) =>
				told({
					rule: 'too-many-columns',
					severity: 'doubtful',
					message: `The sheet “${name}” has ${cells} cells beyond its first ${mostColumns} columns. They were left out.`,
					place: { file: path }
				})
		});
		if (rows) sheets.push({ name, hidden: (node.attributes.state ?? 'visible') !== 'visible', rows });
	}
	return sheets;
}

/** Reads a workbook: each sheet whose headings read like those of questions, or that a recipe names. */
export const readXlsx: DocumentReader = async function* (context): AsyncGenerator<ReadEvent> {
	const recipe = context.recipe ?? null;
	let any = false;
	const told: Report[] = [];
	const sheets = await sheetsOf(context.container, (report) => told.push(report));
	for (const report of told) yield { type: 'report', report };
	for (const { name, rows, hidden } of sheets) {
		if (recipe?.sheetsWithoutQuestions?.includes(name)) continue;
		const own: Recipe | null =
			recipe?.sheets?.find((one) => one.sheet === name) ?? (recipe?.columns && !recipe.sheets ? recipe : null);
		if (recipe?.sheets && !own) continue;
		const label = `The sheet “${name}”`;
		const events = rows.length ? tableEvents(rows, own, { ...context, file: context.file }, label) : null;
		if (!events) {
			if (rows.some((row) => row.cells.some((cell) => cell.text)))
				yield {
					type: 'report',
					report: {
						rule: 'sheet-without-questions',
						severity: 'untidy',
						message: `${label} has no column that reads like questions, and was left out. Say with a recipe which column is the stem if it holds some.`,
						place: { file: context.file }
					}
				};
			continue;
		}
		if (hidden)
			yield {
				type: 'report',
				report: {
					rule: 'hidden-sheet',
					severity: 'doubtful',
					message: `${label} is hidden in the workbook. It was read; leave its questions out if they are not meant.`,
					place: { file: context.file }
				}
			};
		any = true;
		yield* events;
	}
	if (!any)
		yield {
			type: 'report',
			report: {
				rule: 'not-questions',
				severity: 'doubtful',
				message: `“${context.file}” is a workbook, and no sheet of it reads like questions. Say with a recipe which column is the stem.`,
				place: { file: context.file }
			}
		};
};
