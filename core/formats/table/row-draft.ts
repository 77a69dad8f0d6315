import { ownValue } from '../../model/lookup';
import { markupOfText } from '../../markup/clean';
import { plainText } from '../../markup/text';
import type { Kind } from '../../kinds';
import type { Markup } from '../../model/question';
import { emptyDraft, type Draft, type KeyForm } from '../drafts/draft';
import { kindOfWord, truthOf } from '../drafts/words';
import { secondKey, splitKeys } from '../drafts/keys';
import { parseNumber } from '../../numbers/numbers';
import { rightTail } from '../right-mark';
import { withoutStress } from '../text/markdown';
import type { TableRecipe } from '../recipe/recipe';
import { byLabels, categoryOf, flagOf, listIn, listOf } from './cells';
import { plainHeading } from './headings';
import { cellOf, type Cell, type Row } from './row';

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

/** Whether some of the options of a row stand out, and not all of them. */
export function someStandOut(cells: readonly Cell[]): boolean {
	const filled = cells.filter((cell) => cell.text);
	return filled.length > 1 && filled.some((cell) => cell.stressed) && !filled.every((cell) => cell.stressed);
}

/** Options of which those are right that stand out. */
const rightByStress = (cells: Cell[]): { markup: Markup; right: boolean }[] =>
	cells.map(({ markup, stressed }) => ({ markup: withoutStress(markup) ?? markup, right: stressed === true }));

/** How a key says what is right, where no recipe does. */
export const defaultForms: KeyForm[] = ['letter', 'index', 'text', 'truth', 'answer'];
const defaultSeparators = [',', ';', '|', ' / ', ' and ', '&'];

/** What is known of a table beside the row that is read. */
export interface RowContext {
	recipe: TableRecipe;
	indexOf: (name: string | undefined) => number | undefined;
	listed: Map<string, number>;
	where: { file: string; format: string; label: string };
	headed: number;
	/** Credits are written in percent. */
	percent: boolean;
	/** Credits only say whether an option is right. */
	flags: boolean;
	/** Nothing else says which option is right, and in each row some stand out. */
	byStress: boolean;
}

