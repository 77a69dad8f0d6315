import { afterAll, beforeEach, describe, expect, it } from 'vitest';
import { lacks } from '$lib/forms/lacks';
import { checkCourse } from '../checks/course';
import { run } from '../db/pool';
import { unhindered } from '../jobs/control';
import { takeIn } from '../loads/take-in';
import { allRows, bankXml, decide, item, loadPackage, makeCourse, testPool, wholeBank } from '../test-support/world';
import { banksOf } from './banks';
import { categoryTree } from './tree';
import { weaveOf } from './weave';

const pool = testPool();
afterAll(() => pool.end());
let course: Awaited<ReturnType<typeof makeCourse>>;
let bankId = 0;
beforeEach(async () => {
	course = await makeCourse(pool);
	const load = await loadPackage(pool, course, {
		'bank.xml': bankXml({
			Tides: [
				item('springs', 'When are springs?', ['Full moon', 'Half moon']),
				item('neaps', 'When?', ['Half', 'Full'])
			],
			Lights: [item('q1', 'What is red?', ['Port', 'Starboard'])]
		})
	});
	await takeIn(pool, course.courseId, load, course.personId, decide());
	await run(pool, "UPDATE questions SET verified = NOW(3) WHERE course_id = ? AND title = 'neaps'", [course.courseId]);
	await checkCourse(pool, course.courseId, unhindered);
	bankId = (await banksOf(pool, course.courseId))[0]!.id;
});

describe('what is lacking', () => {
	it('stands in the weave, category by category, and each cell has just the questions that its filter finds', async () => {
		const tree = await categoryTree(pool, bankId);
		const { columns, cells } = await weaveOf(pool, { id: bankId, name: 'Autumn' }, 'lack', tree);
		expect(columns.map(({ value }) => value)).toEqual([...lacks]);
		const titles = async (lack: string, categoryId: number) =>
			(
				await allRows(pool, course.courseId, { ...wholeBank(bankId), categoryId, withUnder: false, filters: { lack } })
			).map(({ title }) => title);
		for (const { id } of tree)
			for (const lack of lacks) {
				const cell = cells.find(({ categoryId, column }) => categoryId === id && column === lack);
				expect((await titles(lack, id)).length).toBe(cell?.questions ?? 0);
			}
		const [tides] = tree;
		expect(await titles('verified', tides!.id)).toEqual(['springs']);
		expect((await titles('feedback', tides!.id)).length).toBe(2);
	});
});
