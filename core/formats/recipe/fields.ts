import type { RecordAccess, Value } from './record';
import { ownValue } from '../../model/lookup';
import { markupOfHtml, markupOfText, type CleanContext } from '../../markup/clean';
import type { Markup } from '../../model/question';
import { emptyDraft, type Draft } from '../drafts/draft';
import { kindOfWord, truthOf } from '../drafts/words';
import { splitKeys } from '../drafts/keys';
import { parseNumber } from '../../numbers/numbers';
import { categoryOf, flagOf, listOf } from '../table/cells';
import { numbersOf } from './number-answers';
import type { Path, Recipe } from './recipe';

const looksLikeHtml = /<\/?[a-z][a-z0-9]*\b[^>]*>|&(?:[a-z]+|#\d+|#x[0-9a-f]+);/i;

/** A value as rich text: HTML where it is, or looks like it, and else plain. */
export function markupOfValue(value: Value | undefined, form: Recipe['stemForm'], context: CleanContext): Markup {
	if (!value) return '';
	if (value.html !== null) return markupOfHtml(value.html, context);
	if (form === 'HTML' || (form !== 'text' && looksLikeHtml.test(value.text))) return markupOfHtml(value.text, context);
	return markupOfText(value.text.trim().replace(/\s*\n\s*/g, '\n'));
}

const pathsOf = (path: Path | undefined): string[] => (path === undefined ? [] : Array.isArray(path) ? path : [path]);

/** What a path finds in a part of a record, the first of several that finds something. */
function within(part: RecordAccess, path: Path | undefined): Value | undefined {
	for (const step of pathsOf(path ?? '.')) {
		const [found] = part.values(step);
		if (found) return found;
	}
	return undefined;
}

/** One record as a recipe sees it. */
class RecipeFields {
	readonly #record: RecordAccess;
	readonly #recipe: Recipe;
	readonly #context: CleanContext;
	readonly draft = emptyDraft();

	constructor(record: RecordAccess, recipe: Recipe, context: CleanContext) {
		this.#record = record;
		this.#recipe = recipe;
		this.#context = context;
	}

	all(path: Path | undefined): Value[] {
		for (const step of pathsOf(path)) {
			const found = this.#record.values(step);
			if (found.length) return found;
		}
		return [];
	}

	#first(path: Path | undefined): Value | undefined {
		return this.all(path).find((value) => value.text !== '' || value.plain !== null);
	}

	#text(path: Path | undefined): string {
		return this.#first(path)?.text.trim() ?? '';
	}

	#markup(value: Value | undefined): Markup {
		return markupOfValue(value, undefined, this.#context);
	}

	readonly creditOf = (part: RecordAccess, path: Path | undefined): number | null => {
		for (const step of pathsOf(path)) {
			const value = parseNumber(part.values(step)[0]?.text ?? '');
			if (value !== null) return value / (this.#recipe.creditScale === 'percent' ? 100 : 1);
		}
		return null;
	};

	/** What every question has beside its answers. */
	common(): void {
		const { draft } = this;
		const recipe = this.#recipe;
		draft.title = this.#text(recipe.title);
		draft.stem = markupOfValue(this.#first(recipe.stem), recipe.stemForm, this.#context);
		draft.kind = this.#text(recipe.kind) || null;
		draft.points = this.#text(recipe.points) || null;
		draft.category = recipe.categoryFrom
			? this.#record.ancestors(recipe.categoryFrom.ancestors)
			: this.all(recipe.category).flatMap(({ plain, text }) =>
					// a list is a path, a step each
					Array.isArray(plain) ? plain.map(String) : categoryOf(text, recipe.categorySeparators ?? [])
				);
		draft.tags = [...new Set(this.all(recipe.tags).flatMap(({ text }) => listOf(text)))];
		for (const [field, part] of [
			['generalFeedback', 'general'],
			['correctFeedback', 'correct'],
			['incorrectFeedback', 'incorrect']
		] as const)
			if (this.#text(recipe[field])) draft.feedback[part] = this.#markup(this.#first(recipe[field]));
		if (this.#text(recipe.hint)) draft.hints = [this.#markup(this.#first(recipe.hint))];
		if (this.#text(recipe.difficulty)) draft.difficulty = this.#text(recipe.difficulty);
		if (this.#text(recipe.language)) draft.language = this.#text(recipe.language);
		const shuffle = this.#text(recipe.shuffle);
		if (shuffle) draft.shuffle = ownValue(recipe.shuffleWords, shuffle) ?? truthOf(shuffle, true);
	}

	#option(part: RecordAccess): Draft['options'][number] {
		const recipe = this.#recipe;
		const right = recipe.optionRight === undefined ? undefined : within(part, recipe.optionRight);
		const feedback = recipe.optionFeedback === undefined ? undefined : within(part, recipe.optionFeedback);
		return {
			text: this.#markup(within(part, recipe.optionText)),
			credit: recipe.credit === undefined ? null : this.creditOf(part, recipe.credit),
			right:
				recipe.optionRight === undefined ? null : right !== undefined && (right.plain === true || flagOf(right.text)),
			...(feedback?.text ? { feedback: this.#markup(feedback) } : {})
		};
	}

	/** The parts that the first of some paths finds. */
	#parts(path: Path | undefined): RecordAccess[] {
		for (const step of pathsOf(path)) {
			const parts = this.#record.parts(step);
			if (parts.length) return parts;
		}
		return [];
	}

	/** The options; gives the names that they have, where the recipe says where these stand. */
	options(): string[] {
		const recipe = this.#recipe;
		const parts = this.#parts(recipe.options);
		const options = parts.map((part) => this.#option(part));
		const [only] = options;
		this.draft.options =
			options.length === 1 && recipe.optionSeparator && only!.text.includes(recipe.optionSeparator)
				? only!.text.split(recipe.optionSeparator).map((text) => ({ text: text.trim(), credit: null, right: null }))
				: options;
		return recipe.optionIdentifier === undefined
			? []
			: parts.map((part) => within(part, recipe.optionIdentifier)?.text.trim() ?? '');
	}

	/** What is accepted in writing: texts, numbers, pairs, an order. */
	answers(): void {
		const { draft } = this;
		const recipe = this.#recipe;
		draft.accepted = this.#parts(recipe.accepted).map((part) => ({
			text: within(part, recipe.acceptedText)?.text.trim() ?? '',
			credit: this.creditOf(part, recipe.acceptedCredit ?? recipe.credit) ?? 1
		}));
		const { numbers, tolerance } = numbersOf(this.#record, recipe, this.creditOf);
		draft.numbers = numbers;
		if (tolerance !== null) draft.tolerance = tolerance;
		for (const path of pathsOf(recipe.pairs))
			for (const part of this.#record.parts(path)) {
				const [left, right] = [within(part, recipe.left), within(part, recipe.right)];
				if (left?.text && right?.text) draft.pairs.push([this.#markup(left), this.#markup(right)]);
				else if (right?.text) draft.distractors.push(this.#markup(right));
			}
		draft.order = this.all(recipe.order).map((value) => this.#markup(value));
	}

	/** Whether it is true, and whether a person marks it. */
	truth(): void {
		const { draft } = this;
		const recipe = this.#recipe;
		const truth = this.#text(recipe.truth);
		if (truth) draft.truth = ownValue(recipe.truthWords, truth) ?? truthOf(truth, true);
		if (recipe.essay === true) draft.essay = true;
		else if (typeof recipe.essay === 'string' || Array.isArray(recipe.essay)) {
			const said = this.#text(recipe.essay);
			draft.essay = truthOf(said, true) === true || (said === '' && this.all(recipe.essay).length > 0);
		}
	}
}

/** What a recipe finds in one record, as a draft of a question. */
export function draftOf(record: RecordAccess, recipe: Recipe, context: CleanContext): Draft {
	const fields = new RecipeFields(record, recipe, context);
	const { draft } = fields;
	fields.common();
	const identifiers = fields.options();
	fields.answers();
	fields.truth();
	if (recipe.key !== undefined) keysInto(draft, fields.all(recipe.key), recipe);
	byIdentifiers(draft, identifiers);
	const wrong = fields.all(recipe.wrong);
	besideWrong(
		draft,
		wrong.flatMap(({ plain, text }) => (Array.isArray(plain) ? plain.map(String) : [text]))
	);
	asOrder(draft, recipe);
	return draft;
}

/** Marks the options that the keys call by the names they have. */
function byIdentifiers(draft: Draft, identifiers: string[]): void {
	const keys = draft.keys ?? [];
	if (!keys.length || !identifiers.length || !keys.every((key) => identifiers.includes(key))) return;
	draft.options.forEach((option, at) => (option.right = keys.includes(identifiers[at]!)));
	draft.keys = null;
}

/** Options out of the key and what is wrong, where they stand apart. */
function besideWrong(draft: Draft, wrong: string[]): void {
	const keys = draft.keys ?? [];
	if (!wrong.some(Boolean) || !keys.length || draft.options.length) return;
	draft.options = [...keys, ...wrong.filter(Boolean)].map((text, at) => ({
		text: markupOfText(text),
		credit: null,
		right: at < keys.length
	}));
	draft.keys = null;
}

/** Things to put in order: as the key has them, whatever order they are listed in. */
function asOrder(draft: Draft, recipe: Recipe): void {
	const word = draft.kind === null ? null : kindOfWord(ownValue(recipe.kinds, draft.kind) ?? draft.kind);
	const keys = (draft.keys ?? []).map(markupOfText);
	const listed = draft.order.length ? draft.order : draft.options.map((option) => option.text);
	if (word !== 'ordering' || keys.length < 2) return;
	const places = listed.map((one) => keys.indexOf(one));
	if (listed.length && (listed.length !== keys.length || places.includes(-1))) return;
	draft.order = keys;
	if (listed.length) draft.presented = places;
	draft.options = [];
	draft.keys = null;
}

function keysInto(draft: Draft, values: Value[], recipe: Recipe): void {
	const isObject = ({ plain }: Value) => typeof plain === 'object' && plain !== null && !Array.isArray(plain);
	// an object is no key by itself: what stands in it has a path of its own
	const some = values.filter((one) => one.plain !== null && one.text !== '' && !isObject(one));
	const separators = recipe.keySeparators ?? (draft.options.length ? [] : [';', ' / ']);
	const forms = recipe.keyForms ?? ['letter', 'index', 'text', 'truth', 'answer'];
	if (values.some((one) => Array.isArray(one.plain))) {
		const list = values.flatMap((one) => (Array.isArray(one.plain) ? (one.plain as unknown[]) : [one.plain]));
		draft.keys = list.map((one) => String(one));
		if (list.length > 1 && draft.options.length && draft.kind === null) draft.kind = 'multiple-response';
		return;
	}
	const [only] = some;
	if (some.length === 1 && typeof only!.plain === 'boolean') {
		if (draft.options.length) draft.keys = [only!.text];
		else draft.truth = only!.plain;
		return;
	}
	draft.keys = some.flatMap((one) => splitKeys(one.text, separators, draft.options, forms));
}
