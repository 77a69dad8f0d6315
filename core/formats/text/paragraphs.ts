import { headingLevel, separatorLine } from './ahead';
import { kindLine } from './kind-words';
import { nearestLine, type Line } from './lines';
import { fieldOf, numberMark, optionMark, placeOfLabel } from './marks';

const truth = /^\*?\s*(?:true|false)\s*\*?\.?$/i;
/** A paragraph that only says how to answer the one above it. */
const howToAnswer = /^[([]?\s*(?:select|choose|pick|mark|tick|check)\b[^?]{0,60}$|^\(.{1,80}\)$|^\[.{1,80}\]$/i;
/** Two things that belong together. */
const paired = /^\S.{0,80}?(?:\s(?:=|=>|->|→)\s|[^\s=]=(?=[^\s=]))\S/;
const asking = /[?？…:_]\W*$|_{2,}|\.\.\.|\(T\s*\/\s*F\)/i;

type Role = 'blank' | 'plain' | 'option' | 'answer' | 'pair' | 'field' | 'other';

/** A heading as a line like any other. */
export const withoutHeading = (line: Line): Line =>
	headingLevel(line) === null
		? line
		: { ...line, text: unheaded(line.text), markup: line.markup.replace(/^#+\s*/, ''), heading: null };

/** The text of a heading without the signs of Markdown. */
export const unheaded = (text: string): string => text.replace(/^#+\s*/, '');

/** What a line is, for where a question may begin. */
function roleOf(line: Line): Role {
	if (!line.text) return line.table ? 'other' : 'blank';
	if (line.table || separatorLine.test(line.text)) return 'other';
	if (headingLevel(line) !== null) return asking.test(line.text) && headingLevel(line) !== 0 ? 'plain' : 'other';
	const option = optionMark(line);
	if ((option && !/^\d+$/.test(option.label)) || truth.test(line.text)) return 'option';
	const name = kindLine.test(line.text) ? 'answer' : fieldOf(line)?.name;
	if (name) return name === 'answer' || name === 'model' ? 'answer' : 'field';
	return 'plain';
}

/** The same, with lines of pairs told from a stem that has an equals sign: there are several of them. */
function roleAt(lines: readonly Line[], at: number, before: Role): Role {
	const role = roleOf(lines[at]!);
	const isBullet = role === 'option' && optionMark(lines[at]!)?.bullet;
	if ((role !== 'plain' && !isBullet) || !paired.test(lines[at]!.text)) return role;
	return before === 'pair' || paired.test(nearestLine(lines, at, 1)?.text ?? '') ? 'pair' : role;
}

/** Whether a list of options begins with a line, where none stands right above it. */
function isFirst(line: Line): boolean {
	const option = optionMark(line);
	if (!option || option.ticked !== null || option.bullet) return true;
	return placeOfLabel(option.label, true) === 0 || placeOfLabel(option.label, false) === 0;
}

/** Whether an option is marked as right. */
const isMarked = (line: Line) => {
	const option = optionMark(line);
	const stands = /<(?:b|strong|u|mark)>/.test(line.markup);
	return (
		line.stressed ||
		stands ||
		/[*✓✔✅](?:\s{2,}|\s*$)|^\*/u.test(line.text) ||
		option?.starred === true ||
		option?.ticked === true
	);
};

/** A paragraph that may be a question: the place of its first line, and what says that it is one. */
export interface Paragraph {
	at: number;
	/** It ends as a question or as the beginning of one does. */
	asks: boolean;
	/** It ends with a question mark, or has a blank to fill. */
	isQuestion: boolean;
	/** What stands right below it; nothing where another paragraph does. */
	below: 'options' | 'bullets' | 'answer' | null;
	/** An option below it is marked, or an answer is given. */
	isKeyed: boolean;
}

/** What stands below a paragraph, as its first line says. */
function belowOf(line: Line, role: Role): Paragraph['below'] {
	if (role !== 'option') return 'answer';
	if (!isFirst(line)) return null;
	return optionMark(line)?.bullet ? 'bullets' : 'options';
}

/** A short line that ends as no sentence does: it heads what comes. */
const headingLike = /^.{1,80}[^?.!…_:,;]$/;

/** The paragraphs of a text, but for its headings, options, fields and answers. `whole`: no line runs on in the next one; `numbered`: the numbers are those of options. */
export function paragraphsOf(lines: readonly Line[], whole: boolean, numbered: boolean): Paragraph[] {
	const found: Paragraph[] = [];
	let last: Paragraph | undefined;
	let before: Role = 'other';
	let gap = true;
	for (const [at, line] of lines.entries()) {
		const role: Role = numbered && numberMark(line) ? 'option' : roleAt(lines, at, before);
		if (role === 'blank') {
			gap = true;
			continue;
		}
		const isHeading = headingLevel(line) !== null;
		const isHeaded = whole && /^\p{Lu}/u.test(line.text) && headingLike.test(lines[at - 1]?.text ?? '');
		const continues = (before === 'plain' && !isHeaded) || /^\p{Ll}/u.test(line.text);
		const runsOn = role === 'plain' && !gap && !isHeading && continues;
		if (role === 'plain' && !runsOn && !(before === 'plain' && howToAnswer.test(line.text)))
			found.push((last = { at, asks: false, isQuestion: false, below: null, isKeyed: false }));
		if (role === 'plain' && last && !(runsOn && before !== 'plain')) {
			const text = line.text.replace(/\s*[([][^()[\]]*[)\]]\s*$/, '');
			last.asks ||= asking.test(text) || asking.test(line.text);
			last.isQuestion ||= /[?？]\W*$|_{3,}/.test(text) || /\(T\s*\/\s*F\)/i.test(line.text);
		}
		if (role === 'other') last = undefined;
		if (role === 'option' || role === 'answer' || role === 'pair') {
			if (last && (before === 'plain' || before === 'field')) last.below ??= belowOf(line, role);
			if (last?.below && (role !== 'option' || isMarked(line))) last.isKeyed = true;
		}
		if (!runsOn) before = role;
		gap = false;
	}
	return found;
}
