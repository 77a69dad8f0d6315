import { afterAll, beforeEach, describe, expect, it } from 'vitest';
import { inherited, plainRules } from '$core/take-in/decision';
import { planTakeIn } from '$core/take-in/plan';
import { choice } from '$core/test-support/questions';
import { written } from '$core/test-support/written';
import { writtenFormat } from '$core/formats';
import { banksOf } from '../banks/banks';
import { row, rows, transaction } from '../db/pool';
import { removeQuestions } from '../questions/remove';
import { quizOf } from '../quizzes/quiz';
import { saveQuiz } from '../quizzes/save';
import { keepOne } from '../snags/keep-one';
import { snagCounts } from '../snags/snags';
import { everySnag } from '../snags/filter';
import { snagRows } from '../snags/list';
import { allListed, bankXml, decide, item, loadPackage, makeCourse, testPool, makeQuiz } from '../test-support/world';
import { undoDeed } from '../changes/undo';
import { asidePage } from './aside-list';
import { decide as decideOn, editStaged, mendStaged } from './decide';
import { receiptHead } from './receipt';
import { stagedQuestion } from './review';
import { likelyBank } from './likely';
import { plannedQuestions, plannedTogether } from './planned';
import { rulesOf } from './rules';
import { checkCourse } from '../checks/course';
import { unhindered } from '../jobs/control';
import { takeIn } from './take-in';
import { undo, undoPreview } from './undo';

const pool = testPool();
afterAll(() => pool.end());
let course: Awaited<ReturnType<typeof makeCourse>>;
beforeEach(async () => {
	course = await makeCourse(pool);
});

const lights = {
	Lights: [item('l1', 'Which light is to port?', ['Red', 'Green']), item('l2', 'Which is astern?', ['White', 'Red'])],
	Marks: [item('m1', 'Which mark is black and yellow?', ['A cardinal mark', 'A port mark'])]
};
const load = (files: Record<string, string>, name = 'package.zip') => loadPackage(pool, course, files, name);
const take = (id: number, more: Parameters<typeof decide>[0] = {}) =>
	takeIn(pool, course.courseId, id, course.personId, decide(more));
const titles = async (where = '1 = 1') =>
	(
		await rows<{ title: string }>(pool, `SELECT title FROM questions WHERE course_id = ? AND ${where} ORDER BY id`, [
			course.courseId
		])
	).map((one) => one.title);
const paper = (refs: string[], title = 'Week 6') =>
	`<questestinterop><assessment ident="Z" title="${title}"><section ident="P" title="Part"><selection_ordering><order order_type="Sequential"/></selection_ordering>${refs.map((ref) => `<itemref linkrefid="i-${ref}"/>`).join('')}</section></assessment></questestinterop>`;
const quizId = async (title = 'Week 6') =>
	(await row<{ id: number }>(pool, 'SELECT id FROM quizzes WHERE course_id = ? AND title = ? ORDER BY id DESC', [
		course.courseId,
		title
	]))!.id;

describe('what a course remembers of a load', () => {
	it('is nothing that changes questions', async () => {
		const rules = {
			...plainRules,
			points: 3,
			shuffle: 'on' as const,
			tags: ['spring'],
			same: 'beside' as const,
			errors: 'each' as const,
			creditSteps: [100, 50, 0],
			creditOtherwise: 'nearest' as const
		};
		await take(await load({ 'a.xml': bankXml(lights) }), rules);
		expect(await rulesOf(pool, course.courseId)).toEqual(inherited(rules));
		expect(await rulesOf(pool, course.courseId)).toMatchObject({
			points: null,
			shuffle: 'keep',
			tags: [],
			creditOtherwise: 'keep',
			same: 'beside',
			errors: 'each'
		});
	});
	it('stands on the receipt with the number of questions that each rule has changed', async () => {
		const id = await load({ 'a.xml': bankXml(lights) });
		await take(id, { points: 3, tags: ['spring'], shuffle: 'off' });
		expect((await receiptHead(pool, id)).effects).toEqual(
			[
				{ rule: 'points', what: 'points set to 3', questions: 3 },
				{ rule: 'shuffle', what: 'option shuffle turned off', questions: 3 },
				{ rule: 'tags', what: 'tagged “spring”', questions: 3 },
				...[{ rule: 'same', what: 'the same as one that is there: taken in beside it', questions: 0 }]
			].sort(
				(a, b) =>
					['same', 'points', 'shuffle', 'tags'].indexOf(a.rule) - ['same', 'points', 'shuffle', 'tags'].indexOf(b.rule)
			)
		);
		expect(await receiptHead(pool, id)).toMatchObject({ bank: { name: 'Autumn' } });
	});
});

