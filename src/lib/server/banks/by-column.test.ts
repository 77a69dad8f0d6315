import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { Generator } from '$core/numbers/generator';
import { countsOf, touchCourse } from '../courses/counts';
import { rows, run } from '../db/pool';
import { fillCourse } from '../test-support/fill';
import { makeCourse, testPool, wholeBank } from '../test-support/world';
import { keysByColumn, type FilterByColumn } from './by-column';
import { stretchesOf } from './stretches';
import { keptTree } from './tree';

const pool = testPool();
afterAll(() => pool.end());
const size = 120;
const window = 7;
let course: Awaited<ReturnType<typeof fillCourse>>;
beforeAll(async () => {
	course = await fillCourse(pool, (await makeCourse(pool)).personId, size);
	// values that many have, and none at all
	await run(
		pool,
		"UPDATE questions SET points = IF(id % 3, id % 4, NULL), title = CONCAT('Light ', id % 5), stem_text = CONCAT('Which ', id % 7), tags = IF(id % 2, '[]', CONCAT('[\"', id % 3, '\"]')), machine = id % 5 = 0, verified = IF(id % 4, NULL, NOW()), disputed = IF(id % 9, NULL, 'why'), changed = IF(id % 2, NULL, '2026-11-03 10:00:00.125') WHERE course_id = ?",
		[course.id]
	);
	await touchCourse(pool, course.id);
});

describe('a window of a list that is ordered by a column', () => {
	const orders = (
		[
			['title', 'title'],
			['stem', 'stem_start'],
			['kind', 'kind'],
			['points', 'points'],
			['tags', 'tags_start'],
			['difficulty', 'difficulty'],
			['language', 'language'],
			['key', 'key_rank'],
			['created', 'created'],
			['changed', 'changed']
		] as const
	).flatMap(([sort, column]) => [false, true].map((down) => [sort, down, column] as const));
	it.each(orders)('is the same wherever one came from: by %s, from the greatest: %s', async (sort, down, column) => {
		const way = down ? 'DESC' : 'ASC';
		const wholeList = (
			await rows<{ id: number }>(
				pool,
				`SELECT id FROM questions WHERE bank_id = ? ORDER BY ${column} ${way}, id ${way}`,
				[course.bank]
			)
		).map(({ id }) => id);
		const filter: FilterByColumn = { ...wholeBank(course.bank, { down }), sort };
		const counts = await countsOf(pool, course.id);
		const tree = await keptTree(pool, course.bank, counts);
		const stretches = await stretchesOf(pool, filter, tree, counts);
		const random = new Generator(`${sort} ${way}`);
		for (let jump = 0; jump < 30; jump += 1) {
			const from = random.below(size + 3);
			const keys = await keysByColumn(pool, filter, tree, stretches, { from, count: window, state: counts.state });
			expect(keys, `from ${from}`).toEqual(wholeList.slice(from, from + window));
		}
	});
});
