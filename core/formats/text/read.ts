import { readPlainText } from '../../container/decode';
import type { DocumentContext, DocumentReader, ReadEvent } from '../format';
import { NearStems } from '../near';
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
	for (const { question, reports, from, to } of found.questions) {
		const place = { file: context.file, line: from };
		const like = near.check(question);
		if (like) reports.push({ rule: 'near-duplicate', severity: 'doubtful', message: like, place });
		yield { type: 'question', question, fragment: fragment(from, to), reports };
	}
}

/** Reads a file of marked text. */
export const readTextFile: DocumentReader = async function* (context): AsyncGenerator<ReadEvent> {
	const { text, report } = await readPlainText(context.container, context.file);
	if (report) yield { type: 'report', report };
	if (text === null) return;
	const lines: Line[] = linesOf(text);
	const raw = text.split(/\r\n|\r|\n/);
	const found = readMarkedText(lines, context.file, context.format);
	yield* textEvents(found, context, (from, to) => raw.slice(from - 1, to).join('\n'));
};
