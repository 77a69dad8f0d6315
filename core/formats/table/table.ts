import type { Question } from '../../kinds';
import { parseNumber } from '../../numbers/numbers';
import type { Report } from '../../reports/report';
import { assemble } from '../drafts/assemble';
import type { TableRecipe } from '../recipe/recipe';
import { isFlag, widthOf } from './cells';
import { headings, plainHeading } from './headings';
import { joinOptionRows } from './option-rows';
import type { Row } from './row';
import { defaultForms, RowReading, type RowContext } from './row-draft';
import { rowReports } from './row-reports';

/** What one row of a table gives. */
export interface RowFound {
	question: Question;
	reports: Report[];
	fragment: string;
}

/** Reads the rows of a table by a recipe; `label` names the table in messages where there are several. */
export function* readRows(
	given: Row[],
	wanted: TableRecipe,
	where: { file: string; format: string; label: string }
): Generator<RowFound | { report: Report }> {
	const { rows, recipe } = joinOptionRows(given, wanted);
	const headerRow = recipe.headerRow ?? 1;
	const header = headerRow ? (rows.find((row) => row.number === headerRow) ?? null) : null;
	const width = widthOf(rows);
	const names = headings(header, width);
	const place = new Map(names.map((name, at) => [name, at]));
	const folded = new Map(names.map((name, at) => [plainHeading(name), at]));
	const indexOf = (name: string | undefined) =>
		name === undefined ? undefined : (place.get(name) ?? folded.get(plainHeading(name)));
	const columns = recipe.columns ?? {};
	const listed = new Map<string, number>();
	for (const name of typeof columns.options === 'string' ? [columns.options] : (columns.options ?? [])) {
		const at = indexOf(name);
		if (at !== undefined) listed.set(name, at);
	}
	for (const [field, name] of Object.entries(columns))
		for (const one of (Array.isArray(name) ? name : [name]) as string[])
			if (one && indexOf(one) === undefined)
				yield {
					report: {
						rule: 'missing-column',
						severity: 'doubtful',
						message: `${where.label} has no column “${one}”, which the recipe takes for ${field}. It has: ${names.join(', ')}.`,
						place: { file: where.file, line: headerRow || 1 }
					}
				};
	const meant = new Set(
		Object.values(columns)
			.flat()
			.map((name) => indexOf(name as string))
	);
	const unused = header
		? names.filter(
				(_, at) =>
					!meant.has(at) &&
					header.cells[at]?.text &&
					!countsRows(rows, at, headerRow) &&
					rows.some((row) => row.number > headerRow && row.cells[at]?.text && !row.cells[at].merged)
			)
		: [];
	if (unused.length)
		yield {
			report: {
				rule: 'unused-column',
				severity: 'doubtful',
				message: `${where.label}: what stands under ${unused.map((name) => `“${name}”`).join(', ')} was left out, since nothing says what it means. Say it with a recipe.`,
				place: { file: where.file, line: headerRow }
			}
		};
	const credits = rows.flatMap((row) =>
		row.number > headerRow
			? (columns.optionCredits ?? []).map((name) => row.cells[indexOf(name) ?? -1]?.text ?? '')
			: []
	);
	const percent = credits.some((text) => text.endsWith('%') || Math.abs(parseNumber(text) ?? 0) > 1);
	const flags = credits.every(isFlag);
	const headed = header ? header.cells.findLastIndex((cell) => cell.text) + 1 : width;
	for (const row of rows) {
		if (row.number <= headerRow) continue;
		if (!row.cells.some((cell) => cell.text && !cell.merged) && !row.raw) continue;
		const read = readRow(row, { recipe, indexOf, listed, where, headed, percent, flags });
		yield read;
	}
}

/** Whether a column only counts its rows. */
function countsRows(rows: Row[], at: number, headerRow: number): boolean {
	const texts = rows.flatMap((row) => (row.number > headerRow && row.cells[at]?.text) || []);
	const first = Number(texts[0]);
	return texts.length > 1 && texts.every((text, place) => Number(text) === first + place);
}

function readRow(row: Row, context: RowContext): RowFound {
	const { recipe, where, headed } = context;
	const read = new RowReading(row, context).read();
	const { question, reports } = assemble(read.draft, {
		keyForms: recipe.keyForms ?? defaultForms,
		...(recipe.kinds ? { kindNames: recipe.kinds } : {}),
		identifier: read.identifier,
		file: where.file,
		line: row.number,
		endLine: row.endNumber ?? row.number,
		format: where.format
	});
	const fragment = row.raw ?? row.cells.map((cell) => cell.text).join(' | ');
	if (row.raw === undefined)
		return { question, reports: [...reports, ...rowReports(row, read, where.file, headed)], fragment };
	const reason = row.odd?.message ?? 'The row is damaged.';
	return {
		question: { ...question, kind: 'unreadable', reason, fragment: row.raw },
		reports: [],
		fragment
	};
}
