import { fold, plainText } from '../../markup/text';
import { escapeText } from '../../xml/serialise';
import { kindOfWord } from '../drafts/words';
import { rightTail } from '../right-mark';
import { note, type Block, type FoundOption } from './block';
import type { Line } from './lines';
import { withoutStress } from './markdown';
import { cut, labelAt, placeOfLabel, type OptionMark } from './marks';

const wrongTail = /\s*(?:❌|✗|✘|[([](?:incorrect|wrong|false answer)[)\]])\s*$/iu;
const answerTail =
	/\s+[([]?\s*(?:the\s+)?(?:correct\s+|right\s+)?(?:answer|ans|key)\s*(?:is)?\s*([:=.])\s*([^()[\]]{1,60}?)\s*[)\]]?\s*$/i;

/** A line without the answer that stands at its end ("… Answer: B"), which goes to the question. */
export function withoutAnswer(line: Line, block: Block): Line {
	const found = answerTail.exec(line.text);
	if (!found || found.index === 0) return line;
	// behind a full stop only a label is an answer: "the correct answer. Who …" is a sentence that goes on
	if (found[1] === '.' && !/^(?:\(?[A-Za-z]\)?|true|false|[-+]?[\d.,]+)$/i.test(found[2]!)) return line;
	block.answers.push({ value: found[2]!, line: line.number });
	return cut(line, 0, found.index);
}

/** An option taken apart from that of another column on its line, whose letter comes later: "a. Ebb       c. Flood". */
function apartInColumns(current: OptionMark, place: number, option: OptionMark): OptionMark[] {
	if (!/^[A-Za-z]$/.test(option.label) || !/^[.)]$/.test(option.style)) return [current];
	const found = /\s{3,}(\*?)([A-Za-z])([.)])\s+(?=\S)/.exec(current.rest.text);
	const later = found && placeOfLabel(found[2]!, false);
	if (!found || found.index === 0 || found[3] !== option.style || later === null || later < place || later > place + 4)
		return [current];
	const other: OptionMark = {
		...option,
		label: found[2]!,
		starred: found[1] === '*',
		rest: cut(current.rest, found.index + found[0].length)
	};
	return [{ ...current, rest: cut(current.rest, 0, found.index) }, ...apartInColumns(other, later + 1, option)];
}

/** One option line taken apart where several stand on it. */
export function splitInline(option: OptionMark, expected: number): OptionMark[] {
	if (option.ticked !== null || option.bullet || !option.label || option.style === 'list') return [option];
	const out: OptionMark[] = [];
	let current = option;
	const letter = placeOfLabel(option.label, false);
	const roman = letter !== expected && placeOfLabel(option.label, true) === expected;
	if (!roman && letter === null) return [option];
	// "1. 2. 3." within a line may as well be dates and amounts
	const least = /\d/.test(option.label) && option.style === '.' ? '\\s{2,}' : '\\s+';
	for (let place = (roman ? expected : letter!) + 1; ; place += 1) {
		const next = labelAt(place, roman, option.label);
		if (next === null) break;
		const escaped =
			option.style === '()'
				? `\\(${next}\\)`
				: option.style === '[]'
					? `\\[${next}\\]`
					: `${next}${/[-–—]/.test(option.style) ? '\\s?' : ''}\\${option.style}`;
		const found = new RegExp(`(${least}|\\s*[,;|]\\s+)(\\*?)(\\s*)${escaped}\\s+`).exec(current.rest.text);
		if (!found || found.index === 0) return [...out, ...apartInColumns(current, place, option)];
		const [whole, gap, star, space] = found as unknown as [string, string, string, string];
		// a star belongs to what it stands nearer to: "a. True *   b. False", "a. True   *b. False"
		const behind = star !== '' && space.length >= gap.length;
		out.push({ ...current, rest: cut(current.rest, 0, found.index + (behind ? gap.length + 1 : 0)) });
		current = {
			...option,
			label: next,
			starred: star !== '' && !behind,
			rest: cut(current.rest, found.index + whole.length)
		};
	}
	out.push(current);
	return out;
}

