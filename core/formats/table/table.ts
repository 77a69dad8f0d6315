import type { ReaderRule } from '../../reports/rules';
import { cellOf, type Cell, type Row } from './row';
import { ownValue } from '../../model/lookup';
import { markupOfText } from '../../markup/clean';
import { plainText } from '../../markup/text';
import type { Kind, Question } from '../../kinds';
import type { Markup } from '../../model/question';
import type { Report } from '../../reports/report';
import { assemble, emptyDraft, kindOfWord, secondKey, splitKeys, truthOf, type Draft, type KeyForm } from '../assemble';
import { parseNumber } from '../../numbers/numbers';
import { rightTail } from '../right-mark';
import type { TableRecipe } from '../recipe/recipe';
import { byLabels, categoryOf, flagOf, isFlag, listIn, listOf, widthOf } from './cells';
import { headings, plainHeading } from './headings';
import { joinOptionRows } from './option-rows';

/** The cells of a row that hold its options; `place` gives the column of a heading. */
export function optionCells(row: Row, recipe: TableRecipe, place: Map<string, number>): Cell[] {
	const { options } = recipe.columns ?? {};
	if (options === undefined) return [];
	if (typeof options === 'string') {
		const text = row.cells[place.get(options) ?? -1]?.text;
		if (!text) return [];
		const listed = listIn(text);
		if (listed) return listed.map((part) => cellOf(part));
		const parts = text.split(recipe.optionSeparator ?? '|');
		return (parts.length > 1 ? parts : byLabels(text)).map((part) => cellOf(part));
	}
	return options.map((name) => row.cells[place.get(name) ?? -1] ?? cellOf(''));
}

const leadingStar = /^\*\s*(?=\S)/;

/** Options of which some are marked as right by a star or a tick, without the mark; none where no mark tells them apart. */
function markedRight(cells: Cell[]): { markup: Markup; right: boolean }[] {
	const marked = cells.map((one) => leadingStar.test(one.text) || rightTail.test(one.text));
	if (cells.length < 2 || !marked.includes(true) || !marked.includes(false)) return [];
	return cells.map((one, at) => ({
		markup: marked[at] ? cellOf(one.text.replace(leadingStar, '').replace(rightTail, '')).markup : one.markup,
		right: marked[at]!
	}));
}

const defaultForms: KeyForm[] = ['letter', 'index', 'text', 'truth', 'answer'];
const defaultSeparators = [',', ';', '|', ' / ', ' and ', '&'];

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
		for (const one of Array.isArray(name) ? name : [name as string])
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

interface RowContext {
	recipe: TableRecipe;
	indexOf: (name: string | undefined) => number | undefined;
	listed: Map<string, number>;
	where: { file: string; format: string; label: string };
	headed: number;
	/** Credits are written in percent. */
	percent: boolean;
	/** Credits only say whether an option is right. */
	flags: boolean;
}

/** The options with the credit and the feedback that stand in columns of their own, in the same order as the options. */
function optionsOf(
	cells: Cell[],
	last: number,
	columns: NonNullable<TableRecipe['columns']>,
	cell: (name: string | undefined) => Cell | undefined,
	{ keyed, percent, flags }: { keyed: boolean; percent: boolean; flags: boolean }
): Draft['options'] {
	const marks = keyed || columns.optionCredits ? [] : markedRight(cells.slice(0, last));
	return cells.slice(0, last).map((one, at) => {
		const text = cell(columns.optionCredits?.[at])?.text ?? '';
		const given = flags ? null : parseNumber(text.replace(/\s*%$/, ''));
		const feedback = cell(columns.optionFeedbacks?.[at])?.markup;
		return {
			text: marks[at]?.markup ?? one.markup,
			credit: given === null ? null : percent ? given / 100 : given,
			right: flags && columns.optionCredits ? flagOf(text) : (marks[at]?.right ?? null),
			...(feedback ? { feedback } : {})
		};
	});
}

/** Whether an answer is several pairs, where nothing says what kind the question is: arrows, or signs of equality under a stem that asks to match. */
function saysPairs(key: string, stem: string): boolean {
	const parts = partsOf(key, 'matching');
	const all = (sign: RegExp) => parts.length > 1 && parts.every((part) => sign.test(part));
	return all(/\S\s*(?:=>|->|→)\s*\S/) || (all(/\S\s*=\s*\S/) && /\b(?:match|pair|connect|link)\b/i.test(stem));
}

