import { error } from '@sveltejs/kit';
import { row, type Database } from '../db/pool';
import { quizOf, type Quiz } from './quiz';

/** One quiz of a course. Answers 404 in words where there is none. */
export async function theQuiz(db: Database, courseId: number, quizId: number): Promise<Quiz> {
	return (await quizOf(db, courseId, quizId)) ?? error(404, 'There is no such quiz in this course.');
}

/** The last change of a quiz: its version, when, and who made it. */
export interface QuizChange {
	version: number;
	changed: Date;
	by: string | null;
}

/** The last change of a quiz of a course. Answers 404 in words where there is no such quiz. */
export async function changeOf(db: Database, courseId: number, quizId: number): Promise<QuizChange> {
	const change = await row<QuizChange>(
		db,
		'SELECT z.version, z.changed, p.name AS `by` FROM quizzes z LEFT JOIN people p ON p.id = z.changed_by WHERE z.id = ? AND z.course_id = ?',
		[quizId, courseId]
	);
	return change ?? error(404, 'There is no such quiz in this course.');
}
