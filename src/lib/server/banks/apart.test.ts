import { afterAll, beforeEach, describe, expect, it } from 'vitest';
import { undoDeed } from '../changes/undo';
import { rows, run } from '../db/pool';
import { Refused } from '../loads/refused';
import { takeIn } from '../loads/take-in';
import { quizOf } from '../quizzes/quiz';
import { blankPart, makeWholeQuiz } from '../quizzes/make';
import { bankXml, decide, item, loadPackage, makeCourse, testPool } from '../test-support/world';
import { copyBank, splitBank } from './apart';
import { banksOf } from './banks';
import { makeBank } from './change';
import { makeCategory } from './categories';
import { categoryTree } from './tree';

const pool = testPool();
afterAll(() => pool.end());
let from: { courseId: number; personId: number };
let to: { courseId: number; personId: number };
let bankId = 0;
const shape = async (bank: number) =>
	(await categoryTree(pool, bank)).map(({ name, depth, own }) => `${'  '.repeat(depth)}${name} ${own}`);
const named = async (name: string) => (await categoryTree(pool, bankId)).find((node) => node.name === name)!.id;
const names = async (courseId: number) =>
	(await banksOf(pool, courseId)).map(({ name, questions }) => [name, questions]);
const course = () => ({ id: to.courseId, name: 'Radio', code: 'RP-S27' });
beforeEach(async () => {
	from = await makeCourse(pool);
	to = await makeCourse(pool);
	await run(pool, "INSERT INTO memberships (person_id, course_id, role) VALUES (?, ?, 'work')", [
		from.personId,
		to.courseId
	]);
	const load = await loadPackage(pool, from, {
		'a.xml': bankXml({
			'': [item('start', 'Which flag is first?', ['Alfa', 'Bravo'])],
			Tides: [item('springs', 'When are springs?', ['Full', 'Half'])],
			Lights: [item('red', 'Which side is the red light of a vessel on?', ['Port', 'Starboard'])]
		})
	});
	await takeIn(pool, from.courseId, load, from.personId, decide({ bankName: 'Spring' }));
	bankId = (await banksOf(pool, from.courseId))[0]!.id;
	await makeCategory(pool, from, bankId, await named('Tides'), 'Neaps');
	await run(pool, "UPDATE questions SET category_id = ? WHERE bank_id = ? AND title = 'red'", [
		await named('Neaps'),
		bankId
	]);
});

describe('a bank', () => {
	it('is copied to another course with its categories and questions, and the copy is taken back', async () => {
		const done = await copyBank(pool, from, bankId, 'Spring', course());
		expect(done.words).toContain('is copied as “Spring” in Radio (RP-S27), with 3 questions');
		expect(await shape(done.bankId)).toEqual(['Tides 1', '  Neaps 1', 'Lights 0']);
		expect(await names(to.courseId)).toEqual([['Spring', 3]]);
		expect(await names(from.courseId)).toEqual([['Spring', 3]]);
		await undoDeed(pool, from.courseId, from.personId, done.deedId, false);
		expect(await names(to.courseId)).toEqual([]);
		expect(await names(from.courseId)).toEqual([['Spring', 3]]);
	});
	it('is copied in its course under a name of its own', async () => {
		const done = await copyBank(pool, from, bankId, 'Spring', { ...course(), id: from.courseId });
		expect(await names(from.courseId)).toEqual([
			['Spring', 3],
			['Spring (2)', 3]
		]);
		expect(done.courseId).toBe(from.courseId);
	});
});

describe('a category', () => {
	it('becomes a bank of its own, from which quizzes draw then, and comes back', async () => {
		const quizId = await makeWholeQuiz(pool, from, {
			title: 'Week 6 check',
			parts: [
				blankPart('All tides', { categories: [await named('Tides')] }),
				blankPart('Neaps', { categories: [await named('Neaps')] })
			]
		});
		const done = await splitBank(pool, from, bankId, await named('Tides'), 'Tides of all kinds');
		expect(done).toMatchObject({
			questions: 2,
			words: '“Tides” is the bank “Tides of all kinds” now, with 2 questions.'
		});
		expect(await shape(done.bankId)).toEqual(['Neaps 1']);
		expect(await shape(bankId)).toEqual(['Lights 0']);
		const atTop = await rows<{ title: string }>(
			pool,
			'SELECT title FROM questions WHERE bank_id = ? AND category_id IS NULL',
			[done.bankId]
		);
		expect(atTop.map(({ title }) => title)).toEqual(['springs']);
		const [neaps] = await categoryTree(pool, done.bankId);
		const quiz = (await quizOf(pool, from.courseId, quizId))!;
		expect(quiz.parts.map(({ categories }) => categories)).toEqual([[-done.bankId], [neaps!.id]]);
		await undoDeed(pool, from.courseId, from.personId, done.deedId, false);
		expect(await shape(bankId)).toEqual(['Tides 1', '  Neaps 1', 'Lights 0']);
		expect(await names(from.courseId)).toEqual([['Spring', 3]]);
	});
	it('becomes none where another bank has the name, and nothing is changed then', async () => {
		await makeBank(pool, from, 'Autumn');
		await expect(splitBank(pool, from, bankId, await named('Tides'), 'Autumn')).rejects.toThrow(Refused);
		await expect(splitBank(pool, from, bankId, 2 ** 30, 'Other')).rejects.toThrow(Refused);
		expect(await shape(bankId)).toEqual(['Tides 1', '  Neaps 1', 'Lights 0']);
	});
});
