import Papa from 'papaparse';
import { readPlainText } from '../../container/decode';
import { progressAt, toldEvery } from '../progress';
import type { DocumentContext, DocumentReader, ReadEvent } from '../format';
import type { Recipe, TableRecipe } from '../recipe/recipe';
import { bounds } from '../../model/bounds';
import { guessTable } from './guess';
import { readRows } from './table';
import { cellOf, type Row } from './row';

const delimiters = [',', '\t', ';', '|'];
const newlines = (text: string) => text.match(/\r\n|\r|\n/g)?.length ?? 0;

/** The delimiter of a table of text, by which one gives the most rows of the same width. */
export function delimiterOf(text: string): string {
	const sample = text.slice(0, 100_000);
	const scored = delimiters.map((delimiter) => {
		const { data } = Papa.parse<string[]>(sample, { delimiter, preview: 60 });
		const widths = data.filter((row) => row.some((cell) => cell.trim())).map((row) => row.length);
		const [width = 1] = [...widths].sort((a, b) => b - a);
		const same = widths.filter((one) => one === width).length;
		return { delimiter, score: width > 1 ? (same / Math.max(1, widths.length)) * Math.min(8, width) : 0 };
	});
	return scored.reduce((a, b) => (b.score > a.score ? b : a)).delimiter;
}

/** What is odd in the size of a row: more columns than are read, or a cell that is too long; it is cut there. */
function oddSize(cells: string[], number: number): Row['odd'] {
	const message =
		cells.length > bounds.columns
			? `Row ${number} has more than ${bounds.columns.toLocaleString('en')} columns. Those were read, and the others were left out.`
			: cells.some((cell) => cell.length > bounds.cell)
				? `Row ${number} has a cell of more than ${bounds.cell.toLocaleString('en')} letters, which was cut there.`
				: null;
	return message ? { rule: 'too-large', severity: 'broken', message } : undefined;
}

/** Lines that are longer than any row may be, cut behind one column more than is read. */
function withinColumns(text: string, delimiter: string): string {
	const longest = bounds.cell * 4;
	if (text.length <= longest) return text;
	const lines: string[] = [];
	for (let from = 0; from < text.length;) {
		const end = text.indexOf('\n', from);
		const to = end < 0 ? text.length : end + 1;
		lines.push(to - from > longest ? cutRow(text.slice(from, to), delimiter, longest * 4) : text.slice(from, to));
		from = to;
	}
	return lines.join('');
}

/** A line with its end, cut behind one column more than is read, or where it is longer than any row. */
function cutRow(line: string, delimiter: string, longest: number): string {
	const end = /\r?\n$/.exec(line)?.[0] ?? '';
	let at = -1;
	for (let column = 0; column <= bounds.columns; column += 1) {
		at = line.indexOf(delimiter, at + 1);
		if (at < 0 || at > longest) return line.length > longest ? line.slice(0, longest) + end : line;
	}
	return line.slice(0, at) + end;
}

/** Stands for a quote that has a backslash in front of it, while a table is taken apart. */
const escapedQuote = '\u{f0022}';

/** Whether quotes within cells have a backslash in front of them, as some programs write them, instead of being doubled. */
function escapesQuotes(text: string): boolean {
	const bare = text.replaceAll('\\"', '');
	const doubled = bare.replace(/(^|[\t,;|\n\r])""(?=[\t,;|\n\r]|$)/g, '$1').includes('""');
	return !doubled && /\\"[^\t,;|\n\r]/.test(text);
}

