import { array, boolean, number, object, string, type InferType } from 'yup';

const moment = () => string().matches(/^\d{4}-\d{2}-\d{2}T\d{2}:\d{2}$/, 'A moment is written as 2026-11-29T09:00.');

/** The longest time limit, in minutes: two weeks. */
export const mostMinutes = 20_160;
/** The longest instructions, in letters. */
export const longestInstructions = 20_000;
/** The most attempts. */
export const mostAttempts = 1000;
/** What counts where somebody sits a quiz more than once. */
export const countedAttempts = ['best', 'last', 'first', 'average'] as const;
/** What a student may be shown afterwards, and when. */
export const shownThings = ['points', 'own answers', 'right answers', 'feedback'] as const;
/** When it is shown. */
export const shownTimes = ['at once', 'after closing', 'never'] as const;

/** What is around a sheet: words, limits, dates, what is shown after, the grade. */
export const quizSettingsShape = object({
	description: string().max(5000, 'A description has 5,000 letters at the most.').default(''),
	instructions: string().max(longestInstructions, 'Instructions have 20,000 letters at the most.').default(''),
	minutes: number().min(1, 'A time limit is at least one minute.').max(mostMinutes).nullable().default(null),
	attempts: number().integer().min(1, 'At least one attempt.').max(mostAttempts).nullable().default(null),
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

/** What is around a quiz. */
export type QuizSettings = InferType<typeof quizSettingsShape>;

/** What is around a quiz of which nothing is said. */
export const plainSettings = (): QuizSettings => quizSettingsShape.cast({});
