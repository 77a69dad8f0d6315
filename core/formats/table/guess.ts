import { kindsTogether } from '../drafts/words';
import { type KeyForm } from '../drafts/draft';
import type { Columns, TableRecipe } from '../recipe/recipe';
import { guessHeader, headings, truthColumns } from './headings';
import { guessOptionRows } from './option-rows';
import { optionCells } from './row-draft';
import type { Row } from './row';
import { flagOf, isFlag, widthOf } from './cells';

/** What columns without headings mean, by what stands in them: the longest text, short ones behind it, a key that names one of them. */
function guessByContent(rows: Row[]): Columns | null {
	const filled = rows.filter((row) => row.cells.some((cell) => cell.text));
	// the first row may hold headings in words that are not known
	const some = (filled.length > 2 ? filled.slice(1) : filled).slice(0, 50);
	const width = widthOf(some);
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
			const numbers = /^\d(?:\s*[,;]\s*\d)*$/.test(text) && others.filter(Boolean).length >= Number(text[0]);
			return (
				/^[A-Ha-h]([,;]\s*[A-Ha-h])*$/.test(text) ||
				(text !== '' && others.includes(text.toLowerCase())) ||
				(numbers && Number(text[0]) > 0 && at > stem + 2)
			);
		}).length / some.length;
	const key = Array.from({ length: width }, (_, at) => at).find((at) => at > stem && keyed(at) > 0.6);
	if (key === undefined) return width === 2 && stem === 0 ? { stem: name(0), key: name(1) } : null;
	return {
		stem: name(stem),
		options: Array.from({ length: key - stem - 1 }, (_, at) => name(stem + 1 + at)),
		key: name(key)
	};
}

/** The number of the first row where it holds headings in words that are not known: its key names no option, as all others do. */
function unknownHeadings(rows: Row[], columns: Columns): number {
	const filled = rows.filter((row) => row.cells.some((cell) => cell.text));
	const at = Number([columns.key ?? ''].flat()[0]!.replace(/\D/g, '')) - 1;
	const [first, ...others] = filled;
	if (!first || others.length < 2 || !Array.isArray(columns.options)) return 0;
	const fits = (row: Row) => {
		const text = row.cells[at]?.text ?? '';
		return (
			/^([A-Ha-h]|\d)([,;]\s*([A-Ha-h]|\d))*$/.test(text) ||
			row.cells.some(
				(cell, place) => place !== at && cell.text !== '' && cell.text.toLowerCase() === text.toLowerCase()
			)
		);
	};
	const asks = first.cells.some((cell) => /[?…_:]\s*$/.test(cell.text));
	return !fits(first) && !asks && others.every(fits) ? first.number : 0;
}

/** Columns by the headings that the table has, where they were counted. */
function named(columns: Columns, names: string[]): void {
	const name = (counted: string) => names[Number(counted.replace(/\D/g, '')) - 1] ?? counted;
	columns.stem = name(columns.stem!);
	columns.key = [columns.key!].flat().map(name)[0]!;
	columns.options = (columns.options as string[]).map(name);
}

/** The columns of a table of statements, each of which is marked in one of two columns; null where it is no such table. */
function guessTruth(body: Row[], names: string[], columns: Columns): Columns | null {
	const truth = truthColumns(names);
	if (!truth || columns.options !== undefined || columns.wrong) return null;
	const [yes, no] = truth.map((name) => names.indexOf(name)) as [number, number];
	const texts = (row: Row) => [row.cells[yes]?.text ?? '', row.cells[no]?.text ?? ''];
	const marked = body.filter((row) => texts(row).filter(flagOf).length === 1);
	if (!marked.length || !body.every((row) => texts(row).every(isFlag))) return null;
	if ([columns.key ?? []].flat().some((name) => !truth.includes(name))) return null;
	const { key: _, ...others } = columns;
	return { ...others, truth };
}

/** A recipe for a table, guessed from its rows: headings, what they mean, and how keys are written. Null where it holds no questions. */
export function guessTable(rows: Row[]): TableRecipe | null {
	const header = guessHeader(rows);
	const columns = header?.columns ?? guessByContent(rows);
	if (!columns?.stem) return null;
	const headerRow = header?.headerRow ?? unknownHeadings(rows, columns);
	if (!header && headerRow)
		named(
			columns,
			headings(
				rows.find((row) => row.number === headerRow)!,
				rows[0]!.cells.length
			)
		);
	const recipe: TableRecipe = { headerRow, columns, categorySeparators: ['>', '/', '::', '»', '\\'] };
	const body = rows.filter((row) => row.number > headerRow);
	const names = headings(rows.find((row) => row.number === headerRow) ?? null, widthOf(rows));
	const truth = guessTruth(body, names, columns);
	if (truth) return { ...recipe, columns: truth };
	delete columns.truth;
	const ofRows = guessOptionRows(body, names, columns);
	if (ofRows) return { ...recipe, columns: ofRows, keyForms: ['text'] };
	const place = new Map(names.map((name, at) => [name, at]));
	if (typeof columns.options === 'string') {
		const at = place.get(columns.options)!;
		const texts = body.map((row) => row.cells[at]?.text ?? '').filter(Boolean);
		const counts = ['||', '|', '\n', ';', '/', ','].map((sign) => ({
			sign,
			count: texts.filter((text) => text.includes(sign)).length
		}));
		recipe.optionSeparator = counts.reduce((a, b) => (b.count > a.count ? b : a)).sign;
	}
	const kindAt = place.get(columns.kind ?? '');
	const kinds = kindAt === undefined ? undefined : kindsTogether(body.map((row) => row.cells[kindAt]?.text ?? ''));
	if (kinds) recipe.kinds = kinds;
	recipe.keyForms = guessKeyForms(body, recipe, place);
	return recipe;
}

/** The forms in which keys name options, those that fit the most keys first. */
function guessKeyForms(rows: Row[], recipe: TableRecipe, place: Map<string, number>): KeyForm[] {
	const places = [recipe.columns?.key ?? []].flat().map((name) => place.get(name) ?? -1);
	const count = { letter: 0, index: 0, index0: 0, text: 0 };
	for (const row of rows) {
		const options = optionCells(row, recipe, place)
			.map((cell) => cell.text.toLowerCase())
			.filter(Boolean);
		const key = places.map((at) => row.cells[at]?.text).find(Boolean) ?? '';
		if (!options.length || !key) continue;
		for (const written of [key, ...key.split(/\s*[,;|/]\s*/)].filter((part, n, all) => n > 0 || all.length === 2)) {
			if (/^[A-Za-z]$/.test(written) && written.toUpperCase().charCodeAt(0) - 65 < options.length) count.letter += 1;
			if (/^\d+$/.test(written) && Number(written) >= 1 && Number(written) <= options.length) count.index += 1;
			if (/^0$/.test(written)) count.index0 += 3;
			if (/^\d+$/.test(written) && Number(written) < options.length) count.index0 += 0.5;
			if (options.includes(written.toLowerCase())) count.text += 1;
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
