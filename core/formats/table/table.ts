import { markupOfText } from '../../markup/clean';
import { fold } from '../../markup/text';
import type { Markup, Question } from '../../model/question';
import type { Report } from '../../reports/report';
import { escapeText } from '../../xml/serialise';
import { assemble, emptyDraft, kindOfWord, splitKeys, truthOf, type KeyForm } from '../assemble';
import type { Columns, TableRecipe } from '../recipe/recipe';
import { categoryOf, listOf } from './cells';

/** One cell: its text, the same as rich text, and what was odd about it. */
export interface Cell {
	text: string;
	markup: Markup;
	odd?: { rule: string; message: string };
	/** It is part of a merged area, and repeats what the first cell of it says. */
	merged?: boolean;
}

/** One row, with its number in the file from 1. */
export interface Row {
	cells: Cell[];
	number: number;
	endNumber?: number;
	hidden?: boolean;
	odd?: { rule: string; severity: Report['severity']; message: string };
	/** Without anything that could be split: a row that is damaged. */
	raw?: string;
}

/** A cell of plain text. */
export function cellOf(given: string): Cell {
	// an apostrophe in front keeps a spreadsheet from taking a text for a formula
	const text = given.replace(/^'(?=[=+\-@])/, '');
	return { text: text.trim(), markup: textCell(text) };
}

/** Plain text with its lines as rich text. */
function textCell(text: string): Markup {
	const lines = text.trim().split(/\r\n|\r|\n/);
	return lines.length > 1 ? lines.map(escapeText).join('<br/>') : markupOfText(text.trim());
}

const fields: [keyof Columns, RegExp][] = [
	[
		'correctFeedback',
		/^(?:correct feedback|feedback (?:if )?(?:correct|right)|(?:right|correct) (?:answer )?(?:feedback|comment))$/
	],
	[
		'incorrectFeedback',
		/^(?:(?:incorrect|wrong) (?:answer )?(?:feedback|comment)|feedback (?:if )?(?:incorrect|wrong))$/
	],
	['generalFeedback', /^(?:(?:general )?feedback|explanation|rationale|comments?|remarks?|notes?|why|reason)$/],
	['kind', /^(?:(?:question |item )?(?:type|kind|format)|style)$/],
	[
		'key',
		/^(?:(?:answer )?key|answers?|correct(?: (?:answers?|options?|choices?|responses?|keys?))?|right(?: answers?| options?)?|solutions?|accepted(?: answers?)?|correct answer\(s\)|model answer)$/
	],
	['points', /^(?:points?|marks?|scores?|worth|weight|pts|max(?:imum)? (?:points?|marks?|score))$/],
	['category', /^(?:category|categories|topics?|chapter|section|subject|units?|module|area|bank|folder|theme)$/],
	['tags', /^(?:tags?|keywords?|labels?)$/],
	['shuffle', /^(?:shuffled?|mix|mixed|random(?:ise|ize)?)$/],
	['difficulty', /^(?:difficulty|level|hardness)$/],
	['hint', /^(?:hints?|tips?)$/],
	['tolerance', /^(?:tolerance|margin|plus or minus|\+\/-|error allowed)$/],
	['language', /^(?:language|lang)$/],
	['title', /^(?:(?:question |item )?(?:title|name|heading|caption)|short title)$/],
	[
		'stem',
		/^(?:(?:the )?(?:question|item)(?: (?:text|stem|body|wording))?|stem|prompt|text|ask|body|problem|statement|wording)$/
	]
];
const optionHeading =
	/^(?:(?:options?|choices?|answers?|alternatives?|opt|distractors?|responses?|ans)\s*[-_.:#]?\s*(?:\d{1,2}|[a-j])|[a-j]|(?:\d)(?:st|nd|rd|th) (?:option|choice|answer))$/;
const optionsHeading = /^(?:options?|choices?|alternatives?|answer options|answer choices|possible answers)$/;

const plainHeading = (text: string) =>
	fold(text)
		.toLowerCase()
		.replace(/[*:?]+$/, '')
		.replace(/[_-]+/g, ' ')
		.trim();

/** How the columns of a header are named, each name once. */
export function headings(row: Row | null, width: number): string[] {
	const seen = new Set<string>();
	return Array.from({ length: width }, (_, at) => {
		let name = fold(row?.cells[at]?.text ?? '') || `Column ${at + 1}`;
		if (seen.has(name)) name = `${name} (${at + 1})`;
		seen.add(name);
		return name;
	});
}

/** What the headings of a table mean, as far as they can be guessed. */
export function guessColumns(names: string[]): Columns {
	const columns: Columns = {};
	const options: string[] = [];
	const taken = new Set<string>();
	const plain = names.map(plainHeading);
	const letters = plain.filter((name) => optionHeading.test(name));
	plain.forEach((name, at) => {
		if (letters.length > 1 && optionHeading.test(name)) {
			options.push(names[at]!);
			taken.add(names[at]!);
		}
	});
	for (const [field, pattern] of fields) {
		const at = plain.findIndex((name, place) => !taken.has(names[place]!) && pattern.test(name));
		if (at < 0) continue;
		(columns as Record<string, string>)[field] = names[at]!;
		taken.add(names[at]!);
	}
	if (options.length) columns.options = options;
	else {
		const at = plain.findIndex((name, place) => !taken.has(names[place]!) && optionsHeading.test(name));
		if (at >= 0) columns.options = names[at]!;
	}
	if (!columns.stem && columns.title && !plain.some((name) => /title|name/.test(name))) {
		columns.stem = columns.title;
		delete columns.title;
	}
	return columns;
}

const mostRowsLooked = 20;

/** The row of the headings, from 1, and what they mean; null where no row reads like headings. */
export function guessHeader(rows: Row[]): { headerRow: number; columns: Columns } | null {
	let best: { headerRow: number; columns: Columns; score: number } | null = null;
	for (const row of rows.slice(0, mostRowsLooked)) {
		const columns = guessColumns(headings(row, row.cells.length));
		const score = Object.keys(columns).length;
		if (columns.stem && score > 1 && (!best || score > best.score)) best = { headerRow: row.number, columns, score };
	}
	return best;
}

/** What columns without headings mean, by what stands in them: the longest text, short ones behind it, a key that names one of them. */
function guessByContent(rows: Row[]): Columns | null {
	const some = rows.filter((row) => row.cells.some((cell) => cell.text)).slice(0, 50);
	const width = Math.max(0, ...some.map((row) => row.cells.length));
	if (width < 2 || !some.length) return null;
	const length = (at: number) => some.reduce((sum, row) => sum + (row.cells[at]?.text.length ?? 0), 0) / some.length;
	const stem = Array.from({ length: width }, (_, at) => at).sort((a, b) => length(b) - length(a))[0]!;
	const name = (at: number) => `Column ${at + 1}`;
	const keyed = (at: number) =>
		some.filter((row) => {
			const text = row.cells[at]?.text ?? '';
			const others = row.cells
				.filter((_, place) => place !== at && place > stem)
				.map((cell) => cell.text.toLowerCase());
			return /^[A-Ha-h]([,;]\s*[A-Ha-h])*$/.test(text) || (text !== '' && others.includes(text.toLowerCase()));
		}).length / some.length;
	const key = Array.from({ length: width }, (_, at) => at).find((at) => at > stem && keyed(at) > 0.6);
	if (key === undefined) return width === 2 && stem === 0 ? { stem: name(0), key: name(1) } : null;
	return {
		stem: name(stem),
		options: Array.from({ length: key - stem - 1 }, (_, at) => name(stem + 1 + at)),
		key: name(key)
	};
}

/** A recipe for a table, guessed from its rows: headings, what they mean, and how keys are written. Null where it holds no questions. */
export function guessTable(rows: Row[]): TableRecipe | null {
	const header = guessHeader(rows);
	const columns = header?.columns ?? guessByContent(rows);
	if (!columns?.stem) return null;
	const headerRow = header?.headerRow ?? 0;
	const recipe: TableRecipe = { headerRow, columns, categorySeparators: ['>', '/', '::', '»', '\\'] };
	const body = rows.filter((row) => row.number > headerRow);
	const names = headings(
		rows.find((row) => row.number === headerRow) ?? null,
		Math.max(...rows.map((row) => row.cells.length))
	);
	const place = new Map(names.map((name, at) => [name, at]));
	if (typeof columns.options === 'string') {
		const at = place.get(columns.options)!;
		const texts = body.map((row) => row.cells[at]?.text ?? '').filter(Boolean);
		const counts = ['|', '\n', ';', '/', ','].map((sign) => ({
			sign,
			count: texts.filter((text) => text.includes(sign)).length
		}));
		recipe.optionSeparator = counts.reduce((a, b) => (b.count > a.count ? b : a)).sign;
	}
	recipe.keyForms = guessKeyForms(body, recipe, place);
	return recipe;
}

function optionCells(row: Row, recipe: TableRecipe, place: Map<string, number>): Cell[] {
	const { options } = recipe.columns ?? {};
	if (options === undefined) return [];
	if (typeof options === 'string') {
		const cell = row.cells[place.get(options) ?? -1];
		return cell?.text ? cell.text.split(recipe.optionSeparator ?? '|').map((text) => cellOf(text)) : [];
	}
	return options.map((name) => row.cells[place.get(name) ?? -1] ?? cellOf(''));
}

/** The forms in which keys name options, those that fit the most keys first. */
function guessKeyForms(rows: Row[], recipe: TableRecipe, place: Map<string, number>): KeyForm[] {
	const at = place.get(recipe.columns?.key ?? '');
	const count = { letter: 0, index: 0, index0: 0, text: 0 };
	for (const row of rows) {
		const options = optionCells(row, recipe, place)
			.map((cell) => cell.text.toLowerCase())
			.filter(Boolean);
		const key = at === undefined ? '' : (row.cells[at]?.text ?? '');
		if (!options.length || !key) continue;
		for (const one of [key, ...key.split(/\s*[,;|/]\s*/)].filter((part, n, all) => n > 0 || all.length === 2)) {
			if (/^[A-Za-z]$/.test(one) && one.toUpperCase().charCodeAt(0) - 65 < options.length) count.letter += 1;
			if (/^\d+$/.test(one) && Number(one) >= 1 && Number(one) <= options.length) count.index += 1;
			if (/^0$/.test(one)) count.index0 += 3;
			if (/^\d+$/.test(one) && Number(one) < options.length) count.index0 += 0.5;
			if (options.includes(one.toLowerCase())) count.text += 1;
		}
	}
	const forms = (['letter', 'index', 'index0', 'text'] as const).filter((form) => count[form] > 0 || form === 'text');
	const ordered = [...forms].sort((a, b) => count[b] - count[a]);
	const kept = ordered.filter(
		(form) => form !== 'index0' || ordered.indexOf('index0') < (ordered.indexOf('index') + 1 || 99)
	);
	const withLetter: KeyForm[] = kept.includes('letter') ? kept : [...kept, 'letter'];
	return [...withLetter, 'truth', 'answer'];
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
	rows: Row[],
	recipe: TableRecipe,
	where: { file: string; format: string; label: string }
): Generator<RowFound | { report: Report }> {
	const headerRow = recipe.headerRow ?? 1;
	const header = headerRow ? (rows.find((row) => row.number === headerRow) ?? null) : null;
	const width = Math.max(0, ...rows.map((row) => row.cells.length));
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
			if (indexOf(one) === undefined)
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
	const headed = header?.cells.filter((cell) => cell.text).length ?? width;
	for (const row of rows) {
		if (row.number <= headerRow) continue;
		if (!row.cells.some((cell) => cell.text && !cell.merged) && !row.raw) continue;
		const read = readRow(row, { recipe, indexOf, listed, where, headed });
		yield read;
	}
}

interface RowContext {
	recipe: TableRecipe;
	indexOf: (name: string | undefined) => number | undefined;
	listed: Map<string, number>;
	where: { file: string; format: string; label: string };
	headed: number;
}

function readRow(row: Row, { recipe, indexOf, listed, where, headed }: RowContext): RowFound | { report: Report } {
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
	if (shuffle) draft.shuffle = recipe.shuffleWords?.[shuffle] ?? truthOf(shuffle, true);
	const tolerance = Number(text(columns.tolerance).replace(',', '.'));
	if (text(columns.tolerance) && Number.isFinite(tolerance)) draft.tolerance = tolerance;
	const language = text(columns.language);
	if (language) draft.language = language;
	const cells = optionCells(row, recipe, listed);
	const kindNamed = draft.kind ? kindOfWord(recipe.kinds?.[draft.kind] ?? draft.kind) : null;
	let last = cells.length;
	while (last > 0 && !cells[last - 1]!.text) last -= 1;
	const pairs = cells.slice(0, last).map((one) => /^(.+?)\s*(?:=>?|->|→)\s*(.+)$/.exec(one.text));
	if (kindNamed === 'matching' && pairs.length && pairs.every(Boolean))
		draft.pairs = pairs.map((pair): [Markup, Markup] => [markupOfText(pair![1]!), markupOfText(pair![2]!)]);
	else if (kindNamed === 'ordering') draft.order = cells.slice(0, last).map((one) => one.markup);
	else if (kindNamed === 'short-answer' || kindNamed === 'numeric')
		draft.keys = cells
			.slice(0, last)
			.map((one) => one.text)
			.filter(Boolean);
	else draft.options = cells.slice(0, last).map((one) => ({ text: one.markup, credit: null, right: null }));
	const key = text(columns.key);
	const forms = recipe.keyForms ?? defaultForms;
	if (columns.key !== undefined && !draft.pairs.length && !draft.order.length) {
		const separators = recipe.keySeparators ?? (draft.options.length ? defaultSeparators : [';', ' / ', '|']);
		const given = splitKeys(key, separators, draft.options, forms);
		draft.keys = [...given, ...(draft.keys ?? [])];
	}
	const { question, reports } = assemble(draft, {
		keyForms: forms,
		...(recipe.kinds ? { kindNames: recipe.kinds } : {}),
		identifier: '',
		file: where.file,
		line: row.number,
		endLine: row.endNumber ?? row.number,
		format: where.format
	});
	const position = { file: where.file, line: row.number };
	const odd = (rule: string, severity: Report['severity'], message: string) =>
		reports.push({ rule, severity, message, place: position });
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
			reports: reports.filter((report) => report.rule === row.odd?.rule),
			fragment
		};
	return { question, reports, fragment };
}
