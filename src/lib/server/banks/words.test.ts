import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Question } from '$core/kinds';
import { choice, essay, option, short } from '$core/test-support/questions';
import { undoDeed } from '../changes/undo';
import { fillSearchedWords } from '../db/searched-words';
import { row, rows, run } from '../db/pool';
import { insertQuestions, saveQuestions } from '../questions/save';
import { allRows, byDeed, makeCourse, testPool, wholeBank } from '../test-support/world';
import { questionsByWords } from '../quizzes/pool-page';
import type { QuestionFilter } from './filter';

const pool = testPool();
afterAll(() => pool.end());
let course: { courseId: number; personId: number };
let bankId = 0;
let ids: number[] = [];
/** Has more words than have room beside a question; the last of them is said nowhere else. */
const long = essay({
	identifier: 'long',
	title: 'A long case',
	stem: `<p>${Array.from({ length: 900 }, (_, at) => `sounding${at}`).join(' ')} kedging</p>`
});
const knot = choice({
	identifier: 'knot-1',
	title: 'Loops',
	stem: '<p>Which knot makes a loop?</p>',
	options: [option('A', 'A bowline', 1), option('B', 'A clove hitch', 0)]
});
beforeAll(async () => {
	course = await makeCourse(pool);
	({ id: bankId } = await run(pool, 'INSERT INTO banks (course_id, name) VALUES (?, ?)', [course.courseId, 'Words']));
	await byDeed(pool, course, async (connection, by) => {
		ids = await insertQuestions(
			connection,
			course.courseId,
			[
				knot,
				short([{ text: 'Marée', credit: 1, caseSensitive: false }], {
					identifier: 'french',
					title: 'French',
					stem: 'What is a tide called in French?'
				}),
				long
			].map((question) => ({ bankId, categoryId: null, question })),
			by
		);
	});
});
const found = async (words: string, more: Partial<QuestionFilter> = {}) =>
	(await allRows(pool, course.courseId, wholeBank(bankId, { words, ...more }))).map(({ title }) => title);

const change = (at: number, question: Question) =>
	byDeed(pool, course, (connection, by) =>
		saveQuestions(connection, course.courseId, [{ id: ids[at]!, bankId, question }], by)
	);

describe('a question is found by words', () => {
	it('of its title, stem, options and answers, each the beginning of one of its own', async () => {
		expect(await found('loop')).toEqual(['Loops']);
		expect(await found('BOW')).toEqual(['Loops']);
		expect(await found('knot clove')).toEqual(['Loops']);
		expect(await found('line')).toEqual([]);
		expect(await found('knot tide')).toEqual([]);
	});
	it('with and without accents, and by short words too', async () => {
		expect(await found('maree')).toEqual(['French']);
		expect(await found('MARÉ')).toEqual(['French']);
		expect(await found('is a in')).toEqual(['French']);
	});
	it('by any of them where it has very many', async () => {
		expect(await found('kedging')).toEqual(['A long case']);
		expect(await found('sounding1 kedging')).toEqual(['A long case']);
		expect(await found('kedging bowline')).toEqual([]);
	});
	it('in any order, with other filters, and in the quizzes', async () => {
		for (const sort of ['tree', 'title', 'changed', 'snags'] as const)
			for (const down of [false, true]) expect(await found('a', { sort, down }), `${sort} ${down}`).toHaveLength(3);
		expect(await found('a', { sort: 'title' })).toEqual(['A long case', 'French', 'Loops']);
		expect(await found('a', { filters: { kind: 'essay' } })).toEqual(['A long case']);
		expect((await questionsByWords(pool, course.courseId, 'kedg')).map(({ id }) => id)).toEqual([ids[2]]);
	});
	it('and it is told where, if title and stem do not show it', async () => {
		const [shown] = await allRows(pool, course.courseId, wholeBank(bankId, { words: 'knot hitch' }));
		expect(shown!.found).toEqual({ part: 'option 2', before: 'A clove ', text: 'hitch' });
		const [seen] = await allRows(pool, course.courseId, wholeBank(bankId, { words: 'knot' }));
		expect(seen!.found).toBeNull();
	});
	it('that it has now, after a change, and after that is taken back', async () => {
		const changed = await change(0, { ...knot, title: 'Hitches' });
		expect([await found('loop'), await found('hitches')]).toEqual([['Hitches'], ['Hitches']]);
		const less = await change(2, { ...long, stem: 'Short now.' });
		expect([await found('kedging'), await found('short')]).toEqual([[], ['A long case']]);
		for (const deed of [changed, less]) await undoDeed(pool, course.courseId, course.personId, deed, true);
		expect([await found('hitches'), await found('kedging')]).toEqual([[], ['A long case']]);
	});
	it('also where it was written before words were noted', async () => {
		const noted = await rows(pool, 'SELECT id, searched_words FROM questions WHERE id IN (?) ORDER BY id', [ids]);
		await run(pool, "UPDATE questions SET searched_words = '' WHERE id IN (?)", [ids]);
		await run(pool, 'DELETE FROM long_searched_words WHERE question_id IN (?)', [ids]);
		expect(await found('kedging')).toEqual([]);
		await fillSearchedWords(pool, () => undefined);
		expect(await found('kedging')).toEqual(['A long case']);
		expect(await rows(pool, 'SELECT id, searched_words FROM questions WHERE id IN (?) ORDER BY id', [ids])).toEqual(
			noted
		);
		expect(await row(pool, "SELECT COUNT(*) AS n FROM question_versions WHERE searched_words = ''")).toEqual({ n: 0 });
		// a document that is no question any more stops no start
		await run(pool, 'UPDATE questions SET document = \'{"kind":"constructor"}\', searched_words = \'\' WHERE id = ?', [
			ids[1]
		]);
		await fillSearchedWords(pool, () => undefined);
		expect(
			await row(pool, "SELECT searched_words LIKE '% constructor%' AS noted FROM questions WHERE id = ?", [ids[1]])
		).toEqual({ noted: 1 });
	});
});
