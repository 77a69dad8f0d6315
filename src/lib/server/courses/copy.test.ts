import { afterAll, describe, expect, it } from 'vitest';
import { banksOf, storedQuestion } from '../banks/banks';
import { categoryTree } from '../banks/tree';
import { checkCourse } from '../checks/course';
import { rows, run } from '../db/pool';
import { unhindered } from '../jobs/control';
import { takeIn } from '../loads/take-in';
import { gatherQuestions, namedBy } from '../quizzes/gather';
import { quizzesOf } from '../quizzes/quizzes';
import { quizOf } from '../quizzes/quiz';
import { saveQuiz } from '../quizzes/save';
import { undoDeed } from '../changes/undo';
import { bankXml, decide, item, loadPackage, makeCourse, testPool, makeQuiz } from '../test-support/world';
import { copyCourse } from './copy';
import { settingsOf } from './settings';
import { saveSettings } from './settings';
import { plainSettings } from '$lib/forms/course-settings';

const pool = testPool();
afterAll(() => pool.end());

async function filled() {
	const course = await makeCourse(pool);
	const load = await loadPackage(pool, course, {
		'a.xml': bankXml({
			Tides: [
				item('springs', 'When are springs?', ['Full', 'Half']),
				item('none', 'When are neaps? (Select one)', ['Half', 'Full'])
			],
			Lights: [item('red', 'What is red?', ['Port', 'Starboard'])]
		})
	});
	await takeIn(pool, course.courseId, load, course.personId, decide({ bankName: 'Spring' }));
	await checkCourse(pool, course.courseId, unhindered);
	const bank = (await banksOf(pool, course.courseId))[0]!;
	const tree = await categoryTree(pool, bank.id);
	const questions = await rows<{ id: number }>(pool, 'SELECT id FROM questions WHERE course_id = ? ORDER BY id', [
		course.courseId
	]);
	const quizId = await makeQuiz(pool, course.courseId, 'Week 1');
	const part = {
		title: 'A',
		draw: null,
		pointsEach: 1,
		order: 'kept' as const,
		shuffleOptions: true,
		withUnder: true
	};
	await saveQuiz(pool, course.courseId, quizId, {
		title: 'Week 1',
		state: 'draft',
		version: 1,
		parts: [
			{ ...part, categories: [], questions: questions.map(({ id }) => id).reverse() },
			{ ...part, title: 'B', categories: [tree[1]!.id, -bank.id], questions: [] }
		]
	});
	return { course, bank, tree, questions: questions.map(({ id }) => id), quizId };
}
const code = () => `COPY-${Math.random().toString(36).slice(2)}`;

describe('a copy of a course', () => {
	it('has its banks, categories and questions, and quizzes that draw from these', async () => {
		const { course, questions } = await filled();
		await saveSettings(pool, course.courseId, course.personId, { ...plainSettings, language: 'de', points: 3 });
		const details = { code: code(), name: 'Autumn', intake: 'autumn' };
		const copy = await copyCourse(pool, course.courseId, course.personId, details, { quizzes: true, rules: true });
		if ('taken' in copy) throw new Error(copy.taken);
		expect(copy).toMatchObject({ banks: 1, questions: 3, quizzes: 1 });
		const bank = (await banksOf(pool, copy.id))[0]!;
		expect([bank.name, bank.questions]).toEqual(['Spring', 3]);
		const tree = await categoryTree(pool, bank.id);
		expect(tree.map(({ name, all }) => [name, all])).toEqual([
			['Tides', 2],
			['Lights', 1]
		]);
		const quiz = (await quizOf(pool, copy.id, (await quizzesOf(pool, copy.id))[0]!.id))!;
		expect(quiz.parts[1]!.categories.sort()).toEqual([-bank.id, tree[1]!.id].sort());
		expect(quiz.parts[0]!.questions).toHaveLength(3);
		expect(quiz.parts[0]!.questions.some((id) => questions.includes(id))).toBe(false);
		const first = (await storedQuestion(pool, copy.id, quiz.parts[0]!.questions[2]!))!;
		expect(first.question.stem).toContain('When are springs?');
		expect(await settingsOf(pool, copy.id)).toMatchObject({ language: 'de', points: 3 });
		await checkCourse(pool, copy.id, unhindered);
		const snags = await rows<{ rule: string }>(
			pool,
			"SELECT rule FROM snags WHERE course_id = ? AND rule = 'boilerplate'",
			[copy.id]
		);
		expect(snags).toHaveLength(1);
		expect(
			await copyCourse(pool, course.courseId, course.personId, details, { quizzes: false, rules: false })
		).toHaveProperty('taken');
	});
	it('has neither quizzes nor rules where these are not asked for', async () => {
		const { course } = await filled();
		const copy = await copyCourse(
			pool,
			course.courseId,
			course.personId,
			{ code: code(), name: 'Bare', intake: '' },
			{ quizzes: false, rules: false }
		);
		expect(await quizzesOf(pool, (copy as { id: number }).id)).toEqual([]);
	});
});

describe('settings of a course', () => {
	it('turn a check off, whose snags are gone then, and on again', async () => {
		const { course } = await filled();
		const count = async () =>
			(await rows(pool, "SELECT id FROM snags WHERE course_id = ? AND rule = 'boilerplate'", [course.courseId])).length;
		expect(await count()).toBe(1);
		await saveSettings(pool, course.courseId, course.personId, { ...plainSettings, checksOff: ['boilerplate'] });
		expect(await count()).toBe(0);
		await run(pool, 'UPDATE questions SET checked = 0 WHERE course_id = ?', [course.courseId]);
		await checkCourse(pool, course.courseId, unhindered);
		expect(await count()).toBe(0);
		await saveSettings(pool, course.courseId, course.personId, plainSettings);
		await checkCourse(pool, course.courseId, unhindered);
		expect(await count()).toBe(1);
	});
});

describe('questions that quizzes name', () => {
	it('are gathered into one bank and category, the quizzes naming them as before, and back', async () => {
		const { course, questions, quizId, bank } = await filled();
		await run(pool, 'UPDATE questions SET category_id = NULL WHERE id = ?', [questions[0]]);
		expect(await namedBy(pool, course.courseId, [quizId])).toEqual({ questions: 3, loose: 1, banks: 1 });
		const done = await gatherQuestions(pool, course, [quizId], {
			bankId: null,
			bankName: 'Shared',
			category: 'Week 1',
			looseOnly: true
		});
		expect(done.questions).toBe(1);
		expect((await categoryTree(pool, done.bankId)).map(({ name, all }) => [name, all])).toEqual([['Week 1', 1]]);
		expect((await quizOf(pool, course.courseId, quizId))!.parts[0]!.questions).toEqual([...questions].reverse());
		const all = await gatherQuestions(pool, course, [quizId], {
			bankId: done.bankId,
			bankName: '',
			category: 'Week 1',
			looseOnly: false
		});
		expect(all.questions).toBe(2);
		await undoDeed(pool, course.courseId, course.personId, all.deedId, false);
		await undoDeed(pool, course.courseId, course.personId, done.deedId, false);
		expect((await banksOf(pool, course.courseId)).map(({ id }) => id)).toEqual([bank.id]);
		await expect(
			gatherQuestions(pool, course, [999_999], { bankId: bank.id, bankName: '', category: '', looseOnly: false })
		).rejects.toThrow('no such questions');
	});
});
