import { lookup } from '$core/model/lookup';
import type { SketchField } from '$core/formats/recipe/sketch';
import type { Recipe } from '$core/formats/recipe/recipe';

const meanings = {
	stem: 'stem',
	options: 'an option',
	key: 'answer key',
	title: 'title',
	kind: 'kind',
	points: 'points',
	category: 'category',
	tags: 'tags',
	generalFeedback: 'feedback',
	correctFeedback: 'feedback when right',
	incorrectFeedback: 'feedback when wrong',
	hint: 'hint',
	shuffle: 'shuffle',
	difficulty: 'difficulty',
	tolerance: 'tolerance',
	language: 'language'
} as const;

/** What a column of a table can mean. */
export const inColumns = {
	...meanings,
	identifier: 'identifier',
	wrong: 'a wrong option',
	optionCredits: 'credit of an option',
	optionFeedbacks: 'feedback of an option',
	optionRight: 'right or wrong',
	truth: 'true, then false'
} as const;

/** The name of what a column can mean. */
export type Meaning = keyof typeof inColumns;

/** What several columns can mean, one after the other. */
export const severalColumns: string[] = [
	'options',
	'key',
	'category',
	'wrong',
	'optionCredits',
	'optionFeedbacks',
	'truth'
];

/** What a field of a record can mean beside those. */
export const inRecords = {
	...meanings,
	options: 'options',
	wrong: 'wrong options',
	accepted: 'accepted answers',
	numeric: 'a number that is right',
	numericMin: 'the least number that is right',
	numericMax: 'the greatest number that is right',
	pairs: 'pairs',
	order: 'things in order',
	truth: 'whether it is true'
} as const;

/** What the parts of an entry can mean, by what the entries are. */
export const inEntries = lookup<Record<string, string>>({
	options: {
		optionText: 'its text',
		optionRight: 'whether it is right',
		credit: 'its credit',
		optionFeedback: 'its feedback',
		optionIdentifier: 'the name that keys call it by'
	},
	accepted: { acceptedText: 'its text', acceptedCredit: 'its credit' },
	pairs: { left: 'left', right: 'right' }
});

const listed = ['options', 'wrong', 'accepted', 'pairs', 'order', 'tags'];
const bare = (path: string) => path.replace(/\[\*\]$/, '');
const first = (value: unknown) => (Array.isArray(value) ? (value as unknown[])[0] : value);

/** What the recipe says that a field of a record means; nothing where it is left out. */
export function meaningOf(recipe: Recipe, field: SketchField): string {
	const values = recipe as Record<string, unknown>;
	for (const name of Object.keys(inRecords)) {
		const path = first(values[name]);
		if (typeof path === 'string' && bare(path) === bare(field.path)) return name;
	}
	const holder = holderOf(recipe, field);
	if (holder)
		for (const name of Object.keys(inEntries[holder]!)) if (first(values[name]) === field.inside!.relative) return name;
	return '';
}

/** Of which list of the recipe a field is a part: options, accepted answers or pairs. */
export function holderOf(recipe: Recipe, field: SketchField): string | null {
	const values = recipe as Record<string, unknown>;
	return (
		Object.keys(inEntries).find(
			(name) =>
				field.inside !== null &&
				typeof first(values[name]) === 'string' &&
				bare(first(values[name]) as string) === bare(field.inside.path)
		) ?? null
	);
}

/** The recipe with another meaning for a field; an empty one leaves it out. */
export function withMeaning(recipe: Recipe, field: SketchField, meaning: string): Recipe {
	const next = { ...recipe } as Record<string, unknown>;
	const before = meaningOf(recipe, field);
	if (before) Reflect.deleteProperty(next, before);
	const holder = holderOf(recipe, field);
	if (holder && meaning in inEntries[holder]!) next[meaning] = field.inside!.relative;
	else if (meaning) next[meaning] = listed.includes(meaning) ? field.path : bare(field.path);
	// numbers beyond one can be no shares of one
	if (/credit$/i.test(meaning) && field.words.some((word) => Math.abs(Number(word)) > 1)) next.creditScale = 'percent';
	return next;
}
