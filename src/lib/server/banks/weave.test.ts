import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { countsOf, touchCourse } from '../courses/counts';
import { rows, run } from '../db/pool';
import { fillCourse } from '../test-support/fill';
import { makeCourse, testPool } from '../test-support/world';
import { keptTree } from './tree';
import { weaveAcross, weaveOf, type WeaveCell } from './weave';

const pool = testPool();
afterAll(() => pool.end());
let course: Awaited<ReturnType<typeof fillCourse>>;
beforeAll(async () => {
	course = await fillCourse(pool, (await makeCourse(pool)).personId, 400);
	await run(
		pool,
		"UPDATE questions SET verified = IF(id % 3, NULL, NOW()), has_feedback = id % 2, points = IF(id % 5, id % 3, NULL), difficulty = ELT(id % 4 + 1, '', 'hard', 'Hard', 'easy') WHERE course_id = ?",
		[course.id]
	);
	await run(
		pool,
		"INSERT INTO snags (course_id, question_id, rule, severity, message, words, place) SELECT course_id, id, 'absolute-words', IF(id % 14, 'doubtful', 'untidy'), 'x', '[]', '' FROM questions WHERE course_id = ? AND id % 7 = 0",
		[course.id]
	);
	await run(
		pool,
		"INSERT INTO question_tags (question_id, tag) SELECT id, ELT(id % 2 + 1, 'Light', 'light') FROM questions WHERE course_id = ? AND id % 3 = 0",
		[course.id]
	);
	await touchCourse(pool, course.id);
});

interface Told {
	id: number;
	categoryId: number;
	kind: string;
	points: number | null;
	difficulty: string;
	verified: number;
	feedback: number;
	worst: string | null;
	lacks: string;
	tags: string | null;
}

describe('the weave of a bank', () => {
	it.each(weaveAcross)(
		'counts in each cell what its questions are, by %s, now and when it is asked again',
		async (by) => {
			const counts = await countsOf(pool, course.id);
			const tree = await keptTree(pool, course.bank, counts);
			const bank = { id: course.bank, name: 'Lights' };
			const { cells } = await weaveOf(pool, bank, by, tree, counts.state);
			expect((await weaveOf(pool, bank, by, tree, counts.state)).cells).toEqual(cells);
			const told = await rows<Told>(
				pool,
				`SELECT q.id, q.category_id AS categoryId, q.kind, q.points, q.difficulty, q.verified IS NOT NULL AS verified, q.has_feedback AS feedback,
				(SELECT MIN(s.severity) FROM snags s WHERE s.question_id = q.id) AS worst, (SELECT GROUP_CONCAT(t.tag) FROM question_tags t WHERE t.question_id = q.id) AS tags,
				CONCAT_WS(',', IF(EXISTS (SELECT 1 FROM snags s WHERE s.question_id = q.id AND s.rule = 'no-key'), 'key', NULL), IF(q.verified IS NULL, 'verified', NULL), IF(q.has_feedback, NULL, 'feedback'), IF(q.points IS NULL, 'points', NULL)) AS lacks
			FROM questions q WHERE q.bank_id = ?`,
				[course.bank]
			);
			const columnsOf: Record<typeof by, (question: Told) => string[]> = {
				kind: ({ kind }) => [kind],
				points: ({ points }) => [points === null ? '' : String(points)],
				difficulty: ({ difficulty }) => [difficulty.toLowerCase()],
				tag: ({ tags }) => tags?.split(',') ?? [],
				lack: ({ lacks }) => lacks.split(',').filter(Boolean)
			};
			const expected = new Map<string, Omit<WeaveCell, 'categoryId' | 'column'>>();
			for (const question of told)
				for (const column of columnsOf[by](question)) {
					const key = `${question.categoryId} ${column}`;
					const cell = expected.get(key) ?? { questions: 0, clean: 0, verified: 0, feedback: 0, whole: 0, broken: 0 };
					const clean = question.worst === null || question.worst === 'untidy';
					cell.questions += 1;
					cell.clean += clean ? 1 : 0;
					cell.verified += question.verified;
					cell.feedback += question.feedback;
					cell.whole += clean && question.verified && question.feedback ? 1 : 0;
					cell.broken += question.worst === 'broken' ? 1 : 0;
					expected.set(key, cell);
				}
			const found = cells.map(({ categoryId, column, ...cell }): [string, typeof cell] => [
				`${categoryId} ${by === 'difficulty' ? column.toLowerCase() : column}`,
				cell
			]);
			expect(new Map(found)).toEqual(expected);
			expect(found).toHaveLength(expected.size);
		}
	);
});
