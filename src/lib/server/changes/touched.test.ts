import * as fc from 'fast-check';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { applyEdit, type EditAsked } from '$core/edits';
import { exampleQuestions } from '$core/formats/examples';
import type { Question } from '$core/kinds';
import { insertQuestions } from '../questions/save';
import { run } from '../db/pool';
import { byDeed, makeCourse, testPool } from '../test-support/world';
import { touchedBy } from './touched';

const pool = testPool();
afterAll(() => pool.end());
let course: { courseId: number; personId: number };
let ids: number[] = [];
const long = 'x'.repeat(60);
/** Examples of all kinds, some with what the columns have only the beginning of. */
const questions: Question[] = [
	...exampleQuestions,
	...exampleQuestions.slice(0, 6).map((question, at): Question => ({
		...question,
		identifier: `more-${at}`,
		points: [null, 0, 0.5, 1, 2, 1][at]!,
		tags: [['Tides'], ['tides'], [], ['Tides', 'Marées'], ['Tides'], ['b']][at]!,
		difficulty: ['', 'easy', 'Easy', long, `${long}y`, 'hard'][at]!,
		language: [null, 'en', 'EN', 'en-GB', 'de', 'fr'][at]!
	}))
];
beforeAll(async () => {
	course = await makeCourse(pool);
	const { id: bankId } = await run(pool, 'INSERT INTO banks (course_id, name) VALUES (?, ?)', [
		course.courseId,
		'Examples'
	]);
	await byDeed(pool, course, async (connection, by) => {
		ids = await insertQuestions(
			connection,
			course.courseId,
			questions.map((question) => ({ bankId, categoryId: null, question })),
			by
		);
	});
});

const tags = fc.subarray(['Tides', 'tides', 'Marées', 'b', 'none of these'], { maxLength: 2 });
const anyEdit: fc.Arbitrary<EditAsked> = fc.oneof(
	fc.record({ edit: fc.constant('points' as const), points: fc.constantFrom(0, 0.5, 1, 2, 7) }),
	fc.record({ edit: fc.constant('tags' as const), add: tags, remove: tags }),
	fc.record({ edit: fc.constant('shuffle' as const), on: fc.boolean() }),
	fc.record({
		edit: fc.constant('difficulty' as const),
		difficulty: fc.constantFrom('', 'easy', 'Easy', long, 'hard')
	}),
	fc.record({ edit: fc.constant('language' as const), language: fc.constantFrom('', 'en', 'EN', 'en-GB', 'fr') })
);

describe('the questions that an edit changes', () => {
	it('are told by their columns as by trying it', async () => {
		await fc.assert(
			fc.asyncProperty(anyEdit, async (what) => {
				const tried = ids.filter((_, at) => applyEdit(questions[at]!, what) !== questions[at]);
				expect(await touchedBy(pool, course.courseId, ids, what)).toEqual(tried);
			}),
			{ numRuns: 120 }
		);
	});
	it('are not told by columns where words are replaced or options pinned', async () => {
		expect(await touchedBy(pool, course.courseId, ids, { edit: 'pin', on: true } as never)).toBeNull();
	});
});
