import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { undoDeed } from '../changes/undo';
import { run } from '../db/pool';
import { Refused } from '../loads/refused';
import { takeIn } from '../loads/take-in';
import { bankXml, decide, item, loadPackage, makeCourse, testPool } from '../test-support/world';
import { banksOf } from './banks';
import { carryCategories, carryPreview } from './carry';
import { makeBank } from './change';
import { makeCategory } from './categories';
import { categoryTree } from './tree';

const pool = testPool();
afterAll(() => pool.end());
let from: { courseId: number; personId: number };
let to: { courseId: number; personId: number };
let bankId = 0;
let target = 0;
const shape = async (bank: number) =>
	(await categoryTree(pool, bank)).map(({ name, depth, own }) => `${'  '.repeat(depth)}${name} ${own}`);
beforeAll(async () => {
	from = await makeCourse(pool);
	to = await makeCourse(pool);
	await run(pool, "INSERT INTO memberships (person_id, course_id, role) VALUES (?, ?, 'work')", [
		from.personId,
		to.courseId
	]);
	const load = await loadPackage(pool, from, {
		'a.xml': bankXml({
			Tides: [
				item('springs', 'When are springs?', ['Full', 'Half']),
				item('neaps', 'When are neaps?', ['Half', 'Full'])
			],
			Lights: [item('red', 'What is the red light of a vessel for?', ['Port', 'Starboard'])]
		})
	});
	await takeIn(pool, from.courseId, load, from.personId, decide({ bankName: 'Spring' }));
	bankId = (await banksOf(pool, from.courseId))[0]!.id;
	({ bankId: target } = await makeBank(pool, to, 'Autumn'));
	const tides = (await categoryTree(pool, bankId)).find(({ name }) => name === 'Tides')!;
	await makeCategory(pool, from, bankId, tides.id, 'Under tides');
});
const tides = async () => (await categoryTree(pool, bankId)).find(({ name }) => name === 'Tides')!.id;
const carry = async (how: 'move' | 'copy') =>
	carryCategories(pool, from, bankId, [await tides()], { bankId: target, categoryId: null }, how);

const preview = async (to: number) =>
	carryPreview(pool, from, bankId, [await tides()], { bankId: to, categoryId: null });

describe('categories with all under them', () => {
	it('say in numbers what carrying them would come to, and nothing is changed', async () => {
		expect(await preview(target)).toEqual({ inAll: 2, fresh: 2, changed: 0, near: 0, same: 0, categories: 2, made: 2 });
		expect(await shape(target)).toEqual([]);
		expect(await shape(bankId)).toEqual(['Tides 2', '  Under tides 0', 'Lights 1']);
		await expect(preview(bankId)).rejects.toBeInstanceOf(Refused);
	});
	it('are copied to another course, and a second time nothing is doubled', async () => {
		const first = await carry('copy');
		expect(first).toMatchObject({ inAll: 2, fresh: 2, same: 0, questions: 2, categories: 2, made: 2 });
		expect(await shape(target)).toEqual(['Tides 2', '  Under tides 0']);
		expect(await preview(target)).toMatchObject({ inAll: 2, fresh: 0, same: 2, made: 0 });
		const second = await carry('copy');
		expect(second).toMatchObject({ inAll: 2, fresh: 0, same: 2, questions: 0, made: 0 });
		expect(await shape(target)).toEqual(['Tides 2', '  Under tides 0']);
		expect(await shape(bankId)).toEqual(['Tides 2', '  Under tides 0', 'Lights 1']);
	});
	it('are moved, merged by their paths; what is there already goes to the bin, and all comes back', async () => {
		const moved = await carry('move');
		expect(moved).toMatchObject({ inAll: 2, same: 2, questions: 0 });
		expect(moved.words).toContain('2 were there already');
		expect(await shape(bankId)).toEqual(['Lights 1']);
		await undoDeed(pool, from.courseId, from.personId, moved.deedId, false);
		expect(await shape(bankId)).toEqual(['Tides 2', '  Under tides 0', 'Lights 1']);
	});
	it('says what is a change of a question there', async () => {
		const other = await makeCourse(pool);
		const load = await loadPackage(pool, other, {
			'b.xml': bankXml({ Tides: [item('springs', 'When are springs, and why?', ['Full', 'Half'])] })
		});
		await takeIn(pool, other.courseId, load, other.personId, decide({ bankName: 'Older' }));
		const older = (await banksOf(pool, other.courseId))[0]!.id;
		await run(pool, "INSERT INTO memberships (person_id, course_id, role) VALUES (?, ?, 'work')", [
			from.personId,
			other.courseId
		]);
		const copied = await carryCategories(
			pool,
			from,
			bankId,
			[await tides()],
			{ bankId: older, categoryId: null },
			'copy'
		);
		expect(copied).toMatchObject({ inAll: 2, changed: 1, fresh: 1, same: 0 });
		expect(await shape(older)).toEqual(['Tides 3', '  Under tides 0']);
	});
	it('go nowhere that the person may not change, nor where they stand already', async () => {
		const { bankId: theirs } = await makeBank(pool, await makeCourse(pool), 'Theirs');
		for (const [chosen, bank] of [
			[[await tides()], theirs],
			[[await tides()], bankId],
			[[999_999], target],
			[[], target]
		] as [number[], number][])
			await expect(
				carryCategories(pool, from, bankId, chosen, { bankId: bank, categoryId: null }, 'move')
			).rejects.toBeInstanceOf(Refused);
	});
});
