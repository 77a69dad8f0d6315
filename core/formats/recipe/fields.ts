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

/** What a recipe finds in one record, as a draft of a question. */
export function draftOf(record: RecordAccess, recipe: Recipe, context: CleanContext): Draft {
	const all = (path: Path | undefined): Value[] => {
		for (const one of pathsOf(path)) {
			const found = record.values(one);
			if (found.length) return found;
		}
		return [];
	};
	const first = (path: Path | undefined) => all(path).find((one) => one.text !== '' || one.plain !== null);
	const text = (path: Path | undefined) => first(path)?.text.trim() ?? '';
	const rich = (path: Path | undefined) => markupOfValue(first(path), undefined, context);
	const draft = emptyDraft();
	draft.title = text(recipe.title);
	draft.stem = markupOfValue(first(recipe.stem), recipe.stemForm, context);
	draft.kind = text(recipe.kind) || null;
	draft.points = text(recipe.points) || null;
	draft.category = recipe.categoryFrom
		? record.ancestors(recipe.categoryFrom.ancestors)
		: all(recipe.category).flatMap(({ plain, text: path }) =>
				// a list is a path, a step each
				Array.isArray(plain) ? plain.map(String) : categoryOf(path, recipe.categorySeparators ?? [])
			);
	draft.tags = [...new Set(all(recipe.tags).flatMap((one) => listOf(one.text)))];
	for (const [field, part] of [
		['generalFeedback', 'general'],
		['correctFeedback', 'correct'],
		['incorrectFeedback', 'incorrect']
	] as const)
		if (text(recipe[field])) draft.feedback[part] = rich(recipe[field]);
	if (text(recipe.hint)) draft.hints = [rich(recipe.hint)];
	if (text(recipe.difficulty)) draft.difficulty = text(recipe.difficulty);
	if (text(recipe.language)) draft.language = text(recipe.language);
	const shuffle = text(recipe.shuffle);
	if (shuffle) draft.shuffle = ownValue(recipe.shuffleWords, shuffle) ?? truthOf(shuffle, true);
	const scale = recipe.creditScale === 'percent' ? 100 : 1;
	const creditOf = (part: RecordAccess, path: Path | undefined): number | null => {
		for (const one of pathsOf(path)) {
			const value = parseNumber(part.values(one)[0]?.text ?? '');
			if (value !== null) return value / scale;
		}
		return null;
	};
	const within = (part: RecordAccess, path: Path | undefined): Value | undefined => {
		for (const one of pathsOf(path ?? '.')) {
			const [found] = part.values(one);
			if (found) return found;
		}
		return undefined;
	};
	const identifiers: string[] = [];
	for (const path of pathsOf(recipe.options)) {
		const parts = record.parts(path);
		if (!parts.length) continue;
		if (recipe.optionIdentifier !== undefined)
			identifiers.push(...parts.map((part) => within(part, recipe.optionIdentifier)?.text.trim() ?? ''));
		draft.options = parts.map((part) => {
			const right = recipe.optionRight === undefined ? undefined : within(part, recipe.optionRight);
			const feedback = recipe.optionFeedback === undefined ? undefined : within(part, recipe.optionFeedback);
			return {
				text: markupOfValue(within(part, recipe.optionText), undefined, context),
				credit: recipe.credit === undefined ? null : creditOf(part, recipe.credit),
				right:
					recipe.optionRight === undefined ? null : right !== undefined && (right.plain === true || flagOf(right.text)),
				...(feedback?.text ? { feedback: markupOfValue(feedback, undefined, context) } : {})
			};
		});
		if (draft.options.length === 1 && recipe.optionSeparator && draft.options[0]!.text.includes(recipe.optionSeparator))
			draft.options = draft.options[0]!.text.split(recipe.optionSeparator).map((one) => ({
				text: one.trim(),
				credit: null,
				right: null
			}));
		break;
	}
	for (const path of pathsOf(recipe.accepted)) {
		const parts = record.parts(path);
		if (!parts.length) continue;
		draft.accepted = parts.map((part) => ({
			text: within(part, recipe.acceptedText)?.text.trim() ?? '',
			credit: creditOf(part, recipe.acceptedCredit ?? recipe.credit) ?? 1
		}));
		break;
	}
	const { numbers, tolerance } = numbersOf(record, recipe, creditOf);
	draft.numbers = numbers;
	if (tolerance !== null) draft.tolerance = tolerance;
	for (const path of pathsOf(recipe.pairs))
		for (const part of record.parts(path)) {
			const [left, right] = [within(part, recipe.left), within(part, recipe.right)];
			if (left?.text && right?.text)
				draft.pairs.push([markupOfValue(left, undefined, context), markupOfValue(right, undefined, context)]);
			else if (right?.text) draft.distractors.push(markupOfValue(right, undefined, context));
		}
	draft.order = all(recipe.order).map((one) => markupOfValue(one, undefined, context));
	const truth = text(recipe.truth);
	if (truth) draft.truth = ownValue(recipe.truthWords, truth) ?? truthOf(truth, true);
	if (recipe.essay === true) draft.essay = true;
	else if (typeof recipe.essay === 'string' || Array.isArray(recipe.essay))
		draft.essay =
			truthOf(text(recipe.essay), true) === true || (text(recipe.essay) === '' && all(recipe.essay).length > 0);
	if (recipe.key !== undefined) keysInto(draft, all(recipe.key), recipe);
	byIdentifiers(draft, identifiers);
	besideWrong(
		draft,
		all(recipe.wrong).flatMap((one) => (Array.isArray(one.plain) ? one.plain.map(String) : [one.text]))
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
