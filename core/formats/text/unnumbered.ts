import { escapeText } from '../../xml/serialise';
import { headingLevel, separatorLine } from './ahead';
import { kindLine } from './kind-words';
import { keyEntries, keyHeading } from './keys';
import type { Line } from './lines';
import { fieldOf, numberMark, optionMark, placeOfLabel } from './marks';
import { numbersAreOptions } from './numbered-options';

/** What stands behind a number in a list of answers. */
const keyEntry = /^\(?(?:[a-z]|true|false)\)?\.?$/i;
const card = /^(?:q(?:uestion)?|stem|prompt)\s*:\s+\S/i;
const truth = /^\*?\s*(?:true|false)\s*\*?\.?$/i;
/** A paragraph that only says how to answer the one above it. */
const howToAnswer = /^[([]?\s*(?:select|choose|pick|mark|tick|check)\b[^?]{0,60}$|^\(.{1,80}\)$|^\[.{1,80}\]$/i;
/** Two things that belong together. */
const paired = /^\S.{0,80}?(?:\s(?:=|=>|->|→)\s|[^\s=]=(?=[^\s=]))\S/;
const asking = /[?？…:_]\W*$|_{2,}|\.\.\.|\(T\s*\/\s*F\)/i;

type Role = 'blank' | 'plain' | 'option' | 'answer' | 'pair' | 'field' | 'other';

/** A heading as a line like any other. */
const withoutHeading = (line: Line): Line =>
	headingLevel(line) === null
		? line
		: { ...line, text: unheaded(line.text), markup: line.markup.replace(/^#+\s*/, ''), heading: null };
const unheaded = (text: string) => text.replace(/^#+\s*/, '');

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
	return before === 'pair' || paired.test(lines.slice(at + 1).find(({ text }) => text)?.text ?? '') ? 'pair' : role;
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
interface Head {
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
function belowOf(line: Line, role: Role): Head['below'] {
	if (role !== 'option') return 'answer';
	if (!isFirst(line)) return null;
	return optionMark(line)?.bullet ? 'bullets' : 'options';
}

/** A short line that ends as no sentence does: it heads what comes. */
const headingLike = /^.{1,80}[^?.!…_:,;]$/;

/** The paragraphs of a text, but for its headings, options, fields and answers. `whole`: no line runs on in the next one; `numbered`: the numbers are those of options. */
function headsOf(lines: readonly Line[], whole: boolean, numbered: boolean): Head[] {
	const heads: Head[] = [];
	let last: Head | undefined;
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
			heads.push((last = { at, asks: false, isQuestion: false, below: null, isKeyed: false }));
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
	return heads;
}

/**
 * Whether a list of answers is that of some questions which count on behind `after`: it names none that is not there, and
 * has an answer for each that is not answered where it stands, and for none that is (`strict`).
 */
const fits = (heads: readonly Head[], answers: ReadonlySet<number>, after: number, strict: boolean) =>
	[...answers].every((number) => number <= after + heads.length) &&
	heads.every(({ isKeyed }, at) => {
		const listed = answers.has(after + at + 1);
		return isKeyed ? !(strict && listed) : listed;
	});

/**
 * The paragraphs that are questions: those in front of options or answers. Where that does not go with the numbers of a
 * list of answers, others are too, if it does with them; `unsure` where it does with none.
 */
function questionsAmong(
	paragraphs: readonly Head[],
	answers: ReadonlySet<number>,
	after: number
): { heads: Head[]; unsure: boolean } {
	// bullets are options only where a key says so
	const chosen = answers.size > 0 || paragraphs.some(({ below, isKeyed }) => below === 'bullets' && isKeyed);
	const sure = ({ asks, below }: Head) => below !== null && (below !== 'bullets' || (asks && chosen));
	const asked = paragraphs.findIndex((head) => sure(head) || head.isQuestion);
	const first = asked < 0 ? paragraphs.length - 1 : asked;
	const found = [
		paragraphs.filter(sure),
		paragraphs.filter((head) => sure(head) || head.isQuestion),
		...paragraphs.slice(0, first + 1).map((_, at) => paragraphs.slice(first - at))
	];
	if (!answers.size) return { heads: found[0]!, unsure: false };
	const fitting =
		found.find((heads) => fits(heads, answers, after, true)) ??
		found.find((heads) => fits(heads, answers, after, false));
	return { heads: fitting ?? found[0]!, unsure: !fitting };
}

/** How many lines of a text stand in front of its list of answers. */
function askedLines(lines: readonly Line[]): number {
	const end = lines.findIndex(({ text }) => keyHeading.test(unheaded(text)));
	return end < 0 ? lines.length : end;
}

/** Whether a line begins a question by itself, with a number or a sign. */
function beginsQuestion(line: Line): boolean {
	const plain = withoutHeading(line);
	if (card.test(plain.text)) return true;
	const marked = numberMark(plain);
	if (!marked) return false;
	return marked.style.startsWith('q') || !(keyEntry.test(marked.rest.text) || keyEntries(plain.text).length > 1);
}

/**
 * The lines of a text whose questions have no numbers, each question with its own, so that they are read like all others.
 * A text with a single numbered question, or with lists that nobody asks about, stays as it is. `whole`: each line is a
 * paragraph, as those of a word processor are. `after` is the last
 * number that was given, and `count` how many are given here in front of the line with the number `until`. `unsure`:
 * the list of answers does not go with them, so that none of its answers can be given to a question.
 */
export function numberParagraphs(
	lines: Line[],
	whole: boolean,
	after = 0,
	until = Infinity
): { lines: Line[]; count: number; unsure: boolean } {
	const none = { lines, count: 0, unsure: false };
	const end = askedLines(lines);
	const above = lines.slice(0, end);
	const numbered = numbersAreOptions(above);
	if (!numbered && above.some(beginsQuestion)) return none;
	const answers = new Set(lines.slice(end + 1).flatMap(({ text }) => keyEntries(text).map((entry) => entry.number)));
	const { heads, unsure } = questionsAmong(headsOf(above, whole, numbered), answers, after);
	const isSure = ({ asks, isKeyed }: Head) => asks || isKeyed || (answers.size > 0 && !unsure);
	if (!heads.length || heads.filter(isSure).length * 2 < heads.length) return none;
	const from = after + (unsure ? Math.max(...answers) : 0);
	const out = [...lines];
	heads.forEach(({ at }, place) => {
		const line = withoutHeading(lines[at]!);
		// a number with a word beside it is told from those of options
		const sign = `${numbered ? 'Q' : ''}${from + place + 1}.`;
		out[at] = { ...line, text: `${sign} ${line.text}`, markup: `${escapeText(sign)} ${line.markup}` };
	});
	return { lines: out, count: heads.filter(({ at }) => lines[at]!.number < until).length, unsure };
}
