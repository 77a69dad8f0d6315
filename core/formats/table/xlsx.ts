import type { ReaderRule } from '../../reports/rules';
import { readText, streamText } from '../../container/decode';
import { resolvePath, type Container } from '../../container/container';
import type { Report } from '../../reports/report';
import { escapeText } from '../../xml/serialise';
import { parseXml } from '../../xml/parse';
import { streamXml } from '../../xml/stream';
import { childOf, childrenOf, descendants, textOf, type XmlElement } from '../../xml/tree';
import type { DocumentReader, ReadEvent } from '../format';
import type { Recipe } from '../recipe/recipe';
import { tableEvents } from './csv';
import { formatCode, plainNumber, shownNumber } from './number-formats';
import { cellOf, type Cell, type Row } from './row';
import { widthOf } from './cells';

interface Book {
	strings: Cell[];
	formats: string[];
	/** Whether a cell of each style stands out: its letters are bold, or it is filled with a colour. */
	stressed: boolean[];
	date1904: boolean;
	/** Its formulas were never calculated by what wrote it; a program that shows it is to do so first. */
	isUncalculated: boolean;
}

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

/** A text with the signs in it that stand as their codes (ECMA-376 part 1, 22.9.2.19: ST_Xstring); line ends are one sign. */
const unescaped = (text: string) =>
	text
		.replace(/_x([0-9a-f]{4})_/gi, (_, code: string) => String.fromCharCode(parseInt(code, 16)))
		.replace(/\r\n?/g, '\n');

/** The text of a string item: its runs one after the other, without the reading aids (18.4.8). */
function stringOf(node: XmlElement): Cell {
	const runs = childrenOf(node, 'r');
	if (!runs.length) return cellOf(unescaped(textOf(childOf(node, 't'))));
	let text = '';
	let markup = '';
	for (const run of runs) {
		const piece = unescaped(textOf(childOf(run, 't')));
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

/** Whether a cell of each style stands out (18.8.8 cellXfs, with its fonts and fills). */
function stressedStyles(styles: XmlElement | null): boolean[] {
	const list = (name: string, child: string) => {
		const holder = childOf(styles ?? undefined, name);
		return holder ? childrenOf(holder, child) : [];
	};
	const fonts = list('fonts', 'font').map((font) => {
		const bold = childOf(font, 'b');
		return bold !== undefined && !/^(0|false)$/.test(bold.attributes.val ?? '');
	});
	const fills = list('fills', 'fill').map((fill) => {
		const pattern = childOf(fill, 'patternFill');
		const colour = childOf(pattern, 'fgColor')?.attributes;
		return (
			pattern?.attributes.patternType === 'solid' && !/^(ff)?ffffff$/i.test(colour?.rgb ?? '') && colour?.theme !== '0'
		);
	});
	return list('cellXfs', 'xf').map(
		({ attributes }) =>
			(fonts[Number(attributes.fontId ?? 0)] ?? false) || (fills[Number(attributes.fillId ?? 0)] ?? false)
	);
}

const isTrue = (value: string | undefined) => /^(1|true)$/.test(value ?? '');

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
		return formatCode(Number(id), custom.get(id));
	});
	return {
		strings,
		formats,
		stressed: stressedStyles(styles),
		date1904: isTrue(descendants(root, 'workbookPr')[0]?.attributes.date1904),
		isUncalculated: isTrue(descendants(root, 'calcPr')[0]?.attributes.fullCalcOnLoad)
	};
}

function valueOf(node: XmlElement, book: Book, name: string): Cell {
	const type = node.attributes.t ?? 'n';
	const value = textOf(childOf(node, 'v'));
	if (isUncalculated(node, book))
		return {
			...cellOf(''),
			isUncalculated: true,
			odd: {
				rule: 'formula-cell',
				message: `Cell ${name} holds a formula whose result is not in the file. Open the workbook in a spreadsheet program, save it there, and load that.`
			}
		};
	if (type === 's') return book.strings[Number(value)] ?? cellOf('');
	if (type === 'inlineStr') return stringOf(childOf(node, 'is') ?? node);
	if (type === 'b') return cellOf(value === '1' ? 'TRUE' : value === '' ? '' : 'FALSE');
	if (type === 'e')
		return {
			...cellOf(value),
			odd: { rule: 'error-cell', message: `Cell ${name} shows the error ${value} in the sheet. Mend it there.` }
		};
	if (type === 'str' || type === 'd') return cellOf(unescaped(value));
	if (value === '') return cellOf('');
	const number = Number(value);
	if (!Number.isFinite(number)) return cellOf(value);
	const { text, isDate, isNumber } = shownNumber(
		number,
		book.formats[Number(node.attributes.s ?? 0)] ?? '',
		book.date1904
	);
	if (!isDate) return isNumber ? { ...cellOf(text), number: plainNumber(number) } : cellOf(text);
	return {
		...cellOf(text),
		odd: {
			rule: 'date-cell',
			message: `Cell ${name} is a date in the sheet (${text}). If something like “3-4” was typed there, the sheet has changed it; write it again as text.`
		}
	};
}

/** Whether a cell holds a formula whose result was never stored: none, or the nought that some programs write in its stead. */
function isUncalculated(node: XmlElement, book: Book): boolean {
	if (!childOf(node, 'f')) return false;
	const value = textOf(childOf(node, 'v'));
	return (
		(value === '' && (node.attributes.t ?? 'n') === 'n') ||
		(book.isUncalculated && value === '0' && (node.attributes.t ?? 'n') === 'n')
	);
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
		const read = valueOf(cell, book, cell.attributes.r ?? `${number}:${place + 1}`);
		cells[place] = read.text && book.stressed[Number(cell.attributes.s ?? 0)] ? { ...read, stressed: true } : read;
	});
	return cells;
}

/** Repeats what the first cell of each merged area says in the others of its first column (18.3.1.55). */
function spread(rows: Row[], areas: string[]): void {
	const byNumber = new Map(rows.map((row) => [row.number, row]));
	const last = rows.reduce((most, row) => Math.max(most, row.number), 0);
	for (const area of areas) {
		const [from = '', to = from] = area.split(':');
		const holder = byNumber.get(rowOf(from));
		const first = holder?.cells[columnOf(from)];
		if (!holder || !first) continue;
		if (rowOf(from) === rowOf(to)) {
			const alone = holder.cells.filter((cell) => cell.text).length === 1;
			if (alone && first.text && columnOf(to) - columnOf(from) > 1) holder.spans = true;
			continue;
		}
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
