import type { ReaderRule } from '../../reports/rules';
import type { Markup } from '../../model/question';
import { bounds } from '../../model/bounds';
import { escapeText } from '../../xml/serialise';

/** One line, or one paragraph of a word processor, with what its form says of it. */
export interface Line {
	/** Its plain text, without marks of lists that the form has told already. */
	text: string;
	/** The same as rich text. */
	markup: Markup;
	/** Where it stands in the file, from 1. */
	number: number;
	indent: number;
	/** The level of a heading, from 1; 0 for a title. */
	heading: number | null;
	/** A number or a letter that a word processor has put in front: its level, and what it reads. */
	list: { level: number; kind: 'number' | 'letter' | 'bullet'; label: string } | null;
	/** All of it stands out: bold, underlined, marked or coloured. */
	stressed: boolean;
	/** All of it is struck through. */
	struck?: boolean;
	/** The cells of a table that stands here; what stands out in one is bold, marked or coloured. */
	table: { text: string; markup: Markup; stressed?: boolean }[][] | null;
	/** The first row of the table is its heading. */
	headed?: boolean;
	/** What there is to report on this very line. */
	odd?: { rule: ReaderRule; message: string }[];
}

/** Blank lines in a row that are told apart. */
const mostBlank = 20;
const wide = /[\uff01-\uff0f\uff1a-\uff20\uff3b-\uff40\uff5b-\uff5e]/g;
const widthOffset = 0xfee0;
const ofTheEast = /[\p{sc=Han}\p{sc=Hiragana}\p{sc=Katakana}\p{sc=Hangul}]/u;

/** The signs of a keyboard of the East in a line of other letters, as the signs that these are written with. */
const withoutWideSigns = (text: string) =>
	ofTheEast.test(text)
		? text
		: text
				.replace(/：(?=[\p{L}\p{N}([+-])/gu, '： ')
				.replace(wide, (sign) => String.fromCharCode(sign.charCodeAt(0) - widthOffset));

/** A line of plain text. */
export function lineOf(text: string, number: number): Line {
	const expanded = withoutWideSigns(text)
		.replace(/\t/g, '    ')
		.replace(/\u00a0/g, ' ')
		// signs that nobody sees, as pages that were copied have them, and the line ends of HTML in Markdown
		.replace(/[\u200b\u2060\ufeff]/g, '')
		.replace(/(?:\s*<br\s*\/?>)+\s*$/i, '');
	return {
		text: expanded.trim(),
		markup: escapeText(expanded.trim()),
		number,
		indent: expanded.length - expanded.trimStart().length,
		heading: null,
		list: null,
		stressed: false,
		table: null
	};
}

/** What ends a line of a text. */
export const lineEnd = /\r\n|\r|\n|\u2028|\u2029|\f/g;

/** The lines of a text, whatever ends them, one at a time. */
export function* eachLine(text: string): Generator<Line> {
	let blank = 0;
	let number = 0;
	let from = 0;
	const end = new RegExp(`${lineEnd.source}|$`, 'g');
	for (let found = end.exec(text); found; found = end.exec(text)) {
		number += 1;
		const line = text.slice(from, found.index);
		from = found.index + found[0].length;
		blank = line.trim() ? 0 : blank + 1;
		// of many blank lines a few say all that they say
		if (blank <= mostBlank) yield lineOf(line.length > bounds.cell ? line.slice(0, bounds.cell) : line, number);
		if (found[0] === '') break;
	}
}

/** The lines of a text, whatever ends them. */
export function linesOf(text: string): Line[] {
	return [...eachLine(text)];
}

/** The nearest line behind a place, or in front of it, that is not empty. */
export function nearestLine(lines: readonly Line[], at: number, step: 1 | -1): Line | undefined {
	let place = at + step;
	while (lines[place]?.text === '') place += step;
	return lines[place];
}