/** What stands in the cell of an answer of things to match or to put in order, in its parts; none for other kinds. */
function partsOf(key: string, kind: Kind | null): string[] {
	if (kind !== 'matching' && kind !== 'ordering') return [];
	const signs = kind === 'ordering' ? [/\s*(?:>|→|->)\s*/, /\s*[\n;|]\s*/, /\s*,\s*/] : [/\s*[\n;|]\s*/, /\s*,\s*/];
	return signs.map((sign) => key.split(sign).filter(Boolean)).find((parts) => parts.length > 1) ?? [];
}

function readRow(
	row: Row,
	{ recipe, indexOf, listed, where, headed, ...credits }: RowContext
): RowFound | { report: Report } {
	const columns = recipe.columns ?? {};
	const cell = (name: string | undefined): Cell | undefined => {
		const at = indexOf(name);
		return at === undefined ? undefined : row.cells[at];
	};
	const text = (name: string | undefined) => cell(name)?.text ?? '';
	const draft = emptyDraft();
	draft.title = text(columns.title);
	draft.stem = cell(columns.stem)?.markup ?? '';
	draft.kind = text(columns.kind) || null;
	draft.points = text(columns.points) || null;
	const categories = typeof columns.category === 'string' ? [columns.category] : (columns.category ?? []);
	draft.category = categories.flatMap((name) => categoryOf(text(name), recipe.categorySeparators ?? []));
	draft.tags = listOf(text(columns.tags));
	if (text(columns.difficulty)) draft.difficulty = text(columns.difficulty);
	if (text(columns.hint)) draft.hints = [cell(columns.hint)!.markup];
	for (const [field, part] of [
		['generalFeedback', 'general'],
		['correctFeedback', 'correct'],
		['incorrectFeedback', 'incorrect']
	] as const)
		if (text(columns[field])) draft.feedback[part] = cell(columns[field])!.markup;
	const shuffle = text(columns.shuffle);
	if (shuffle) draft.shuffle = ownValue(recipe.shuffleWords, shuffle) ?? truthOf(shuffle, true);
	const tolerance = Number(text(columns.tolerance).replace(',', '.'));
	if (text(columns.tolerance) && Number.isFinite(tolerance)) draft.tolerance = tolerance;
	const language = text(columns.language);
	if (language) draft.language = language;
	const cells = optionCells(row, recipe, listed);
	const names = Array.isArray(columns.options) ? columns.options.map(plainHeading) : [];
	const kindNamed = draft.kind ? kindOfWord(ownValue(recipe.kinds, draft.kind) ?? draft.kind) : null;
	let last = cells.length;
	while (last > 0 && !cells[last - 1]!.text) last -= 1;
	const [keyCell, ...otherKeys] = [columns.key ?? []].flat().flatMap((name) => (text(name) ? [cell(name)!] : []));
	const keyOf = (given: string) => (listIn(given) ?? [given]).join('; ');
	const key = keyOf(keyCell?.text ?? '');
	// without options of their own, what is to be matched or put in order stands in the cell of the answer
	const kindMeant =
		kindNamed ?? (draft.kind === null && !last && saysPairs(key, plainText(draft.stem)) ? 'matching' : null);
	const parts = last ? cells.slice(0, last).map((one) => one.text) : partsOf(key, kindMeant);
	// a colon parts them too, but only where nothing clearer does: "12:00 = noon"
	const pairs = parts.map((one) => /^(.+?)\s*(?:={1,2}>?|->|→)\s*(.+)$/.exec(one) ?? /^(.+?)\s*:\s+(.+)$/.exec(one));
	if (kindMeant === 'matching' && pairs.length && pairs.every(Boolean))
		draft.pairs = pairs.map((pair): [Markup, Markup] => [markupOfText(pair![1]!), markupOfText(pair![2]!)]);
	else if (kindNamed === 'ordering')
		draft.order = last ? cells.slice(0, last).map((one) => one.markup) : parts.map(markupOfText);
	else if (kindNamed === 'short-answer' || kindNamed === 'numeric')
		draft.keys = cells
			.slice(0, last)
			.map((one) => one.text)
			.filter(Boolean);
	else draft.options = optionsOf(cells, last, columns, cell, { ...credits, keyed: key !== '' });
	const lines = key && !last && kindNamed === null ? markedRight(key.split('\n').map(cellOf)) : [];
	if (lines.length) draft.options = lines.map((one) => ({ text: one.markup, credit: null, right: one.right }));
	const marked = (columns.truth ?? []).map((name) => text(name) !== '' && flagOf(text(name)));
	if (marked.length === 2) {
		draft.kind ??= 'true-false';
		if (marked[0] !== marked[1]) draft.truth = marked[0]!;
	}
	const wrong = (columns.wrong ?? []).map((name) => cell(name)).filter((one) => one?.text);
	if (wrong.length && key && !draft.options.length)
		draft.options = [keyCell!, ...wrong.map((one) => one!)].map((one, at) => ({
			text: one.markup,
			credit: null,
			right: at === 0
		}));
	const forms = recipe.keyForms ?? defaultForms;
	let disagreeing: string | undefined;
	if (columns.key !== undefined && !draft.pairs.length && !draft.order.length && !wrong.length && !lines.length) {
		const separators = recipe.keySeparators ?? (draft.options.length ? defaultSeparators : [';', ' / ', '|', '\n']);
		// a key may name the column that holds the right option
		const named = (one: string) => {
			const column = names.indexOf(plainHeading(one));
			return one.length < 2 || column < 0 || column >= last || cells.some((cell) => cell.text === one)
				? one
				: cells[column]!.text;
		};
		const split = (given: string) => splitKeys(keyOf(given), separators, draft.options, forms).map(named);
		const given = split(key);
		for (const one of otherKeys) {
			const says = secondKey(given, split(one.text), draft.options, forms);
			if (says === 'other') disagreeing = one.text;
			else if (says === 'reason')
				draft.feedback.general = [draft.feedback.general, one.markup].filter(Boolean).join('<br/>');
		}
		draft.keys = disagreeing === undefined ? [...given, ...(draft.keys ?? [])] : [];
	}
	const { question, reports } = assemble(draft, {
		keyForms: forms,
		...(recipe.kinds ? { kindNames: recipe.kinds } : {}),
		// a mere number counts the rows, and would be the same in every table
		identifier: /^\d*$/.test(text(columns.identifier)) ? '' : text(columns.identifier),
		file: where.file,
		line: row.number,
		endLine: row.endNumber ?? row.number,
		format: where.format
	});
	const position = { file: where.file, line: row.number };
	const odd = (rule: ReaderRule, severity: Report['severity'], message: string) =>
		reports.push({ rule, severity, message, place: position });
	if (disagreeing !== undefined)
		odd(
			'contradictory-key',
			'broken',
			`Row ${row.number} gives its answer twice, and not the same: “${keyCell!.text}” and “${disagreeing}”. Neither was taken; ${draft.options.length ? 'mark the right one' : 'write the one that is right'}.`
		);
	if (marked.length === 2 && marked[0] && marked[1])
		odd(
			'contradictory-key',
			'broken',
			`Row ${row.number} is marked as true and as false. Neither was taken; mark the right one.`
		);
	if (row.cells.length < headed)
		odd(
			'too-few-columns',
			'doubtful',
			`Row ${row.number} ends after ${row.cells.length} of ${headed} columns. What is missing was left empty.`
		);
	if (row.cells.slice(headed).some((one) => one.text))
		odd(
			'too-many-columns',
			'doubtful',
			`Row ${row.number} has more columns than there are headings: “${row.cells
				.slice(headed)
				.map((one) => one.text)
				.filter(Boolean)
				.join('”, “')}” was left out.`
		);
	if (row.hidden)
		odd(
			'hidden-row',
			'doubtful',
			`Row ${row.number} is hidden in the sheet. It was read; leave it out if it is not meant.`
		);
	for (const one of row.cells) if (one.odd && !one.merged) odd(one.odd.rule, 'doubtful', one.odd.message);
	if (row.odd) odd(row.odd.rule, row.odd.severity, row.odd.message);
	const fragment = row.raw ?? row.cells.map((one) => one.text).join(' | ');
	if (row.raw !== undefined)
		return {
			question: {
				...question,
				kind: 'unreadable',
				reason: row.odd?.message ?? 'The row is damaged.',
				fragment: row.raw
			} as Question,
			reports: [],
			fragment
		};
	return { question, reports, fragment };
}
