import type { ReaderRule } from '../../reports/rules';
import { markupOfText } from '../../markup/clean';
import type { Markup } from '../../model/question';
import type { Report } from '../../reports/report';
import { escapeText } from '../../xml/serialise';

/** One cell: its text, the same as rich text, and what was odd about it. */
export interface Cell {
	text: string;
	markup: Markup;
	odd?: { rule: ReaderRule; message: string };
	/** The number that the cell holds, as it is, where the text is how a sheet shows it. */
	number?: string;
	/** It holds a formula whose result was never stored. */
	isUncalculated?: boolean;
	/** It stands out: bold, marked or coloured. */
	stressed?: boolean;
	/** It is part of a merged area, and repeats what the first cell of it says. */
	merged?: boolean;
}

/** One row, with its number in the file from 1. */
export interface Row {
	cells: Cell[];
	number: number;
	endNumber?: number;
	hidden?: boolean;
	/** It has one cell across the table: it heads the rows below it. */
	spans?: boolean;
	odd?: { rule: ReaderRule; severity: Report['severity']; message: string };
	/** Without anything that could be split: a row that is damaged. */
	raw?: string;
}

/** A cell with nothing in it: the same for all of them, since most cells of a wide table are empty. */
const emptyCell: Cell = Object.freeze({ text: '', markup: '' });

/** A cell of plain text. */
export function cellOf(given: string): Cell {
	// an apostrophe in front keeps a spreadsheet from taking a text for a formula
	const text = given.replace(/^'(?=[=+\-@])/, '').trim();
	if (!text) return emptyCell;
	const markup = textCell(text);
	// mostly the same text, which need not be kept twice
	return { text, markup: markup === text ? text : markup };
}

/** Plain text with its lines as rich text. */
function textCell(text: string): Markup {
	const lines = text.split(/\r\n|\r|\n/);
	return lines.length > 1 ? lines.map(escapeText).join('<br/>') : markupOfText(text);
}
