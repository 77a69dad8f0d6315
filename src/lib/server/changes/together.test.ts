import { afterAll, expect, it } from 'vitest';
import { checkCourse } from '../checks/course';
import { rows, run } from '../db/pool';
import { unhindered } from '../jobs/control';
import { fillCourse } from '../test-support/fill';
import { makeCourse, testPool } from '../test-support/world';
import { doBulk, type Bulk } from './bulk';
import { undoDeed } from './undo';

const pool = testPool();
afterAll(() => pool.end());

it('a change of more questions than are written at once says of them what checking all of the course says, and so does its way back', async () => {
	const { personId } = await makeCourse(pool);
	const { id: courseId, bank } = await fillCourse(pool, personId, 1200);
	// of questions that are all nearly the same, which ones are named hangs on the order in which they were looked at
	const snags = () =>
		rows<{ id: number; rule: string; message: string }>(
			pool,
			"SELECT question_id AS id, rule, message FROM snags WHERE course_id = ? AND rule <> 'near-duplicate' ORDER BY question_id, rule, message",
			[courseId]
		);
	const asCheckedAnew = async () => {
		const found = await snags();
		await run(pool, 'UPDATE questions SET checked = 0 WHERE course_id = ?', [courseId]);
		await checkCourse(pool, courseId, unhindered);
		expect(found).toEqual(await snags());
		return new Set(found.map(({ rule }) => rule));
	};
	await checkCourse(pool, courseId, unhindered);
	const before = await snags();
	const change = (which: object, what: object) =>
		doBulk(pool, courseId, personId, {
			do: 'edit',
			chosen: {
				bankId: bank,
				filters: {},
				words: '',
				categoryId: null,
				withUnder: true,
				except: [],
				ids: undefined,
				...which
			},
			what
		} as unknown as Bulk);
	const first = await change({}, { edit: 'tags', add: ['Lights'], remove: [] });
	expect(first.questions).toBe(1200);
	await asCheckedAnew();
	const second = await change({ filters: { kind: 'numeric' } }, { edit: 'tags', add: ['lights'], remove: ['Lights'] });
	expect(second.questions).toBe(240);
	expect(await asCheckedAnew()).toContain('tags-case');
	const third = await change({ words: 'number 7' }, { edit: 'points', points: 40 });
	expect(third.questions).toBe(111);
	expect(await asCheckedAnew()).toContain('points-far');
	for (const { deedId } of [third, second, first]) {
		await undoDeed(pool, courseId, personId, deedId, true);
		await asCheckedAnew();
	}
	expect(await snags()).toEqual(before);
});
