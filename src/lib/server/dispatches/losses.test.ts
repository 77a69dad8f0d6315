import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { storedQuestion } from '../banks/banks';
import { row, rows, run } from '../db/pool';
import { Stopped, unhindered } from '../jobs/control';
import { saveQuestions } from '../questions/save';
import { quizOf } from '../quizzes/quiz';
import { saveQuiz } from '../quizzes/save';
import { fillCourse } from '../test-support/fill';
import { byDeed, makeCourse, testPool } from '../test-support/world';
import { lossesOf, lossTable, workOutLosses, workOutSoon, type LossProgress, type LossTable } from './losses';

const pool = testPool();
afterAll(() => pool.end());
let course: Awaited<ReturnType<typeof fillCourse>>;
const size = 450;
beforeAll(async () => {
	course = await fillCourse(pool, (await makeCourse(pool)).personId, size);
});
const ask = () => lossesOf(pool, course.id, { bankId: course.bank }, 'qti12');
const inAll = ({ lines }: LossTable) => lines.reduce((sum, line) => sum + line.count, 0);

describe('what a format would lose of many questions', () => {
	it('is worked out in the background, says how far it is, and goes on where it was stopped', async () => {
		const progress = (await ask()) as LossProgress;
		expect(progress).toMatchObject({ done: 0, stopped: true });
		await workOutSoon(pool, course.id, progress.id);
		expect(await ask()).toMatchObject({ id: progress.id, stopped: false });
		let steps = 0;
		const twice = {
			check: () => {
				steps += 1;
				if (steps > 1) throw new Stopped();
			}
		};
		await expect(workOutLosses(pool, progress.id, twice)).rejects.toThrow(Stopped);
		const known = await row<{ n: number }>(
			pool,
			'SELECT COUNT(*) AS n FROM question_losses l JOIN questions q ON q.id = l.question_id WHERE q.course_id = ?',
			[course.id]
		);
		expect(known!.n).toBe(400);
		await workOutLosses(pool, progress.id, unhindered);
		await run(pool, "UPDATE jobs SET state = 'done' WHERE kind = 'losses' AND subject_id = ?", [progress.id]);
		const table = (await ask()) as LossTable;
		expect(inAll(table)).toBe(size);
		expect(table.lines.every(({ questions }) => questions.length <= 50)).toBe(true);
		expect(table).toEqual(await lossTable(pool, course.id, { bankId: course.bank }, 'qti12'));
	});
	it('is kept until something changes, and then only what has changed is looked at again', async () => {
		const before = await ask();
		expect(await ask()).toEqual(before);
		const [first] = await rows<{ id: number }>(
			pool,
			'SELECT id FROM questions WHERE course_id = ? AND kind = ? LIMIT 1',
			[course.id, 'multiple-choice']
		);
		const { question, bankId } = (await storedQuestion(pool, course.id, first!.id))!;
		const { personId } = await makeCourse(pool);
		await byDeed(pool, { courseId: course.id, personId }, (connection, by) =>
			saveQuestions(
				connection,
				course.id,
				[
					{
						id: first!.id,
						bankId,
						question: { ...question, hints: ['Look to the south.'], metadata: [{ name: 'a', value: 'b' }] }
					}
				],
				by
			)
		);
		const after = (await ask()) as LossTable;
		expect(inAll(after)).toBe(size);
		expect(after).toEqual(await lossTable(pool, course.id, { bankId: course.bank }, 'qti12'));
	});
	it('of a quiz is that of the parts that it has now', async () => {
		const quiz = (await quizOf(pool, course.id, course.quiz))!;
		const asked = () => lossesOf(pool, course.id, { quizId: course.quiz }, 'csv');
		const before = inAll((await asked()) as LossTable);
		const [part] = quiz.parts;
		await saveQuiz(pool, course.id, course.quiz, {
			...quiz,
			parts: [{ ...part!, lost: [], categories: [course.category, course.category + 1] }]
		});
		expect(inAll((await asked()) as LossTable)).toBeGreaterThan(before);
	});
	it('names nothing of another course', async () => {
		const other = await makeCourse(pool);
		expect(await lossesOf(pool, other.courseId, { bankId: course.bank }, 'qti12')).toEqual({ lines: [], quiz: null });
	});
});
