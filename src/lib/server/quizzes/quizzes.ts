import { touchCourse } from '../courses/counts';
import { rows, run, type Database } from '../db/pool';

/** A quiz, for a list. */
export interface QuizRow {
	id: number;
	title: string;
	state: 'draft' | 'ready';
	changed: Date;
	parts: number;
}

/** The quizzes of a course, the newest first. */
export async function quizzesOf(db: Database, courseId: number): Promise<QuizRow[]> {
	return rows(
		db,
		'SELECT z.id, z.title, z.state, z.changed, (SELECT COUNT(*) FROM quiz_parts p WHERE p.quiz_id = z.id) AS parts FROM quizzes z WHERE z.course_id = ? ORDER BY z.id DESC',
		[courseId]
	);
}

/** Makes an empty quiz; gives its key. */
export async function makeQuiz(db: Database, courseId: number, title: string): Promise<number> {
	return (await run(db, 'INSERT INTO quizzes (course_id, title) VALUES (?, ?)', [courseId, title.slice(0, 255)])).id;
}

/** Throws a quiz away; its questions stay in their banks. */
export async function dropQuiz(db: Database, courseId: number, quizId: number): Promise<void> {
	await run(db, 'DELETE FROM quizzes WHERE id = ? AND course_id = ?', [quizId, courseId]);
	await touchCourse(db, courseId);
}
