import { Column } from '../../container/compact';
import { readPlainText } from '../../container/decode';
import { bounds } from '../../model/bounds';
import type { DocumentContext, DocumentReader, ReadEvent } from '../format';
import { NearStems } from '../near';
import { progressAt, toldEvery } from '../progress';
import { readMarkedText, type TextFound } from './grammar';
import { linesOf, type Line } from './lines';

/** What a text gives, as events: its questions, with their lines as source, and what was left out of it. */
export function* textEvents(
	found: TextFound,
	context: DocumentContext,
	fragment: (from: number, to: number) => string
): Generator<ReadEvent> {
	for (const report of found.reports) yield { type: 'report', report };
	const near = new NearStems();
	for (const [at, { question, reports, from, to }] of found.questions.entries()) {
		if (at % toldEvery === 0) yield progressAt(context, at, found.questions.length);
		const place = { file: context.file, line: from };
		const like = near.check(question);
		if (like) reports.push({ rule: 'near-duplicate', severity: 'doubtful', message: like, place });
		yield { type: 'question', question, fragment: fragment(from, to), reports };
	}
}

/** Where each line of a text begins; the end of the text behind the last. */
function lineStarts(text: string): { at: (line: number) => number } {
	const starts = new Column(Float64Array);
	let count = 1;
	for (const found of text.matchAll(/\r\n|\r|\n/g)) starts.set(count++, found.index + found[0].length);
	return { at: (line) => (line < count ? starts.at(line) : text.length) };
}

/** Reads a file of marked text. */
export const readTextFile: DocumentReader = async function* (context): AsyncGenerator<ReadEvent> {
	const { text, report } = await readPlainText(context.container, context.file);
	if (report) yield { type: 'report', report };
	if (text === null) return;
	const lines: Line[] = linesOf(text);
	for (const { number } of lines.filter((line) => line.text.length >= bounds.cell))
		yield {
			type: 'report',
			report: {
				rule: 'too-large',
				severity: 'broken',
				message: `Line ${number} of “${context.file}” is longer than ${bounds.cell.toLocaleString('en')} letters and was cut there.`,
				place: { file: context.file, line: number }
			}
		};
	const starts = lineStarts(text);
	const found = readMarkedText(lines, context.file, context.format);
	yield* textEvents(found, context, (from, to) =>
		text
			.slice(starts.at(from - 1), starts.at(to))
			.replace(/\r\n?/g, '\n')
			.replace(/\n$/, '')
	);
};
