import { afterAll, beforeEach, describe, expect, it } from 'vitest';
import { banksOf } from '../banks/banks';
import { row, rows } from '../db/pool';
import { allListed, bankXml, decide as decision, item, loadPackage, makeCourse, testPool } from '../test-support/world';
import { chooseSource } from './decide';
import { Refused } from './refused';
import { sourcesOf } from './sources';
import { usedFiles } from './used-files';
import { takeIn } from './take-in';
import { undo } from './undo';

const pool = testPool();
afterAll(() => pool.end());
let course: Awaited<ReturnType<typeof makeCourse>>;
beforeEach(async () => {
	course = await makeCourse(pool);
});

const staged = (id: number) => allListed(pool, course.courseId, id);
const categories = async (id: number) => (await staged(id)).map((one) => one.category);
const choose = (id: number, source: Parameters<typeof chooseSource>[3]) =>
	chooseSource(pool, id, course.personId, source);
const inCategory = (ident: string, category: string) =>
	item(ident, `What is ${ident}?`, ['Port', 'Starboard']).replace(
		'<presentation>',
		`<itemmetadata><qtimetadata><qtimetadatafield><fieldlabel>cc_question_category</fieldlabel><fieldentry>${category}</fieldentry></qtimetadatafield></qtimetadata></itemmetadata><presentation>`
	);

describe('the categories of a load', () => {
	it('come from the folders of the package, and from the package again', async () => {
		const id = await loadPackage(pool, course, {
			'lights/a.xml': bankXml({ Old: [item('a', 'Which light is red?', ['Port', 'Starboard'])] }),
			'knots/b.xml': bankXml({ Old: [item('b', 'Which knot is a loop?', ['Bowline', 'Bend'])] })
		});
		expect(await sourcesOf(pool, id)).toEqual({ others: ['folders'], now: 'package' });
		await choose(id, 'folders');
		expect((await categories(id)).sort()).toEqual(['knots', 'lights']);
		expect((await sourcesOf(pool, id)).now).toBe('folders');
		await choose(id, 'package');
		expect(await categories(id)).toEqual(['Old', 'Old']);
	});
	it('come from its sections or from its metadata, where both say something', async () => {
		const id = await loadPackage(pool, course, {
			'bank.xml': bankXml({ Week: [inCategory('a', 'Lights / Side'), inCategory('b', 'Lights / Stern')] })
		});
		expect(await sourcesOf(pool, id)).toEqual({ others: ['metadata'], now: 'package' });
		expect(await categories(id)).toEqual(['Week', 'Week']);
		await choose(id, 'metadata');
		expect(await categories(id)).toEqual(['Lights\nSide', 'Lights\nStern']);
		expect((await sourcesOf(pool, id)).now).toBe('metadata');
	});
	it('have no other source where the package says it in one way only', async () => {
		const id = await loadPackage(pool, course, {
			'bank.xml': bankXml({ Old: [item('a', 'Which?', ['Port', 'Aft'])] })
		});
		expect(await sourcesOf(pool, id)).toEqual({ others: [], now: 'package' });
	});
});

const quiz = (inner: string) =>
	`<questestinterop><assessment ident="Q" title="Spring quiz"><section ident="P" title="Part one">${inner}</section></assessment></questestinterop>`;

describe('questions that stand only in a quiz', () => {
	const load = () =>
		loadPackage(pool, course, {
			'bank.xml': bankXml({ Lights: [item('a', 'Which light is red?', ['Port', 'Starboard'])] }),
			'quiz.xml': quiz(item('b', 'Which knot is a loop?', ['Bowline', 'Bend']) + '<itemref linkrefid="i-a"/>')
		});
	const take = (id: number, more: Parameters<typeof decision>[0]) =>
		takeIn(pool, course.courseId, id, course.personId, decision(more));
	const banks = async () => (await banksOf(pool, course.courseId)).map((one) => `${one.name}: ${one.questions}`).sort();

	it('are told from those that stand in a bank too', async () => {
		const found = await staged(await load());
		expect(found.map((one) => [one.title, one.quizOnly])).toEqual([
			['a', false],
			['b', true]
		]);
	});
	it('go to the bank that is chosen for them, and the quiz refers to both banks', async () => {
		const id = await load();
		await take(id, { bankName: 'Main', quizBank: { bankId: null, bankName: 'From quizzes' } });
		expect(await banks()).toEqual(['From quizzes: 1', 'Main: 1']);
		expect(
			await rows(
				pool,
				'SELECT b.name, COALESCE(c.name, NULL) AS category FROM quiz_part_questions p JOIN quiz_parts t ON t.id = p.part_id JOIN quizzes z ON z.id = t.quiz_id JOIN questions q ON q.id = p.question_id JOIN banks b ON b.id = q.bank_id LEFT JOIN categories c ON c.id = q.category_id WHERE z.course_id = ? ORDER BY b.name',
				[course.courseId]
			)
		).toEqual([
			{ name: 'From quizzes', category: 'Part one' },
			{ name: 'Main', category: 'Lights' }
		]);
		await undo(pool, course.courseId, id, course.personId);
		expect(await banks()).toEqual([]);
	});
	it('go with the others where nothing else is chosen', async () => {
		await take(await load(), { bankName: 'Main' });
		expect(await banks()).toEqual(['Main: 2']);
	});
	it('need no other bank where there are no others', async () => {
		const id = await loadPackage(pool, course, {
			'quiz.xml': quiz(item('b', 'Which knot is a loop?', ['Bowline', 'Bend']))
		});
		await take(id, { bankName: '', quizBank: { bankId: null, bankName: 'From quizzes' } });
		expect(await banks()).toEqual(['From quizzes: 1']);
		expect(
			(await row<{ bank_id: number }>(pool, 'SELECT bank_id FROM loads WHERE id = ?', [id]))!.bank_id
		).toBeTruthy();
	});
	it('are not taken in where the bank for them has no name', async () => {
		const id = await load();
		await expect(take(id, { bankName: 'Main', quizBank: { bankId: null, bankName: ' ' } })).rejects.toBeInstanceOf(
			Refused
		);
		expect(await banks()).toEqual([]);
	});
});

describe('pictures that questions share', () => {
	it('are listed with how many questions use them', async () => {
		const picture = '<matimage uri="flag.svg" imagtype="image/svg+xml"/>';
		const id = await loadPackage(pool, course, {
			'bank.xml': bankXml({
				Flags: [
					item('a', 'Which flag?', ['A', 'B'], 'A', picture),
					item('b', 'And this?', ['C', 'D'], 'A', picture),
					item('c', 'Its lamp?', ['E', 'F'], 'A', picture.replace('flag', 'lamp'))
				]
			}),
			'flag.svg': '<svg xmlns="http://www.w3.org/2000/svg"/>',
			'lamp.svg': '<svg xmlns="http://www.w3.org/2000/svg"><g/></svg>'
		});
		expect(await usedFiles(pool, id)).toMatchObject({
			count: 2,
			shared: [{ name: 'flag.svg', uses: 2, hash: expect.stringMatching(/^[0-9a-f]{64}$/) as unknown }]
		});
	});
});
