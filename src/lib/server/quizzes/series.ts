import { addDays, format, parse } from 'date-fns';
import type { Pool } from 'mysql2/promise';
import { array, boolean, number, object, string, type InferType } from 'yup';
import { plainSettings, type QuizSettings } from '$lib/forms/quiz';
import type { Changer } from '../banks/change';
import { transaction } from '../db/pool';
import { record } from '../ledger/ledger';
import { Refused } from '../loads/refused';
import { blankPart, makeQuizzes, type NewQuiz } from './make';
import { bankTrees } from './pools';
import { quizOf, type Quiz } from './quiz';

const moment = () => string().matches(/^\d{4}-\d{2}-\d{2}T\d{2}:\d{2}$/, 'A moment is written as 2026-11-29T09:00.');
const written = "yyyy-MM-dd'T'HH:mm";

/** A series as it is asked for: one quiz for each category, by one sheet, dated one after the other. */
export const seriesShape = object({
	/** Keys of categories, or of banks made negative. */
	categories: array(number().integer().required())
		.min(1, 'Choose at least one category.')
		.max(200, 'A series has 200 quizzes at the most.')
		.required(),
	/** The quiz whose sheet all of them have; null for a plain one. */
	quizId: number().integer().min(1).nullable().default(null),
	draw: number().integer().min(1, 'Draw at least one question.').max(10_000).nullable().default(null),
	pointsEach: number().min(0).max(100_000).nullable().default(null),
	shuffleOptions: boolean().default(true),
	/** What they are called: {n} stands for the number, {category} for the category. */
	title: string().trim().max(200, 'A title has 200 letters at the most.').required('Say what the quizzes are called.'),
	opens: moment().nullable().default(null),
	everyDays: number().integer().min(1, 'At least one day apart.').max(366).default(7),
	/** How many days after it opens each is due; null for not at all. */
	dueAfter: number().integer().min(0).max(366).nullable().default(null)
});

/** The same as a type. */
export type Series = InferType<typeof seriesShape>;

function datesOf({ opens, everyDays, dueAfter }: Series, at: number): Partial<QuizSettings> {
	if (!opens) return {};
	const first = addDays(parse(opens, written, new Date()), at * everyDays);
	const due = dueAfter === null ? null : format(addDays(first, dueAfter), written);
	return { opens: format(first, written), due, closes: due };
}

/** The sheet of a quiz of the series: that of the quiz it is made after, with the category in the place of its own. */
function sheetOver(category: number, series: Series, like: Quiz | null): Pick<NewQuiz, 'parts' | 'rules'> {
	if (!like)
		return {
			parts: [
				blankPart('Questions', {
					categories: [category],
					draw: series.draw,
					pointsEach: series.pointsEach,
					shuffleOptions: series.shuffleOptions
				})
			]
		};
	return {
		rules: like.rules,
		parts: like.parts.map((part) => ({
			...part,
			lost: [],
			...(part.questions.length
				? {}
				: { categories: [category], quotas: part.quotas.filter(({ by }) => by !== 'category') })
		}))
	};
}

/**
 * Makes a quiz for each of some categories, in the order of the tree, by one sheet; gives their keys. A part of the sheet
 * that lists its questions lists them in each. Throws Refused where the quiz or all categories are gone.
 */
export async function makeSeries(pool: Pool, who: Changer, series: Series): Promise<number[]> {
	return transaction(pool, async (connection) => {
		const like = series.quizId === null ? null : await quizOf(connection, who.courseId, series.quizId);
		if (like === undefined) throw new Refused('The quiz whose sheet they are to have is gone meanwhile.');
		const tree = await bankTrees(connection, who.courseId);
		const meant = tree.filter(({ id }) => series.categories.includes(id));
		if (!meant.length) throw new Refused('These categories are gone meanwhile. Load the page anew.');
		const ids = await makeQuizzes(
			connection,
			who,
			meant.map(({ id, name }, at) => ({
				title: series.title.replaceAll('{n}', String(at + 1)).replaceAll('{category}', name),
				...sheetOver(id, series, like),
				settings: { ...(like?.settings ?? plainSettings()), ...datesOf(series, at) }
			}))
		);
		await record(connection, {
			...who,
			deed: 'made a series of quizzes',
			subject: `${ids.length} quizzes, one for each of ${meant.map(({ name }) => name).join(', ')}`,
			questions: 0,
			address: `/courses/${who.courseId}/quizzes`
		});
		return ids;
	});
}