describe('a rule for many', () => {
	const bound = bankXml({
		Lights: [
			item('b1', 'What does a red light say?', ['Port', 'Starboard', 'Both A and B']),
			item('b2', 'Which light is to port?', ['Red', 'Green'])
		]
	});
	it('does not undo what a mend has set for one', async () => {
		const id = await load({ 'a.xml': bound });
		const [first] = await allListed(pool, course.courseId, id);
		expect(
			await mendStaged(pool, course.courseId, id, course.personId, 'option-letters', { ids: [first!.id] })
		).toMatchObject({
			mended: 1
		});
		const plan = planTakeIn(await plannedQuestions(pool, course.courseId, id, decide()), decide({ shuffle: 'on' }), []);
		expect(plan.effects.find((one) => one.rule === 'shuffle')).toMatchObject({ questions: 0 });
		await take(id, { shuffle: 'on' });
		const shuffled = await rows<{ document: string }>(
			pool,
			'SELECT document FROM questions WHERE load_id = ? ORDER BY id',
			[id]
		);
		expect(shuffled.map((one) => (JSON.parse(one.document) as { shuffle: boolean }).shuffle)).toEqual([false, true]);
		expect(await snagCounts(pool, course.courseId)).toEqual([]);
	});
	it('does not undo the points that a person has given to one', async () => {
		const id = await load({ 'a.xml': bound });
		const [first, second] = await allListed(pool, course.courseId, id);
		const { question, version } = (await stagedQuestion(pool, course.courseId, id, second!.id))!;
		await editStaged(pool, course.courseId, id, course.personId, second!.id, version, { ...question, points: 7 });
		await decideOn(pool, course.courseId, id, course.personId, { ids: [first!.id] }, { do: 'choose', choice: 'leave' });
		await take(id, { points: 2 });
		expect(await rows(pool, 'SELECT points FROM questions WHERE load_id = ?', [id])).toEqual([{ points: 7 }]);
	});
	it('shows the snag that it brings back, and says so beforehand', async () => {
		const id = await load({ 'a.xml': bound.replaceAll('shuffle="Yes"', 'shuffle="No"') });
		const plan = planTakeIn(await plannedQuestions(pool, course.courseId, id, decide()), decide({ shuffle: 'on' }), []);
		expect(plan.effects.find((one) => one.rule === 'shuffle')).toMatchObject({
			questions: 2,
			what: expect.stringContaining('1 of them') as string
		});
		await take(id, { shuffle: 'on' });
		expect(await snagCounts(pool, course.courseId)).toMatchObject([{ rule: 'option-letters', questions: 1 }]);
	});
});

describe('where a load goes', () => {
	const bankPaths = async () => (await banksOf(pool, course.courseId)).map((bank) => ({ id: bank.id, paths: [] }));
	it('is a new bank, however many there are', async () => {
		await take(await load({ 'a.xml': bankXml(lights) }), { bankName: 'Lights' });
		const other = await load({
			'b.xml': bankXml({ Knots: [item('k1', 'Which knot is a loop?', ['Bowline', 'Reef'])] })
		});
		expect(likelyBank(await plannedTogether(pool, course.courseId, other), await bankPaths())).toBeNull();
	});
	it('is the bank that has most of it already, with how much that is', async () => {
		await take(await load({ 'a.xml': bankXml(lights) }), { bankName: 'Lights' });
		const [bank] = await bankPaths();
		const again = await load({
			'b.xml': bankXml({ ...lights, New: [item('n1', 'Which flag is A?', ['White and blue', 'Red'])] })
		});
		expect(likelyBank(await plannedTogether(pool, course.courseId, again), await bankPaths())).toEqual({
			bankId: bank!.id,
			why: 'questions',
			there: 3,
			of: 4
		});
	});
});

