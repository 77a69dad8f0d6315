import { afterAll, beforeEach, describe, expect, it } from 'vitest';
import { checkCourse } from '../checks/course';
import { row, rows } from '../db/pool';
import { unhindered } from '../jobs/control';
import { takeIn } from '../loads/take-in';
import { bankXml, byDeed, decide, item, loadPackage, makeCourse, testPool } from '../test-support/world';
import { saveQuestions } from '../questions/save';
import { storedQuestion } from '../banks/banks';
import { keepThis } from './keep-one';
import { snagCounts } from './snags';
import { everySnag } from './filter';
import { snagRows } from './list';
import { meanBoth, partnerOf, takeWaiverBack, waive, waiversOf } from './waive';

const pool = testPool();
afterAll(() => pool.end());
let course: Awaited<ReturnType<typeof makeCourse>>;
const long =
	'Which light does a sailing vessel of fifty metres show by night when she lies at anchor near the northern breakwater and the fog signal is on?';
beforeEach(async () => {
	course = await makeCourse(pool);
	const load = await loadPackage(pool, course, {
		'bank.xml': bankXml({
			Tides: [
				item('springs', 'When are springs? Select one:', ['Full moon', 'Half moon']),
				item('neaps', 'When are neaps? Select one:', ['Half', 'Full'])
			],
			Lights: [
				item('north', long, ['White', 'Red']),
				item('south', long.replace('northern', 'southern'), ['White', 'Red']),
				item('red', 'What is red? Select one:', ['Port', 'Starboard'])
			]
		})
	});
	await takeIn(pool, course.courseId, load, course.personId, decide());
	await checkCourse(pool, course.courseId, unhindered);
});
const titled = async (title: string) =>
	(await row<{ id: number }>(pool, 'SELECT id FROM questions WHERE course_id = ? AND title = ?', [
		course.courseId,
		title
	]))!.id;
const open = async (rule: string) =>
	(await snagRows(pool, course.courseId, { ...everySnag, check: rule })).map(({ title }) => title).sort();
const set = (scope: 'question' | 'category' | 'course', questionId: number, rule = 'boilerplate') =>
	waive(pool, course.courseId, course.personId, { rule, scope, questionId, reason: 'They are marked by hand.' });
const change = async (id: number, stem: string) => {
	const { question, bankId } = (await storedQuestion(pool, course.courseId, id))!;
	await byDeed(pool, course, (connection, by) =>
		saveQuestions(connection, course.courseId, [{ id, bankId, question: { ...question, stem } }], by)
	);
};

describe('a snag that is waived', () => {
	it.each([
		['question', ['neaps', 'red'], 1],
		['category', ['red'], 2],
		['course', [], 3]
	] as const)(
		'for a %s is open no more, also after a change, and again once the waiver is taken back',
		async (scope, left, snags) => {
			const id = await titled('springs');
			const done = await set(scope, id);
			expect(done.snags).toBe(snags);
			expect(await open('boilerplate')).toEqual(left);
			await change(id, 'When do springs come? Select one:');
			expect(await open('boilerplate')).toEqual(left);
			await checkCourse(pool, course.courseId, unhindered);
			expect(await open('boilerplate')).toEqual(left);
			expect((await snagCounts(pool, course.courseId)).find(({ rule }) => rule === 'boilerplate')?.questions ?? 0).toBe(
				left.length
			);
			expect(await waiversOf(pool, course.courseId)).toMatchObject([
				{ rule: 'boilerplate', scope, reason: 'They are marked by hand.', by: 'Ines Carrow', snags }
			]);
			await takeWaiverBack(pool, course.courseId, course.personId, done.id);
			expect(await open('boilerplate')).toEqual(['neaps', 'red', 'springs']);
			expect(await rows(pool, 'SELECT id FROM waived_snags WHERE course_id = ?', [course.courseId])).toEqual([]);
			await expect(takeWaiverBack(pool, course.courseId, course.personId, done.id)).rejects.toThrow('already');
		}
	);
	it('of no question, or of another course, is refused', async () => {
		await expect(set('question', await titled('north'))).rejects.toThrow('no open snag');
		const other = await makeCourse(pool);
		await expect(
			waive(pool, other.courseId, other.personId, {
				rule: 'boilerplate',
				scope: 'course',
				questionId: await titled('red'),
				reason: ''
			})
		).rejects.toThrow('no open snag');
	});
});

describe('two that are nearly the same', () => {
	const pair = async () => [await titled('north'), await titled('south')] as const;
	it('are found, both ways, and after a change', async () => {
		const [north, south] = await pair();
		expect(await open('near-duplicate')).toEqual(['north', 'south']);
		expect(await partnerOf(pool, course.courseId, 'near-duplicate', north)).toBe(south);
		await change(south, 'What is a lighthouse for?');
		expect(await open('near-duplicate')).toEqual([]);
		await change(south, long.replace('northern', 'eastern'));
		expect(await open('near-duplicate')).toEqual(['north', 'south']);
	});
	it('are both meant where somebody says so, until that is taken back', async () => {
		const both = await pair();
		const id = await meanBoth(pool, course.courseId, course.personId, 'near-duplicate', both, 'Two harbours.');
		expect(await open('near-duplicate')).toEqual([]);
		await checkCourse(pool, course.courseId, unhindered);
		await change(both[1], long.replace('northern', 'western'));
		expect(await open('near-duplicate')).toEqual([]);
		expect(await waiversOf(pool, course.courseId)).toMatchObject([{ scope: 'pair', subject: 'north and south' }]);
		await takeWaiverBack(pool, course.courseId, course.personId, id);
		expect(await open('near-duplicate')).toEqual(['north', 'south']);
	});
	it('are one once one of them is kept', async () => {
		const [north, south] = await pair();
		expect(await keepThis(pool, course.courseId, course.personId, south, north)).toMatchObject({
			gone: 1,
			kept: { title: 'south' }
		});
		expect(await open('near-duplicate')).toEqual([]);
		await expect(keepThis(pool, course.courseId, course.personId, south, north)).rejects.toThrow('gone already');
	});
});
