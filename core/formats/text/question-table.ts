import { beginning } from '../../markup/text';
import type { Question } from '../../kinds';
import type { Report } from '../../reports/report';
import { guessTable } from '../table/guess';
import { guessHeader } from '../table/headings';
import { readRows } from '../table/table';
import type { Row } from '../table/row';
import type { Line } from './lines';

/** The questions of a table within a text, one a row. */
export interface TableFound {
	questions: { question: Question; reports: Report[] }[];
	/** Reports on the table as a whole. */
	reports: Report[];
}

/**
 * Reads a table whose headings say that each row is a question: one names the question, another its key or its options.
 * Null for any other table. `line` is the line of the text at which it stands; its rows follow it in a text of lines.
 */
export function readQuestionTable(
	{ table, number }: Line,
	category: string[],
	file: string,
	format: string
): TableFound | null {
	const rows: Row[] = (table ?? []).map((cells, at) => ({
		number: at + 1,
		cells: cells.map((cell) => ({ ...cell })),
		// a single cell across the columns heads what stands below it
		...(at > 0 && cells.length === 1 && (table?.[0]?.length ?? 0) > 2 ? { spans: true } : {})
	}));
	const header = rows.length > 1 ? guessHeader(rows.slice(0, 2)) : null;
	if (!header || !(header.columns.key || header.columns.options)) return null;
	const recipe = guessTable(rows);
	if (!recipe) return null;
	const found: TableFound = { questions: [], reports: [] };
	const here = (report: Report): Report => ({ ...report, place: { file, line: number } });
	const label = `The table with “${beginning(rows[0]!.cells.map((cell) => cell.text).join(', '), 60)}”`;
	for (const line of readRows(rows, recipe, { file, format, label })) {
		if ('report' in line) {
			found.reports.push(here(line.report));
			continue;
		}
		const { question, reports, section } = line;
		if (section != null && question.category.length === 1) question.category = [...category, ...question.category];
		else if (!question.category.length) question.category = category;
		if (question.source) question.source = { ...question.source, line: number, endLine: number };
		found.questions.push({ question, reports: reports.map(here) });
	}
	return found.questions.length ? found : null;
}
