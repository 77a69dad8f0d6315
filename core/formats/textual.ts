import { ContainerError, type Container } from '../container/container';
import { readPlainText, readStart } from '../container/decode';
import type { DocumentReader, FormatName, ReadEvent } from './format';
import type { Report } from '../reports/report';
import { fencedFile } from './fenced';
import { readArchive } from './own/archive';
import { isOwnJson, readJson } from './own/json';
import { readJsonByRecipe } from './recipe/read-json';
import { readXmlByRecipe } from './recipe/read-xml';
import type { Recipe } from './recipe/recipe';
import { delimiterOf, readCsv, rowsOfText } from './table/csv';
import { guessHeader } from './table/headings';
import { readXlsx } from './table/xlsx';
import { readTextFile } from './text/read';
import { readWord } from './word/read';

/** A reader with the format that it reads. */
export interface Known {
	format: FormatName;
	reader: DocumentReader;
}

/** The reader of a package that is one document by itself, by the file that gives it away; null for any other package. */
export function wholeFormat(container: Container): (Known & { file: string }) | null {
	if (!container.packaged) return null;
	for (const [path, format, reader] of wholes) {
		const file = container.find(path);
		if (file) return { format, reader, file };
	}
	// the part that holds the text may have another name
	const types = container.find('[Content_Types].xml') !== null;
	const file = types ? [...container.files].find(({ path }) => /^word\/document\d*\.xml$/i.test(path)) : undefined;
	if (file) return { format: 'docx', reader: readWord, file: file.path };
	return null;
}

const wholes: [string, FormatName, DocumentReader][] = [
	['questions.jsonl', 'archive', readArchive],
	['word/document.xml', 'docx', readWord],
	['xl/workbook.xml', 'xlsx', readXlsx]
];

const headerLooked = 20_000;

/**
 * The reader of a file that is no document of a standard: by its ending and its first signs; `root` is the name of its
 * root element where it begins like XML.
 */
export async function textualFormat(
	container: Container,
	file: string,
	root: string | null,
	recipe?: Recipe
): Promise<Known | null> {
	const ending = file.split('.').pop()!.toLowerCase();
	let start: string;
	try {
		start = (await readStart(container, file, headerLooked)) ?? '';
	} catch (error) {
		if (!(error instanceof ContainerError)) throw error;
		return null;
	}
	const first = start.trimStart().replace(/^\ufeff/, '')[0] ?? '';
	if (first === '<' && root !== null)
		return recipe || ending === 'xml' ? { format: 'recipe', reader: readXmlByRecipe } : null;
	if (isOwnJson(start)) return { format: 'json', reader: readJson };
	if (!container.packaged && /^(?:```|~~~)/m.test(start)) {
		const fenced = await fencedFile(
			container,
			file,
			(block, language) => looksLikeJson(block) || isTable(block, language)
		);
		if (fenced) return readFenced(fenced, await textualFormat(fenced.container, file, root, recipe));
	}
	if (ending === 'json' || ending === 'jsonl' || looksLikeJson(start))
		return { format: 'recipe', reader: readJsonByRecipe };
	if (['csv', 'tsv', 'tab'].includes(ending) || recipe?.columns) return { format: 'csv', reader: readCsv };
	// a table with a rule of dashes under its headings stands in a text
	if (/^\s*\|(?:\s*:?-{2,}:?\s*\|)+\s*$/m.test(start)) return { format: 'text', reader: readText };
	if (isTable(start.slice(0, start.lastIndexOf('\n') + 1), '')) return { format: 'csv', reader: readCsv };
	return { format: 'text', reader: readText };
}

const looksLikeJson = (text: string) => /^\s*[[{]\s*["{[\]}]/.test(text);

/** Whether a text is a table of questions, by the first of its rows that have more than two cells. */
function isTable(text: string, language: string): boolean {
	if (/^[ct]sv$/.test(language)) return true;
	const rows = rowsOfText(text, delimiterOf(text)).filter((row) => row.cells.length > 2);
	return rows.length > 1 && guessHeader(rows.slice(0, 3)) !== null;
}

/** The reader of what stands in a block of code of a text. */
function readFenced(
	{ container, report }: { container: Container; report: Report | null },
	known: Known | null
): Known | null {
	return (
		known && {
			format: known.format,
			reader: async function* (context) {
				if (report) yield { type: 'report', report };
				yield* known.reader({ ...context, container });
			}
		}
	);
}

/** Reads marked text, and says so where there is not a question in it. */
const readText: DocumentReader = async function* (context): AsyncGenerator<ReadEvent> {
	let questions = 0;
	let reports = 0;
	for await (const event of readTextFile(context)) {
		if (event.type === 'question') questions += 1;
		if (event.type === 'report' && event.report.severity === 'broken') reports += 1;
		yield event;
	}
	if (questions || reports) return;
	const { text } = await readPlainText(context.container, context.file);
	const words = (text ?? '').replace(/\s+/g, ' ').trim();
	yield {
		type: 'report',
		report: {
			rule: 'not-questions',
			severity: 'doubtful',
			message: words
				? `“${context.file}” holds no questions that are known here. It begins: “${words.slice(0, 60)}”. A question begins with a number, as in “1. Which knot …”, or stands in front of its options, as “A) bowline”.`
				: `“${context.file}” is empty.`,
			place: { file: context.file, line: 1 }
		}
	};
};
