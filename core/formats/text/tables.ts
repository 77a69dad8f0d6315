import type { Markup } from '../../model/question';
import { stemText, type Block } from './block';
import type { ListedAnswer } from './keys';
import type { Line } from './lines';

const headings = /^(term|word|left|item|column a|a)$/i;

/** Takes a table of two columns under a stem for the pairs of its question; false where it is any other table. */
export function pairsOfTable(block: Block, line: Line): boolean {
	const rows = line.table ?? [];
	if (!block.stem.length || block.options.length || rows.length < 2) return false;
	if (!rows.every((cells) => cells.length === 2 && cells[0]!.text)) return false;
	if (line.headed && !/\b(match|pair|connect|link|assign|belong)/i.test(stemText(block))) return false;
	const cell = (one: { text: string; markup: Markup }): Line => ({
		...line,
		table: null,
		text: one.text,
		markup: one.markup
	});
	for (const [left, right] of rows) block.pairs.push([cell(left!), cell(right!)]);
	const [head] = block.pairs;
	if (head && (line.headed || headings.test(head[0].text))) block.pairs.shift();
	block.last = 'pair';
	return true;
}

/** A table as one line of rich text. */
export function tableInText(line: Line): Line {
	const rows = line.table ?? [];
	const cells = rows.map((row) => `<tr>${row.map((cell) => `<td>${cell.markup}</td>`).join('')}</tr>`).join('');
	return {
		...line,
		table: null,
		text: rows
			.flat()
			.map((cell) => cell.text)
			.join(' '),
		markup: `<table><tbody>${cells}</tbody></table>`
	};
}

const ofNumbers = /^(?:q(?:uestion)?|no|number|nr|#|item)?\.?(?:\s*(?:no\.?|number|#))?$/i;
const ofAnswers = /^(?:(?:the\s+)?(?:correct|right)\s+)?(?:answers?|key|keys|option|choice|solution)$/i;

/**
 * The answers of a table that gives the number of each question and its answer, and perhaps the reason; null for any
 * other table. Without headings that say so, `listed` has to say that a list of answers is expected.
 */
export function answersOfTable({ table, number }: Line, listed: boolean): ListedAnswer[] | null {
	const rows = table ?? [];
	const [first] = rows;
	if (!first || first.length < 2 || first.length > 3) return null;
	const headed = ofNumbers.test(first[0]!.text) && ofAnswers.test(first[1]!.text);
	const body = headed ? rows.slice(1) : rows;
	if (!headed && !listed) return null;
	const counted = body.map((cells) => /^q?\s*(\d{1,6})\s*[.)]?$/i.exec(cells[0]?.text ?? ''));
	if (!body.length || counted.includes(null) || body.some((cells) => !cells[1]?.text)) return null;
	return body.map((cells, at) => ({
		number: Number(counted[at]![1]),
		value: cells[1]!.text,
		line: number,
		...(cells[2]?.text ? { reason: cells[2].text } : {})
	}));
}
