import type { Markup } from '../../model/question';
import { stemText, type Block } from './block';
import type { ListedAnswer } from './keys';
import type { Line } from './lines';
import { fieldOf, optionMark, placeOfLabel, type OptionMark } from './marks';
import { addOptions } from './options';

const asksToMatch = /\b(match|pair|connect|link|assign|belong)/i;
const headings = /^(term|word|left|item|column a)$/i;
/** Letters alone head two columns only side by side. */
const isHead = (left: Line, right: Line) =>
	headings.test(left.text) || (/^a$/i.test(left.text) && /^b$/i.test(right.text));

/** Takes a table of two columns under a stem for the pairs of its question; false where it is any other table. */
export function pairsOfTable(block: Block, line: Line): boolean {
	const rows = line.table ?? [];
	if (!block.stem.length || block.options.length || rows.length < 2) return false;
	if (!rows.every((cells) => cells.length === 2 && cells[0]!.text)) return false;
	if (line.headed && !asksToMatch.test(stemText(block))) return false;
	const cell = (shown: { text: string; markup: Markup }): Line => ({
		...line,
		table: null,
		text: shown.text,
		markup: shown.markup
	});
	for (const [left, right] of rows) block.pairs.push([cell(left!), cell(right!)]);
	const [head] = block.pairs;
	if (head && (line.headed || isHead(...head))) block.pairs.shift();
	block.pairSources.push(tableInText(line));
	block.last = 'pair';
	return true;
}

const labelled = /^\*?\s*\(?[A-Za-z]\s?[.)]\s*/;

/** A letter alone in its cell: "A", "b)", "(C)", perhaps with a star in front. */
const letterCell = /^(\*?)\s*\(?([A-Za-z])\s*[.):]?$/;

/** The options of a table that has a letter in the first cell of each row, from A on, and what it stands for in the second. */
function lettersBeside(block: Block, line: Line): OptionMark[] | null {
	const rows = (line.table ?? []).filter((cells) => cells.some((cell) => cell.text || cell.markup));
	if (rows.length < 2 || asksToMatch.test(stemText(block))) return null;
	const marks = rows.map(([label, own, ...more], at): OptionMark | null => {
		const found = letterCell.exec(label?.text.trim() ?? '');
		const hasText = own !== undefined && (own.text !== '' || own.markup !== '') && more.length === 0;
		if (!found || !hasText || placeOfLabel(found[2]!, false) !== at) return null;
		const rest = { ...line, table: null, text: own.text, markup: own.markup, stressed: own.stressed === true };
		return { label: found[2]!, style: 'cell', starred: found[1] === '*', ticked: null, bullet: false, rest };
	});
	return marks.every((mark) => mark !== null) ? marks : null;
}

/** Takes a table that only lays out lettered options, from A on in rows or in columns, for the options of its question. */
export function optionsOfTable(block: Block, line: Line): boolean {
	if (!block.stem.length || block.options.length || line.headed) return false;
	const beside = lettersBeside(block, line);
	if (beside) {
		for (const mark of beside) addOptions(block, mark);
		return true;
	}
	const cells = (line.table ?? []).flat().filter((cell) => cell.text);
	if (cells.length < 2) return false;
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

/** A table of answers with a column for each question, "Question 1 2 3" above "Answer A B C", turned on its side; any other as it is. */
function uprightKeys(rows: NonNullable<Line['table']>): NonNullable<Line['table']> {
	const [numbers = [], answers = []] = rows;
	const counts = numbers.slice(1).every((cell) => /^\d{1,6}[.)]?$/.test(cell.text));
	const isLaid = rows.length === 2 && numbers.length > 2 && numbers.length === answers.length && counts;
	if (!isLaid || !ofNumbers.test(numbers[0]!.text) || !ofAnswers.test(answers[0]!.text)) return rows;
	return numbers.map((cell, at) => [cell, answers[at]!]);
}

/**
 * The answers of a table that gives the number of each question and its answer, and perhaps the reason; null for any
 * other table. Without headings that say so, `listed` has to say that a list of answers is expected.
 */
export function answersOfTable({ table, number }: Line, listed: boolean): ListedAnswer[] | null {
	const rows = uprightKeys(table ?? []);
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
