import type { Markup } from '../../model/question';
import { stemText, type Block } from './block';
import type { ListedAnswer } from './keys';
import type { Line } from './lines';
import { fieldOf, optionMark, placeOfLabel } from './marks';
import { addOptions } from './options';

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

const labelled = /^\*?\s*\(?[A-Za-z]\s?[.)]\s*/;

/** Takes a table that only lays out lettered options, from A on in rows or in columns, for the options of its question. */
export function optionsOfTable(block: Block, line: Line): boolean {
	const cells = (line.table ?? []).flat().filter((cell) => cell.text);
	if (!block.stem.length || block.options.length || line.headed || cells.length < 2) return false;
	const marks = cells.map((cell) =>
		labelled.test(cell.text) ? optionMark({ ...line, table: null, text: cell.text, markup: cell.markup }) : null
	);
	const places = marks.map((mark) => (mark ? placeOfLabel(mark.label, false) : null));
	const order = cells.map((_, at) => places.indexOf(at));
	if (order.includes(-1)) return false;
	for (const at of order) addOptions(block, marks[at]!);
	return true;
}

const ofQuestion = /^(?:(?:q|question|stem)(?:\s*(?:no\.?|#)?\s*(\d{1,6}))?|(\d{1,6}))\s*[.):]?$/i;
const ofLetter = /^(?:(?:option|choice|answer)\s+)?\(?([A-Ha-h])\s*[.):]?$/i;

/**
 * The lines of a table that is a form for one question or several: the first cell of each row says what the second is,
 * "Question", "A", "B", "Answer", "Points". Null for any other table. `number` is that of a question which says none.
 */
export function linesOfForm(line: Line, number: number): Line[] | null {
	const rows = (line.table ?? []).filter((cells) => cells.some((cell) => cell.text));
	if (rows.length < 3 || rows.some((cells) => cells.length !== 2 || !cells[0]!.text)) return null;
	let asked = 0;
	let letters = 0;
	const lines = rows.map(([label, value]): Line | null => {
		const said = label!.text.trim();
		const put = (front: string): Line => ({
			...line,
			table: null,
			text: `${front} ${value!.text}`,
			markup: `${front} ${value!.markup}`
		});
		const question = ofQuestion.exec(said);
		if (question) {
			asked += 1;
			return put(`${question[1] ?? question[2] ?? number + asked - 1}.`);
		}
		const letter = ofLetter.exec(said);
		if (letter) {
			letters += 1;
			return put(`${letter[1]!})`);
		}
		return fieldOf({ ...line, table: null, text: `${said.replace(/:$/, '')}: x`, markup: '' })
			? put(`${said.replace(/:$/, '')}:`)
			: null;
	});
	const first = lines[0];
	if (!asked || lines.includes(null) || !first || !ofQuestion.test(rows[0]![0]!.text.trim())) return null;
	// a column of numbers alone counts things: letters or fields say that this is a form
	return letters > 1 || lines.length > asked ? (lines as Line[]) : null;
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