describe('what a load is held against', () => {
	it('is all of the course, the bank it goes to, or nothing', async () => {
		await take(await load({ 'a.xml': bankXml(lights) }), { bankName: 'Lights' });
		const again = await load({ 'a.xml': bankXml(lights) });
		const taken = async (against: 'course' | 'bank' | 'nothing', bankId: number | null = null) =>
			planTakeIn(
				await plannedQuestions(pool, course.courseId, again, { against }),
				decide({ against, same: 'skip', bankId, bankName: 'Second' }),
				[]
			).taken;
		const [bank] = await banksOf(pool, course.courseId);
		expect(await taken('course')).toBe(0);
		expect(await taken('bank')).toBe(3);
		expect(await taken('bank', bank!.id)).toBe(0);
		expect(await taken('nothing', bank!.id)).toBe(3);
		await take(again, { against: 'bank', same: 'skip', bankName: 'Second' });
		expect(await titles()).toHaveLength(6);
	});
	it('does not keep a quiz away whose questions are all there: it points at them', async () => {
		await take(await load({ 'a.xml': bankXml(lights) }), { bankName: 'Lights' });
		const again = await load({ 'a.xml': bankXml(lights), 'quiz.xml': paper(['m1', 'l2']) });
		const plan = await take(again, { same: 'skip', bankName: 'Nothing goes here' });
		expect(plan).toMatchObject({ taken: 0, skipped: 3, refusal: null });
		expect((await banksOf(pool, course.courseId)).map((bank) => bank.name)).toEqual(['Lights']);
		const quiz = (await quizOf(pool, course.courseId, await quizId()))!;
		const named = await rows<{ id: number; title: string }>(
			pool,
			'SELECT id, title FROM questions WHERE course_id = ?',
			[course.courseId]
		);
		expect(quiz.parts[0]!.questions.map((id) => named.find((one) => one.id === id)!.title)).toEqual(['m1', 'l2']);
	});
});

describe('the order of the questions that a part names', () => {
	it('is that of the package, and stays when the quiz is saved', async () => {
		await take(await load({ 'a.xml': bankXml(lights), 'quiz.xml': paper(['m1', 'l2', 'l1']) }));
		const id = await quizId();
		const quiz = (await quizOf(pool, course.courseId, id))!;
		const order = quiz.parts[0]!.questions;
		expect(order).toHaveLength(3);
		expect([...order].sort((a, b) => a - b)).not.toEqual(order);
		const turned = [...order].reverse();
		await saveQuiz(pool, course.courseId, id, { ...quiz, parts: [{ ...quiz.parts[0]!, lost: [], questions: turned }] });
		expect((await quizOf(pool, course.courseId, id))!.parts[0]!.questions).toEqual(turned);
	});
});

