import type { Question } from '../../kinds';
import { parseNumber } from '../../numbers/numbers';
import type { Report } from '../../reports/report';
import { assemble } from '../drafts/assemble';
import type { TableRecipe } from '../recipe/recipe';
import { isFlag, widthOf } from './cells';
import { headings, plainHeading } from './headings';
import { joinOptionRows } from './option-rows';
import type { Row } from './row';
import { defaultForms, optionCells, RowReading, someStandOut, type RowContext } from './row-draft';
import { rowReports } from './row-reports';

/** What one row of a table gives. */
export interface RowFound {
	question: Question;
	reports: Report[];
	fragment: string;
	/** What heads the rows that it stands in, in a row of its own across the table. */
	section?: string | null;
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
	for (const report of missingColumns(columns, indexOf, names, { ...where, line: headerRow || 1 })) yield { report };
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
	const byStress = toldByStress(rows, recipe, listed, headerRow);
	let section: string | null = null;
	const answers = new Set([columns.key ?? [], columns.options ?? []].flat().map(indexOf));
	const last = rows.findLast((row) => row.cells.some((cell) => cell.text && !cell.merged));
	for (const row of rows) {
		if (row.number <= headerRow) continue;
		if (!row.cells.some((cell) => cell.text && !cell.merged) && !row.raw) continue;
		if (row.spans) {
			section = row.cells.find((cell) => cell.text)!.text;
			continue;
		}
		const left = uncalculated(row, meant, where.file) ?? (row === last ? sumOf(row, answers, where.file) : null);
		if (left) {
			yield { report: left };
			continue;
		}
		const found = readRow(row, { recipe, indexOf, listed, where, headed, percent, flags, byStress });
		if (section !== null && !found.question.category.length) found.question.category = [section];
		yield { ...found, section };
	}
}

const total =
	/^(?:grand\s+)?(?:totals?|sums?|count|average|gesamt|summe|anzahl|insgesamt|total\s+g[ée]n[ée]ral|somme|totale|totaal|suma)\b\s*:?$/i;

/** Says that a row cannot be read, since what it holds was never calculated. */
function uncalculated(row: Row, meant: Set<number | undefined>, file: string): Report | null {
	const formulas = row.cells.filter((cell, at) => cell.isUncalculated && meant.has(at));
	if (!formulas.length) return null;
	return {
		rule: 'formula-cell',
		severity: 'broken',
		message: `Row ${row.number} was not read. ${formulas.map((cell) => cell.odd?.message).join(' ')}`,
		place: { file, line: row.number }
	};
}

/** Says that a row is no question, since it sums up those above it; `answers` are the columns of options and keys. */
function sumOf(row: Row, answers: Set<number | undefined>, file: string): Report | null {
	const filled = row.cells.filter((cell) => cell.text && !cell.merged);
	const isSum = total.test(filled[0]?.text ?? '') && filled.length < 3;
	if (!isSum || !answers.size || row.cells.some((cell, at) => cell.text && answers.has(at))) return null;
	return {
		rule: 'left-out-text',
		severity: 'untidy',
		message: `Row ${row.number} sums the others up, and was left out: “${filled.map(({ text }) => text).join(' ')}”.`,
		place: { file, line: row.number }
	};
}

/**
 * Whether what stands out among the options says which is right: nothing else does, some stand out in each row that has
 * any, and not always those of one column, which would be the looks of the column.
 */
function toldByStress(rows: Row[], recipe: TableRecipe, listed: Map<string, number>, headerRow: number): boolean {
	const { key, optionCredits, wrong } = recipe.columns ?? {};
	if (key ?? optionCredits ?? wrong) return false;
	const places = rows
		.filter(({ number }) => number > headerRow)
		.map((row) => optionCells(row, recipe, listed))
		.filter(someStandOut)
		.map((cells) => cells.findIndex((cell) => cell.stressed));
	return places.length === 1 || new Set(places).size > 1;
}

/** Says which columns a recipe names that are not there. */
function* missingColumns(
	columns: NonNullable<TableRecipe['columns']>,
	indexOf: (name: string) => number | undefined,
	names: string[],
	{ file, label, line }: { file: string; label: string; line: number }
): Generator<Report> {
	for (const [field, named] of Object.entries(columns))
		for (const name of [named].flat() as string[])
			if (name && indexOf(name) === undefined)
				yield {
					rule: 'missing-column',
					severity: 'doubtful',
					message: `${label} has no column “${name}”, which the recipe takes for ${field}. It has: ${names.join(', ')}.`,
					place: { file, line }
				};
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