/** The options with the credit and the feedback that stand in columns of their own, in the same order as the options. */
function optionsOf(
	cells: Cell[],
	last: number,
	columns: NonNullable<TableRecipe['columns']>,
	cell: (name: string | undefined) => Cell | undefined,
	{ keyed, percent, flags, byStress }: { keyed: boolean; percent: boolean; flags: boolean; byStress: boolean }
): Draft['options'] {
	const filled = cells.slice(0, last);
	const found = keyed || columns.optionCredits ? [] : markedRight(filled);
	const marks = found.length || !byStress ? found : rightByStress(filled);
	return cells.slice(0, last).map((option, at) => {
		const text = cell(columns.optionCredits?.[at])?.text ?? '';
		const given = flags ? null : parseNumber(text.replace(/\s*%$/, ''));
		const feedback = cell(columns.optionFeedbacks?.[at])?.markup;
		return {
			text: marks[at]?.markup ?? option.markup,
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

/** What a row has given: the draft of a question, and what contradicts itself in it. */
export interface RowDraft {
	draft: Draft;
	identifier: string;
	/** A second answer that is not the first, with the first. */
	disagreeing: { first: string; second: string } | null;
	/** It is marked as true and as false. */
	bothTruths: boolean;
	/** Its key was told from what stands out. */
	byStress: boolean;
}

/** One row as the draft of a question. */
export class RowReading {
	readonly #row: Row;
	readonly #context: RowContext;
	readonly #columns: NonNullable<TableRecipe['columns']>;
	readonly #draft = emptyDraft();
	/** The cells of the options, and how many of them are filled. */
	readonly #cells: Cell[];
	readonly #last: number;
	readonly #keyCell: Cell | undefined;
	readonly #otherKeys: Cell[];
	readonly #key: string;
	#disagreeing: RowDraft['disagreeing'] = null;
	#bothTruths = false;

	constructor(row: Row, context: RowContext) {
		this.#row = row;
		this.#context = context;
		this.#columns = context.recipe.columns ?? {};
		this.#cells = optionCells(row, context.recipe, context.listed);
		this.#last = this.#cells.findLastIndex((cell) => cell.text) + 1;
		const keys = [this.#columns.key ?? []].flat().flatMap((name) => (this.#text(name) ? [this.#cell(name)!] : []));
		[this.#keyCell, ...this.#otherKeys] = keys;
		// without options the answer is a number, however the sheet shows it
		this.#key = keyIn((this.#last ? undefined : this.#keyCell?.number) ?? this.#keyCell?.text ?? '');
	}

	#cell(name: string | undefined): Cell | undefined {
		const at = this.#context.indexOf(name);
		return at === undefined ? undefined : this.#row.cells[at];
	}

	#text(name: string | undefined): string {
		return this.#cell(name)?.text ?? '';
	}

	/** What stands in a cell of numbers: the number as it is, where a sheet shows it in another way. */
	#number(name: string | undefined): string {
		const cell = this.#cell(name);
		return cell?.number ?? cell?.text ?? '';
	}

	/** What the row gives. */
	read(): RowDraft {
		this.#plainFields();
		const lines = this.#answers();
		this.#truths();
		const wrong = this.#besideWrong();
		if (!this.#draft.pairs.length && !this.#draft.order.length && !wrong && !lines) this.#keys();
		const identifier = this.#text(this.#columns.identifier);
		return {
			draft: this.#draft,
			// a mere number counts the rows, and would be the same in every table
			identifier: /^\d*$/.test(identifier) ? '' : identifier,
			disagreeing: this.#disagreeing,
			bothTruths: this.#bothTruths,
			byStress: this.#context.byStress && someStandOut(this.#cells)
		};
	}

	/** What each stands in a column of its own, whatever kind of question it is. */
	#plainFields(): void {
		const [draft, columns] = [this.#draft, this.#columns];
		const { recipe } = this.#context;
		draft.title = this.#text(columns.title);
		draft.stem = this.#cell(columns.stem)?.markup ?? '';
		draft.kind = this.#text(columns.kind) || null;
		draft.points = this.#number(columns.points) || null;
		const categories = typeof columns.category === 'string' ? [columns.category] : (columns.category ?? []);
		draft.category = categories.flatMap((name) => categoryOf(this.#text(name), recipe.categorySeparators ?? []));
		draft.tags = listOf(this.#text(columns.tags));
		if (this.#text(columns.difficulty)) draft.difficulty = this.#text(columns.difficulty);
		if (this.#text(columns.hint)) draft.hints = [this.#cell(columns.hint)!.markup];
		for (const [field, part] of [
			['generalFeedback', 'general'],
			['correctFeedback', 'correct'],
			['incorrectFeedback', 'incorrect']
		] as const)
			if (this.#text(columns[field])) draft.feedback[part] = this.#cell(columns[field])!.markup;
		const shuffle = this.#text(columns.shuffle);
		if (shuffle) draft.shuffle = ownValue(recipe.shuffleWords, shuffle) ?? truthOf(shuffle, true);
		const tolerance = this.#number(columns.tolerance);
		const number = Number(tolerance.replace(',', '.'));
		if (tolerance && Number.isFinite(number)) draft.tolerance = number;
		const language = this.#text(columns.language);
		if (language) draft.language = language;
	}

	/** Options, pairs, an order, or answers; gives whether the options stand line by line in the cell of the answer. */
	#answers(): boolean {
		const [draft, cells, last, key] = [this.#draft, this.#cells, this.#last, this.#key];
		const filled = cells.slice(0, last);
		const { recipe, percent, flags, byStress } = this.#context;
		const kindNamed = draft.kind ? kindOfWord(ownValue(recipe.kinds, draft.kind) ?? draft.kind) : null;
		// without options of their own, what is to be matched or put in order stands in the cell of the answer
		const asksToMatch = draft.kind === null && !last && saysPairs(key, plainText(draft.stem));
		const kindMeant = kindNamed ?? (asksToMatch ? 'matching' : null);
		const parts = last ? filled.map((cell) => cell.text) : partsOf(key, kindMeant);
		// a colon parts them too, but only where nothing clearer does: "12:00 = noon"
		const pairs = parts.map(
			(part) => /^(.+?)\s*(?:={1,2}>?|->|→)\s*(.+)$/.exec(part) ?? /^(.+?)\s*:\s+(.+)$/.exec(part)
		);
		if (kindMeant === 'matching' && pairs.length && pairs.every(Boolean))
			draft.pairs = pairs.map((pair): [Markup, Markup] => [markupOfText(pair![1]!), markupOfText(pair![2]!)]);
		else if (kindNamed === 'ordering') draft.order = last ? filled.map((cell) => cell.markup) : parts.map(markupOfText);
		else if (kindNamed === 'short-answer' || kindNamed === 'numeric')
			draft.keys = filled.map((cell) => cell.text).filter(Boolean);
		else
			draft.options = optionsOf(cells, last, this.#columns, (name) => this.#cell(name), {
				percent,
				flags,
				byStress: byStress && someStandOut(filled),
				keyed: key !== ''
			});
		const lines = key && !last && kindNamed === null ? markedRight(key.split('\n').map(cellOf)) : [];
		if (lines.length) draft.options = lines.map(({ markup, right }) => ({ text: markup, credit: null, right }));
		return lines.length > 0;
	}

	/** Two columns, one for true and one for false, of which one is marked. */
	#truths(): void {
		const marked = (this.#columns.truth ?? []).map((name) => this.#text(name) !== '' && flagOf(this.#text(name)));
		if (marked.length !== 2) return;
		this.#draft.kind ??= 'true-false';
		if (marked[0] !== marked[1]) this.#draft.truth = marked[0]!;
		this.#bothTruths = Boolean(marked[0] && marked[1]);
	}

	/** The right answer in its column and the wrong ones in theirs; gives whether there are such columns. */
	#besideWrong(): boolean {
		const wrong = (this.#columns.wrong ?? []).flatMap((name) => (this.#text(name) ? [this.#cell(name)!] : []));
		if (wrong.length && this.#key && !this.#draft.options.length)
			this.#draft.options = [this.#keyCell!, ...wrong].map((cell, at) => ({
				text: cell.markup,
				credit: null,
				right: at === 0
			}));
		return wrong.length > 0;
	}

	/** The key, and what further columns of answers say beside it. */
	#keys(): void {
		const [draft, columns] = [this.#draft, this.#columns];
		if (columns.key === undefined) return;
		const { recipe } = this.#context;
		const forms = recipe.keyForms ?? defaultForms;
		const separators = recipe.keySeparators ?? (draft.options.length ? defaultSeparators : [';', ' / ', '|', '\n']);
		const names = Array.isArray(columns.options) ? columns.options.map(plainHeading) : [];
		// a key may name the column that holds the right option
		const named = (part: string) => {
			const column = names.indexOf(plainHeading(part));
			const namesNone = part.length < 2 || column < 0 || column >= this.#last;
			return namesNone || this.#cells.some((cell) => cell.text === part) ? part : this.#cells[column]!.text;
		};
		const split = (given: string) => splitKeys(keyIn(given), separators, draft.options, forms).map(named);
		const given = split(this.#key);
		for (const other of this.#otherKeys) {
			const says = secondKey(given, split(other.text), draft.options, forms);
			if (says === 'other') this.#disagreeing = { first: this.#keyCell!.text, second: other.text };
			else if (says === 'reason')
				draft.feedback.general = [draft.feedback.general, other.markup].filter(Boolean).join('<br/>');
		}
		draft.keys = this.#disagreeing ? [] : [...given, ...(draft.keys ?? [])];
	}
}

/** A key of which its cell may be written as a list. */
const keyIn = (given: string) => (listIn(given) ?? [given]).join('; ');
