import { error } from '@sveltejs/kit';
import { row, rows, type Database } from '../db/pool';
import type { Quiz } from './quiz';

/** A version of a quiz, for a list: as it was before a change. */
export interface KeptVersion {
	id: number;
	/** When it was changed, and by whom. */
	changed: Date;
	by: string | null;
	/** The titles of its parts. */
	parts: string[];
}

/** So many versions are shown. */
const most = 50;

/** The versions of a quiz that are kept, the latest first. */
export async function versionsOf(db: Database, courseId: number, quizId: number): Promise<KeptVersion[]> {
	// by_quiz
	const found = await rows<Omit<KeptVersion, 'parts'> & { titles: string | null }>(
		db,
		"SELECT v.id, v.changed, p.name AS `by`, CAST(JSON_EXTRACT(v.document, '$.parts[*].title') AS CHAR) AS titles FROM quiz_versions v JOIN quizzes z ON z.id = v.quiz_id LEFT JOIN people p ON p.id = v.person_id WHERE z.course_id = ? AND v.quiz_id = ? ORDER BY v.id DESC LIMIT ?",
		[courseId, quizId, most]
	);
	return found.map(({ titles, ...version }) => ({ ...version, parts: JSON.parse(titles ?? '[]') as string[] }));
}

/** A quiz as it was in a version. Answers 404 in words where there is no such version. */
export async function versionOf(db: Database, courseId: number, quizId: number, id: number): Promise<Quiz> {
	const found = await row<{ document: string }>(
		db,
		'SELECT v.document FROM quiz_versions v JOIN quizzes z ON z.id = v.quiz_id WHERE z.course_id = ? AND v.quiz_id = ? AND v.id = ?',
		[courseId, quizId, id]
	);
	if (!found) error(404, 'There is no such version of this quiz.');
	return JSON.parse(found.document) as Quiz;
}