describe('taking back a load that a quiz draws from', () => {
	const part = (more: object) => ({
		title: 'Part',
		draw: 1,
		pointsEach: null,
		order: 'shuffled' as const,
		shuffleOptions: true,
		withUnder: true,
		categories: [],
		questions: [],
		...more
	});
	it('names the quiz first, says in it what is gone, and gives it back when the same comes again', async () => {
		const id = await load({ 'a.xml': bankXml(lights) });
		await take(id, { bankName: 'Lights' });
		const [bank] = await banksOf(pool, course.courseId);
		const category = (await row<{ id: number }>(
			pool,
			"SELECT id FROM categories WHERE bank_id = ? AND name = 'Marks'",
			[bank!.id]
		))!.id;
		const first = (await row<{ id: number }>(pool, 'SELECT MIN(id) AS id FROM questions WHERE load_id = ?', [id]))!.id;
		const quiz = await makeQuiz(pool, course.courseId, 'Own');
		await saveQuiz(pool, course.courseId, quiz, {
			title: 'Own',
			state: 'draft',
			version: 1,
			parts: [part({ categories: [category] }), part({ categories: [-bank!.id] }), part({ questions: [first] })]
		});
		expect(await undoPreview(pool, id)).toMatchObject({ quizzes: [{ id: quiz, title: 'Own' }] });
		await undo(pool, course.courseId, id, course.personId);
		const after = (await quizOf(pool, course.courseId, quiz))!;
		expect(after.parts.map((one) => [one.categories, one.questions])).toEqual([
			[[], []],
			[[], []],
			[[], []]
		]);
		expect(after.parts.map((one) => one.lost.map(({ kind, bank: from, name }) => [kind, from, name]))).toEqual([
			[['category', 'Lights', 'Marks']],
			[['bank', 'Lights', '']],
			[['question', 'Lights', 'l1']]
		]);
		// what is lost stays known when the quiz is saved meanwhile
		await saveQuiz(pool, course.courseId, quiz, {
			...after,
			parts: after.parts.map((one) => ({ ...one, lost: one.lost.map((gone) => gone.id) }))
		});
		await take(id, { bankName: 'Lights' });
		const back = (await quizOf(pool, course.courseId, quiz))!;
		expect(back.parts.map((one) => one.lost)).toEqual([[], [], []]);
		expect(back.parts[0]!.categories).toHaveLength(1);
		expect(back.parts[1]!.categories).toHaveLength(1);
		expect(back.parts[2]!.questions).toHaveLength(1);
	});
});

describe('a question that is there twice', () => {
	const twice = {
		'a.xml': bankXml({ Lights: [item('x1', 'Which light is to port?', ['Red', 'Green'])] }),
		'b.xml': bankXml({ Marks: [item('x1', 'Which light is to port?', ['Red', 'Green'])] })
	};
	it('says where the other one is: in the file before, in the bank after, and nowhere once it is gone', async () => {
		const id = await load(twice);
		const [, second] = await allListed(pool, course.courseId, id);
		const said = async () =>
			(await stagedQuestion(pool, course.courseId, id, second!.id))!.reports
				.filter((one) => one.rule === 'exact-duplicate')
				.map((one) => one.message);
		expect(await said()).toEqual(['It says the same as question 1 of this file, “x1”. Keep one of them.']);
		await take(id);
		const [found] = await snagRows(pool, course.courseId, { ...everySnag, check: 'exact-duplicate' });
		expect(found!.message).toBe('It says the same as “x1” in this bank, Lights. Keep one of them.');
		const others = await rows<{ id: number }>(pool, 'SELECT id FROM questions WHERE course_id = ? AND id <> ?', [
			course.courseId,
			found!.questionId
		]);
		await transaction(pool, (connection) =>
			removeQuestions(
				connection,
				course.courseId,
				others.map(({ id }) => id)
			)
		);
		expect(await snagRows(pool, course.courseId, { ...everySnag, check: 'exact-duplicate' })).toEqual([]);
		expect((await snagCounts(pool, course.courseId)).map((one) => one.rule)).not.toContain('exact-duplicate');
	});
	it('is one after one of them is kept: the one that a quiz uses; the other is in the bin, and both are back at a click', async () => {
		const id = await load(twice);
		await take(id);
		const [older, younger] = await rows<{ id: number }>(
			pool,
			'SELECT id FROM questions WHERE load_id = ? ORDER BY id',
			[id]
		);
		const quiz = await makeQuiz(pool, course.courseId, 'Uses the younger');
		await saveQuiz(pool, course.courseId, quiz, {
			title: 'Uses the younger',
			state: 'draft',
			version: 1,
			parts: [
				{
					title: 'Part',
					draw: null,
					pointsEach: null,
					order: 'kept' as const,
					shuffleOptions: true,
					withUnder: true,
					categories: [],
					questions: [younger!.id]
				}
			]
		});
		const { deedId, ...done } = await keepOne(pool, course.courseId, course.personId, older!.id);
		expect(done).toEqual({ kept: { id: younger!.id, title: 'x1' }, gone: 1 });
		const left = 'SELECT COUNT(*) AS n FROM questions WHERE course_id = ?';
		expect(await rows(pool, left, [course.courseId])).toEqual([{ n: 1 }]);
		expect((await quizOf(pool, course.courseId, quiz))!.parts[0]!.questions).toEqual([younger!.id]);
		expect((await snagCounts(pool, course.courseId)).map((one) => one.rule)).not.toContain('exact-duplicate');
		await expect(keepOne(pool, course.courseId, course.personId, younger!.id)).rejects.toThrow('no other question');
		await undoDeed(pool, course.courseId, course.personId, deedId, false);
		expect(await rows(pool, left, [course.courseId])).toEqual([{ n: 2 }]);
		await checkCourse(pool, course.courseId, unhindered);
		expect(await snagRows(pool, course.courseId, { ...everySnag, check: 'exact-duplicate' })).toHaveLength(2);
	});
});

