import { rows, type Database } from '../db/pool';

/** A quiz, for a list. */
export interface QuizRow {
	id: number;
	title: string;
	state: 'draft' | 'ready' | 'sent';
	changed: Date;
	parts: number;
	/** How many questions its parts draw, where each says so; null where one gives all of its own. */
	draws: number | null;
	/** When it opens and is due, as 2027-03-02T08:00. */
	opens: string | null;
	due: string | null;
}

/** The quizzes of a course, the newest first. */
export async function quizzesOf(db: Database, courseId: number): Promise<QuizRow[]> {
	// by_course of the quizzes, by_quiz of the parts
	return rows(
		db,
		`SELECT z.id, z.title, z.state, z.changed, COUNT(p.id) AS parts, IF(COUNT(p.id) = COUNT(p.draw), CAST(SUM(p.draw) AS INT), NULL) AS draws,
			JSON_VALUE(z.settings, '$.opens') AS opens, JSON_VALUE(z.settings, '$.due') AS due
		FROM quizzes z LEFT JOIN quiz_parts p ON p.quiz_id = z.id WHERE z.course_id = ? GROUP BY z.id ORDER BY z.id DESC`,
		[courseId]
	);
}