/** The rows of a table of text. A quote that opens and never closes spoils its own row alone; that row is kept as it is. */
export function rowsOfText(text: string, delimiter: string): Row[] {
	const rows: Row[] = [];
	const whole = escapesQuotes(text) ? text.replaceAll('\\"', escapedQuote) : text;
	const plain = (cell: string) => cellOf(cell.replaceAll(escapedQuote, '"'));
	let rest = withinColumns(whole.replace(/^\ufeff/, ''), delimiter);
	let line = 1;
	while (rest) {
		const { data, errors } = Papa.parse<string[]>(rest, { delimiter, skipEmptyLines: false });
		const broken = errors.find((error) => error.code === 'MissingQuotes');
		const ended = /[\r\n]$/.test(rest) && data.at(-1)?.join('') === '';
		const good = broken ? data.slice(0, broken.row ?? 0) : ended ? data.slice(0, -1) : data;
		let offset = 0;
		for (const cells of good) {
			// where a row ends is known by parsing as much as it says: quoted cells may hold line ends
			const length = rowLength(rest, offset, delimiter);
			const raw = rest.slice(offset, offset + length);
			const lines = newlines(raw.replace(/(\r\n|\r|\n)$/, ''));
			const odd = oddSize(cells, rows.length + 1);
			rows.push({
				cells: (odd ? cells.slice(0, bounds.columns).map((cell) => cell.slice(0, bounds.cell)) : cells).map(plain),
				number: rows.length + 1,
				endNumber: rows.length + 1,
				...(odd ? { odd } : {})
			});
			offset += length;
			line += lines + 1;
		}
		if (!broken) break;
		const end = /\r\n|\r|\n/.exec(rest.slice(offset));
		const raw = end ? rest.slice(offset, offset + end.index) : rest.slice(offset);
		rows.push({
			cells: raw.split(delimiter).map((cell) => plain(cell.replace(/^"/, ''))),
			number: rows.length + 1,
			raw: raw.replaceAll(escapedQuote, '\\"'),
			odd: {
				rule: 'unclosed-quote',
				severity: 'broken',
				message: `A quote opens on line ${line} and is not closed. The line is kept as it is, the lines after it were read; close the quote there.`
			}
		});
		rest = end ? rest.slice(offset + end.index + end[0].length) : '';
		line += 1;
	}
	return rows;
}

/** The length of a row from a place on, with its line end; line ends between quotes belong to it. */
function rowLength(text: string, from: number, delimiter: string): number {
	let quoted = false;
	let start = true;
	for (let at = from; at < text.length; at += 1) {
		const sign = text[at]!;
		if (quoted) {
			if (sign === '"') {
				if (text[at + 1] === '"') at += 1;
				else quoted = false;
			}
		} else if (sign === '"' && start) quoted = true;
		else if (sign === '\n') return at + 1 - from;
		else if (sign === '\r') return at + (text[at + 1] === '\n' ? 2 : 1) - from;
		start = !quoted && text.startsWith(delimiter, at);
	}
	return text.length - from;
}

/** What a table gives, as events; `recipe` null is guessed. Null where the rows hold no questions. */
export function tableEvents(
	rows: Row[],
	recipe: Recipe | null,
	context: DocumentContext,
	label: string
): Generator<ReadEvent> | null {
	const guessed = guessTable(rows);
	const used = recipe?.columns ? recipe : guessed;
	return used && eventsOf(rows, { ...guessed, ...used }, context, label);
}

function* eventsOf(rows: Row[], recipe: TableRecipe, context: DocumentContext, label: string): Generator<ReadEvent> {
	let any = false;
	let done = 0;
	for (const found of readRows(rows, recipe, { file: context.file, format: context.format, label })) {
		done += 1;
		if (done % toldEvery === 0) yield progressAt(context, Math.min(done, rows.length), rows.length);
		if ('report' in found) {
			yield { type: 'report', report: found.report };
			continue;
		}
		any = true;
		yield { type: 'question', ...found };
	}
	if (any) return;
	yield {
		type: 'report',
		report: {
			rule: 'not-questions',
			severity: 'doubtful',
			message: `${label} has headings, and no row of questions below them.`,
			place: { file: context.file, line: 1 }
		}
	};
}

const separatorLine = /^\ufeff?sep=(.)(?:\r\n|\r|\n)\ufeff?/i;

/** Reads a table of text: CSV, with tabs or with semicolons. */
export const readCsv: DocumentReader = async function* (context): AsyncGenerator<ReadEvent> {
	const { text: given, report } = await readPlainText(context.container, context.file);
	if (report) yield { type: 'report', report };
	if (given === null) return;
	// some spreadsheets say by what the cells are parted in a line of its own
	const parted = separatorLine.exec(given)?.[1];
	const text = given.replace(separatorLine, '');
	const rows = rowsOfText(text, context.recipe?.delimiter ?? parted ?? delimiterOf(text));
	const events = tableEvents(rows, context.recipe ?? null, context, `“${context.file}”`);
	if (events) yield* events;
	else
		yield {
			type: 'report',
			report: {
				rule: 'not-questions',
				severity: 'doubtful',
				message: `“${context.file}” is a table, and no column of it reads like questions. Its first row is: ${rows[0]?.cells.map((cell) => cell.text).join(', ') ?? 'empty'}. Say with a recipe which column is the stem.`,
				place: { file: context.file, line: 1 }
			}
		};
};