describe('a wrong key', () => {
	it('is one snag, and marking the key ends it', async () => {
		const id = await load({ 'a.txt': '1. Which light is to port?\na) Red\nb) Green\nAnswer: E\n' }, 'a.zip');
		const [first] = await allListed(pool, course.courseId, id);
		expect(first!.marks.filter(({ severity }) => severity === 'broken')).toEqual([
			{ rule: 'lost-key', severity: 'broken' }
		]);
		const { question, version } = (await stagedQuestion(pool, course.courseId, id, first!.id))!;
		const keyed = {
			...question,
			options: (question as unknown as { options: { credit: number }[] }).options.map((option, at) => ({
				...option,
				credit: at ? 0 : 1
			}))
		};
		expect(await editStaged(pool, course.courseId, id, course.personId, first!.id, version, keyed)).toBe('kept');
		expect(await allListed(pool, course.courseId, id)).toMatchObject([
			{ marks: [{ rule: 'no-title' }], broken: false }
		]);
		expect((await stagedQuestion(pool, course.courseId, id, first!.id))!.question).toMatchObject({ lostKeys: [] });
	});
});

describe('an item that is not well-formed', () => {
	it('counts, is set aside, and is taken in once its markup is put right, with its picture', async () => {
		const bytes = await written(writtenFormat('qti21')!, [
			choice({ title: 'One' }),
			choice({ title: 'Two', stem: '<p>Port &amp; starboard?</p>' })
		]);
		const { unzipSync } = await import('fflate');
		const files = Object.fromEntries(
			Object.entries(unzipSync(bytes)).map(([path, content]) => [path, new TextDecoder().decode(content)])
		);
		const path = Object.keys(files).find((name) => files[name]!.includes('Port &amp; starboard'))!;
		const id = await load({ ...files, [path]: files[path]!.replace('&amp;', '&') });
		const found = await allListed(pool, course.courseId, id);
		expect(found.map((one) => [one.title, one.kind, one.broken])).toEqual([
			['One', 'multiple-choice', false],
			['Two', 'unreadable', true]
		]);
		expect(await take(id, { bankName: 'Port' })).toMatchObject({ found: 2, taken: 1, aside: 1 });
		expect(await mendStaged(pool, course.courseId, id, course.personId, 'unreadable', { ids: [found[1]!.id] })).toEqual(
			{
				mended: 1,
				left: 0
			}
		);
		expect((await asidePage(pool, course.courseId, { loadId: null, from: 0 })).rows).toMatchObject([
			{ title: 'Two', kind: 'multiple-choice', broken: false }
		]);
	});
});