const behindStem = /[?:.…_”"]\s+(\*?)([([]?)([aA])([.)\]])\s+(?=\S)/;

/**
 * The stem and the first option of a line that holds both, where the options run on from the first letter; null where
 * it does not. A letter with a full stop may be the end of a sentence, so that three of them are asked for.
 */
export function optionsBehindStem(line: Line): { stem: Line; options: OptionMark } | null {
	const found = behindStem.exec(line.text);
	if (!found) return null;
	const [whole, star, opening, label, sign] = found as unknown as [string, string, string, string, string];
	const options: OptionMark = {
		label,
		style: opening === '(' ? '()' : opening === '[' ? '[]' : sign,
		starred: star === '*',
		ticked: null,
		bullet: false,
		rest: cut(line, found.index + whole.length)
	};
	if (splitInline(options, 0).length < (options.style === '.' ? 3 : 2)) return null;
	return { stem: cut(line, 0, found.index + 1), options };
}

/** Puts an option line with its marks into a question, taken apart where several stand on it. */
export function addOptions(block: Block, option: OptionMark): void {
	const pieces = splitInline(option, block.options.length);
	if (pieces.length > 1)
		note(
			block,
			'options-on-a-line',
			`Its options stand on one line (line ${option.rest.number}); they were taken apart.`
		);
	for (const piece of pieces) {
		let rest = withoutAnswer(piece.rest, block);
		let right = option === piece ? option.starred || option.ticked === true : piece.starred;
		const wrong = wrongTail.exec(rest.text);
		if (wrong && wrong.index > 0) rest = cut(rest, 0, wrong.index);
		const tail = rightTail.exec(rest.text);
		if (tail && tail.index > 0) {
			right = true;
			rest = cut(rest, 0, tail.index);
		}
		const place = placeOfLabel(piece.label, block.options[0] ? /^i$/i.test(block.options[0].label) : true);
		const expected = block.options.length;
		if (piece.label && place !== null && place !== expected && placeOfLabel(piece.label, false) !== expected)
			note(
				block,
				'odd-letter',
				`Option ${expected + 1} has the letter “${piece.label}”; it was read as the one in its place.`,
				'doubtful'
			);
		const bare = withoutStress(rest.markup);
		block.options.push({
			label: piece.label,
			style: piece.style,
			text: [bare ?? rest.markup],
			plain: rest.text,
			right,
			stressed: rest.stressed || option.rest.stressed || bare !== null,
			...((rest.struck ?? option.rest.struck) ? { struck: true } : {}),
			feedback: [],
			line: rest.number
		});
	}
	if (option.ticked !== null) block.boxed = true;
	block.last = 'option';
	block.to = option.rest.number;
}

const choiceKinds = new Set<string>(['true-false', 'multiple-choice', 'multiple-response']);
const shortest = 2;
const longest = 12;
const starredLine = /^\*\s*(?=\S)|\s*(?:\*|[✓✔✅]\uFE0F?)$/u;

/**
 * The lines under a stem as options, where they have no letters and something says that they are options: one is
 * starred, or the answer is a letter or one of them. Gives none where nothing says so.
 */
export function bareOptions(block: Block, answers: string[]): FoundOption[] {
	const kind = block.draft.kind === null ? null : kindOfWord(block.draft.kind);
	if (block.options.length || block.pairs.length || (kind !== null && !choiceKinds.has(kind))) return [];
	const lines = block.stem.map((one) => one.line);
	const end = lines.findLastIndex((line) => /[?:…_.]$/.test(line.text) && !starredLine.test(line.text));
	const under = lines.slice(Math.max(0, end) + 1);
	if (under.length < shortest || under.length > longest || under.some((line) => line.text.length > 160)) return [];
	const starred = under.filter((line) => starredLine.test(line.text));
	const names = (answer: string) =>
		(/^\(?[A-Za-z]\)?\.?$/.test(answer) &&
			(placeOfLabel(answer.replace(/[().]/g, ''), false) ?? under.length) < under.length) ||
		under.some((line) => fold(line.text).toLowerCase() === fold(answer).toLowerCase());
	if (starred.length ? starred.length === under.length : !answers.some(names)) return [];
	block.stem = block.stem.slice(0, Math.max(0, end) + 1);
	return under.map((line) => {
		const found = starredLine.exec(line.text);
		const kept = found ? (found.index === 0 ? cut(line, found[0].length) : cut(line, 0, found.index)) : line;
		return {
			label: '',
			style: 'bare',
			text: [kept.markup],
			plain: kept.text,
			right: found !== null,
			stressed: line.stressed,
			feedback: [],
			line: line.number
		};
	});
}

/** Statements as lines of a stem: "I. …", "II. …". */
export function statementLines(statements: FoundOption[]): { line: Line; gap: boolean }[] {
	return statements.map((statement) => {
		const label =
			statement.style === '()'
				? `(${statement.label}) `
				: `${statement.label}${statement.style.length === 1 ? statement.style : '.'} `;
		const markup = statement.text.join(' ');
		return {
			gap: true,
			line: {
				text: label + plainText(markup),
				markup: escapeText(label) + markup,
				number: statement.line,
				indent: 0,
				heading: null,
				list: null,
				stressed: false,
				table: null
			}
		};
	});
}
