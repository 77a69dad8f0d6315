import { array, boolean, number, object, string, type InferType } from 'yup';
import { keyStates } from '$core/draws/conditions';

const key = () => number().integer().min(1);
const keys = (most: number) => array(key().required()).max(most).default([]);
const tags = () => array(string().max(120).required()).max(200).default([]);
const day = () => string().matches(/^\d{4}-\d{2}-\d{2}$/, 'A day is written as 2026-11-29.');
const moment = () => string().matches(/^\d{4}-\d{2}-\d{2}T\d{2}:\d{2}$/, 'A moment is written as 2026-11-29T09:00.');
const range = () =>
	array(number().required())
		.length(2)
		.test('order', 'Put the easier end of the difficulty first.', (ends) => !ends || ends[0]! <= ends[1]!);

/** What is asked of the questions of the categories that a part draws from. */
export const conditionsShape = object({
	tags: object({ any: tags(), all: tags(), none: tags() }),
	kinds: array(string().max(40).required()).max(60).default([]),
	difficulty: range().nullable().default(null),
	key: string().oneOf(keyStates).nullable().default(null),
	unbroken: boolean().default(false),
	since: day().nullable().default(null)
});

const value = object({
	/** The key of a category, or of a bank made negative. */
	category: number().integer(),
	/** A kind or a tag. */
	name: string().max(120),
	/** A range of difficulty. */
	range: range().default(undefined)
});

/** A quota: of the drawn questions, so many have a value, or each of several gets its share. */
export const quotaShape = object({
	by: string()
		.oneOf(['category', 'kind', 'tag', 'difficulty'] as const)
		.required(),
	values: array(value.required()).min(1, 'A quota needs a value.').max(500).required(),
	spread: string()
		.oneOf(['equal', 'proportional'] as const)
		.nullable()
		.default(null),
	least: number().integer().min(0).max(10_000).nullable().default(null),
	most: number().integer().min(0).max(10_000).nullable().default(null)
}).test(
	'order',
	'The least of a quota is over its most.',
	({ least, most }) => least == null || most == null || least <= most
);

/** What holds for all parts of a quiz. Questions are named by their keys. */
export const sheetRulesShape = object({
	/** Pairs that do not come together in one sitting. */
	never: array(
		array(key().required())
			.length(2)
			.test('two', 'A question cannot be kept from itself.', (pair) => !pair || pair[0] !== pair[1])
			.required()
	)
		.max(2000)
		.default([]),
	/** Groups that come whole or not at all, in their order. */
	together: array(array(key().required()).min(1).max(200).required())
		.max(1000)
		.default([])
		.test('once', 'A question stands in two groups.', (groups) => new Set(groups.flat()).size === groups.flat().length),
	partsShuffled: boolean().default(false),
	/** Questions whose options keep their order, also where the options of their part are shuffled. */
	fixedOptions: keys(10_000)
});

/** What counts where somebody sits a quiz more than once. */
export const countedAttempts = ['best', 'last', 'first', 'average'] as const;
/** What a student may be shown afterwards, and when. */
export const shownThings = ['points', 'own answers', 'right answers', 'feedback'] as const;
/** When it is shown. */
export const shownTimes = ['at once', 'after closing', 'never'] as const;

/** What is around a sheet: words, limits, dates, what is shown after, the grade. */
export const quizSettingsShape = object({
	description: string().max(5000, 'A description has 5,000 letters at the most.').default(''),
	instructions: string().max(20_000, 'Instructions have 20,000 letters at the most.').default(''),
	minutes: number().min(1, 'A time limit is at least one minute.').max(20_160).nullable().default(null),
	attempts: number().integer().min(1, 'At least one attempt.').max(1000).nullable().default(null),
	counted: string().oneOf(countedAttempts).default('best'),
	opens: moment().nullable().default(null),
	due: moment().nullable().default(null),
	closes: moment().nullable().default(null),
	shown: array(string().oneOf(shownThings).required()).default(['points', 'feedback']).defined(),
	shownWhen: string().oneOf(shownTimes).default('at once'),
	/** The share of the points from which it is passed, in percent. */
	pass: number().min(0, 'A pass mark is 0 to 100 %.').max(100, 'A pass mark is 0 to 100 %.').nullable().default(null),
	gradeName: string().max(190).default(''),
	/** What the whole quiz is worth in the grades; null for its own points. */
	gradePoints: number().min(0).max(100_000).nullable().default(null),
	gradeScaled: boolean().default(true)
})
	.test('due', 'It is due before it opens.', ({ opens, due }) => !opens || !due || opens <= due)
	.test('closes', 'It closes before it opens or is due.', ({ opens, due, closes }) =>
		[opens, due].every((before) => !before || !closes || before <= closes)
	);

/** The same as types. */
export type KeptConditions = InferType<typeof conditionsShape>;
export type KeptQuota = InferType<typeof quotaShape>;
export type QuotaValue = KeptQuota['values'][number];
export type KeptRules = InferType<typeof sheetRulesShape>;
export type QuizSettings = InferType<typeof quizSettingsShape>;

/** A shape's value where nothing is said. */
export const plainRules = (): KeptRules => sheetRulesShape.cast({});
export const plainSettings = (): QuizSettings => quizSettingsShape.cast({});
export const plainConditions = (): KeptConditions => conditionsShape.cast({});
