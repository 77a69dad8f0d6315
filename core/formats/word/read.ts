import { mediaType } from '../media';
import { markupOf } from '../../kinds';
import type { Report } from '../../reports/report';
import type { DocumentReader, ReadEvent } from '../format';
import { readMarkedText } from '../text/grammar';
import { textEvents } from '../text/read';
import { linesOfWord } from './document';

/** Reads a Word document by the grammar of marked text; numbers and letters come from its lists. */
export const readWord: DocumentReader = async function* (context): AsyncGenerator<ReadEvent> {
	const told: Report[] = [];
	const lines = await linesOfWord(context.container, (report) => told.push(report));
	for (const report of told) yield { type: 'report', report };
	const found = readMarkedText(lines, context.file, context.format);
	for (const { question } of found.questions) {
		const names = markupOf(question).flatMap(({ markup }) =>
			[...markup.matchAll(/src="media:([^"]*)"/g)].map((one) =>
				one[1]!
					.replace(/&quot;/g, '"')
					.replace(/&lt;/g, '<')
					.replace(/&gt;/g, '>')
					.replace(/&amp;/g, '&')
			)
		);
		for (const name of new Set(names))
			question.attachments.push({
				name,
				mediaType: mediaType(name),
				hash: null,
				missing: !context.container.has(name)
			});
	}
	const starts = new Map<number, number>();
	lines.forEach((line, at) => starts.has(line.number) || starts.set(line.number, at));
	const text = (from: number, to: number) =>
		lines
			.slice(starts.get(from) ?? 0, starts.get(to + 1) ?? lines.length)
			.map((line) =>
				line.table
					? line.table.map((row) => row.map((cell) => cell.text).join(' | ')).join('\n')
					: `${line.list?.label ? `${line.list.label}. ` : ''}${line.text}`
			)
			.join('\n');
	if (!found.questions.length)
		yield {
			type: 'report',
			report: {
				rule: 'not-questions',
				severity: 'doubtful',
				message: `“${context.file}” holds no questions that are known here. A question begins with a number, typed or from a list, or stands in front of its options, as “A) bowline”.`,
				place: { file: context.file, line: 1 }
			}
		};
	yield* textEvents(found, context, text);
};
