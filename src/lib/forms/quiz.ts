import { array, boolean, number, object, string, type InferType } from 'yup';
import { conditionsShape, difficultyRange, quotaBounds } from '$core/model/sheet';

export { conditionsShape };
export {
	countedAttempts,
	plainSettings,
	quizSettingsShape,
	shownThings,
	shownTimes,
	type QuizSettings
} from '$core/model/quiz-settings';

/** A quiz that is made. */
export const newQuiz = object({
	title: string().trim().max(255, 'A title has 255 letters at the most.').required('Give the quiz a title.')
});

const key = () => number().integer().min(1);
const keys = (most: number) => array(key().required()).max(most).default([]);

const value = object({
	/** The key of a category, or of a bank made negative. */
	category: number().integer(),
	/** A kind or a tag. */
	name: string().max(120),
	/** A range of difficulty. */
	range: difficultyRange().default(undefined)
});

/** A quota: of the drawn questions, so many have a value, or each of several gets its share. */
export const quotaShape = object({
	...quotaBounds,
	values: array(value.required()).min(1, 'A quota needs a value.').max(500).required()
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

/** The same as types. */
export type { KeptConditions } from '$core/model/sheet';
export type KeptQuota = InferType<typeof quotaShape>;
export type QuotaValue = KeptQuota['values'][number];
export type KeptRules = InferType<typeof sheetRulesShape>;

/** A shape's value where nothing is said. */
export const plainRules = (): KeptRules => sheetRulesShape.cast({});
export const plainConditions = () => conditionsShape.cast({});
