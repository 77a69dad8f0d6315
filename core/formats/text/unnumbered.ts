import { escapeText } from '../../xml/serialise';
import { keyEntries, keyHeading } from './keys';
import type { Line } from './lines';
import { numberMark } from './marks';
import { numbersAreOptions } from './numbered-options';
import { paragraphsOf, unheaded, withoutHeading, type Paragraph } from './paragraphs';

/** No list of answers counts so far: questions with such numbers are given none of it. */
const beyondLists = 900_000;
/** What stands behind a number in a list of answers. */
const keyEntry = /^\(?(?:[a-z]|true|false)\)?\.?$/i;
const card = /^(?:q(?:uestion)?|stem|prompt)\s*:\s+\S/i;

/**
 * Whether a list of answers is that of some questions which count on behind `after`: it names none that is not there, and
 * has an answer for each that is not answered where it stands, and for none that is (`strict`).
 */
const fits = (heads: readonly Paragraph[], answers: ReadonlySet<number>, after: number, strict: boolean) =>
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
	paragraphs: readonly Paragraph[],
	answers: ReadonlySet<number>,
	after: number
): { heads: Paragraph[]; unsure: boolean } {
	// bullets are options only where a key says so
	const chosen = answers.size > 0 || paragraphs.some(({ below, isKeyed }) => below === 'bullets' && isKeyed);
	const sure = ({ asks, below }: Paragraph) => below !== null && (below !== 'bullets' || (asks && chosen));
	const asked = paragraphs.findIndex((head) => sure(head) || head.isQuestion);
	const first = asked < 0 ? paragraphs.length - 1 : asked;
	const plain = paragraphs.filter(sure);
	if (!answers.size) return { heads: plain, unsure: false };
	function* candidates() {
		yield plain;
		yield paragraphs.filter((head) => sure(head) || head.isQuestion);
		for (let from = first; from >= 0; from -= 1) yield paragraphs.slice(from);
	}
	for (const strict of [true, false])
		for (const heads of candidates()) if (fits(heads, answers, after, strict)) return { heads, unsure: false };
	return { heads: plain, unsure: true };
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
	const found = questionsAmong(paragraphsOf(above, whole, numbered), answers, after);
	const { heads } = found;
	// of a list that goes on in the next part not all of its numbers are known
	const unsure = found.unsure || (answers.size > 0 && until !== Infinity);
	const isSure = ({ asks, isKeyed }: Paragraph) => asks || isKeyed || (answers.size > 0 && !unsure);
	if (!heads.length || heads.filter(isSure).length * 2 < heads.length) return none;
	const from = after + (unsure ? beyondLists : 0);
	const out = [...lines];
	heads.forEach(({ at }, place) => {
		const line = withoutHeading(lines[at]!);
		// a number with a word beside it is told from those of options
		const sign = `${numbered ? 'Q' : ''}${from + place + 1}.`;
		out[at] = { ...line, text: `${sign} ${line.text}`, markup: `${escapeText(sign)} ${line.markup}` };
	});
	return { lines: out, count: heads.filter(({ at }) => lines[at]!.number < until).length, unsure };
}
