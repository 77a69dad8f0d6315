import { Column } from '../../container/compact';
import { readPlainText } from '../../container/decode';
import { bounds } from '../../model/bounds';
import type { Report } from '../../reports/report';
import type { DocumentContext, DocumentReader, ReadEvent } from '../format';
import { progressAt, toldEvery } from '../progress';
import { keyWithoutQuestion, readMarkedText, TextReader } from './grammar';
import type { TextFound } from './state';
import { giveAnswers, type Keyed, type ListedAnswer } from './keys';
import { lineEnd } from './lines';
import { partsOf, partSizes, type TextPart } from './parts';

/** What a text gives, as events: its questions, with their lines as source, and what was left out of it. */
export function* textEvents(
	found: TextFound,
	context: DocumentContext,
	fragment: (from: number, to: number) => string
): Generator<ReadEvent> {
	yield* eventsOf(found, context, fragment, null);
}

/** The events of one part of a text. `lines` is how many lines the whole text has; null where it is all in this part. */
function* eventsOf(
	found: TextFound,
	context: DocumentContext,
	fragment: (from: number, to: number) => string,
	lines: number | null
): Generator<ReadEvent> {
	for (const report of found.reports) yield { type: 'report', report };
	for (const [at, { question, reports, from, to }] of found.questions.entries()) {
		if (at % toldEvery === 0)
			yield lines === null ? progressAt(context, at, found.questions.length) : progressAt(context, from, lines);
		yield { type: 'question', question, fragment: fragment(from, to), reports };
	}
}

/** Where each line of a text begins; the end of the text behind the last. */
function lineStarts(text: string): { at: (line: number) => number; length: number } {
	const starts = new Column(Float64Array);
	let count = 1;
	for (const found of text.matchAll(lineEnd)) starts.set(count++, found.index + found[0].length);
	return { at: (line) => (line < count ? starts.at(line) : text.length), length: count };
}

/** Reads a file of marked text. */
export const readTextFile: DocumentReader = async function* (context): AsyncGenerator<ReadEvent> {
	const { text, report } = await readPlainText(context.container, context.file);
	if (report) yield { type: 'report', report };
	if (text === null) return;
	const starts = lineStarts(text);
	const fragment = (from: number, to: number) =>
		text
			.slice(starts.at(from - 1), starts.at(to))
			.replace(lineEnd, '\n')
			.replace(/\n$/, '');
	for (const found of readInParts(text, context)) yield* eventsOf(found, context, fragment, starts.length);
};

/** What each part of a text holds; the same, but for the order of reports, as when it is read as a whole. */
export function* readInParts(text: string, context: DocumentContext, sizes = partSizes): Generator<TextFound> {
	const keys = keysOfText(text, context, sizes);
	if (keys.reports.length) yield { title: '', introduction: '', questions: [], reports: keys.reports };
	yield* readParts(text, context, sizes, keys.give);
}

/** The reports on those lines of a part that were cut for their length. */
function cutLines({ lines, until }: TextPart, file: string): Report[] {
	return lines
		.filter((line) => line.text.length >= bounds.cell && line.number < until)
		.map(({ number }) => ({
			rule: 'too-large',
			severity: 'broken',
			message: `Line ${number} of “${file}” is longer than ${bounds.cell.toLocaleString('en')} letters and was cut there.`,
			place: { file, line: number }
		}));
}

/** Reads a text part by part. `give` is told each question in its order, to put what the list of answers says into it. */
function* readParts(
	text: string,
	{ file, format }: DocumentContext,
	sizes: typeof partSizes,
	give: ((question: Keyed) => void) | null
): Generator<TextFound> {
	let reader: TextReader | null = null;
	for (const part of partsOf(text, sizes)) {
		const long = cutLines(part, file);
		if (!reader && part.until === Infinity) {
			const whole = readMarkedText(part.lines, file, format);
			yield { ...whole, reports: [...long, ...whole.reports] };
			return;
		}
		reader ??= new TextReader(file, format);
		const found = reader.part(part.lines, part.until, give ?? (() => {}));
		yield { ...found, reports: [...long, ...found.reports] };
	}
}

/** What begins a line that may head a list of answers, or be one. */
const mayHoldKeys =
	/^[^\w\r\n]{0,12}(?:the +)?(?:answer *keys?|answers|keys?|solutions?|correct answers|answer sheet|marking key)\b|^ {0,12}\|/im;

/**
 * What the lists of answers of a long text say, which mostly stand at its end: the text is read once for them alone, and
 * each of its questions is given its own in a second reading. Nothing where the text is short, or has none.
 */
function keysOfText(
	text: string,
	{ file, format }: DocumentContext,
	sizes: typeof partSizes
): { give: ((question: Keyed) => void) | null; reports: Report[] } {
	const none = { give: null, reports: [] };
	if (!mayHoldKeys.test(text)) return none;
	const questions: Keyed[] = [];
	const answers: ListedAnswer[] = [];
	const reader = new TextReader(file, format);
	for (const { lines, until } of partsOf(text, sizes)) {
		if (!questions.length && until === Infinity) return none;
		reader.part(lines, until, ({ number, numbered }) =>
			questions.push({ number, numbered, listed: null, listedReason: null })
		);
		answers.push(...reader.listed());
	}
	const unknown = giveAnswers(answers, questions);
	let at = 0;
	return {
		give: (question) => {
			const { listed, listedReason } = questions[at++] ?? question;
			Object.assign(question, { listed, listedReason });
		},
		reports: unknown.map((one) => keyWithoutQuestion(file, one.number, one.value, one.line))
	};
}
