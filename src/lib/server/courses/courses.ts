import type { Pool } from 'mysql2/promise';
import { row, rows, type Database } from '../db/pool';
import { countsOf, questionsIn, snagsIn } from './counts';

/** What a person may do in a course. */
export type Role = 'change' | 'look';

/** A course as a person sees it. */
export interface Course {
	id: number;
	code: string;
	name: string;
	intake: string;
	role: Role;
}

/** The courses of a person, by name, with what is in them. */
export async function coursesOf(
	db: Database,
	personId: number
): Promise<(Course & { banks: number; questions: number; waiting: number })[]> {
	return rows(
		db,
		`SELECT c.id, c.code, c.name, c.intake, m.role,
			(SELECT COUNT(*) FROM banks b WHERE b.course_id = c.id) AS banks,
			(SELECT COUNT(*) FROM questions q WHERE q.course_id = c.id) AS questions,
			(SELECT COUNT(*) FROM loads l WHERE l.course_id = c.id AND l.state = 'review') AS waiting
		FROM memberships m JOIN courses c ON c.id = m.course_id WHERE m.person_id = ? ORDER BY c.name, c.id`,
		[personId]
	);
}

/** The courses of a person, by name, to choose from. */
export async function courseNames(db: Database, personId: number): Promise<Course[]> {
	return rows(
		db,
		'SELECT c.id, c.code, c.name, c.intake, m.role FROM memberships m JOIN courses c ON c.id = m.course_id WHERE m.person_id = ? ORDER BY c.name, c.id',
		[personId]
	);
}

/** A course, if the person belongs to it. */
export async function courseFor(db: Database, personId: number, courseId: number): Promise<Course | undefined> {
	return row(
		db,
		'SELECT c.id, c.code, c.name, c.intake, m.role FROM memberships m JOIN courses c ON c.id = m.course_id WHERE m.person_id = ? AND m.course_id = ?',
		[personId, courseId]
	);
}

/** How much waits at each station of the thread. */
export interface Waiting {
	loads: number;
	banks: number;
	snags: number;
	quizzes: number;
	dispatch: number;
}

/** Counts what waits at each station: loads to review, questions, open snags, draft quizzes, dispatches that are not proved. */
export async function waitingIn(pool: Pool, courseId: number): Promise<Waiting> {
	const counts = await countsOf(pool, courseId);
	const waiting = (await row<Omit<Waiting, 'banks' | 'snags'>>(
		pool,
		`SELECT
			(SELECT COUNT(*) FROM loads WHERE course_id = ? AND state IN ('review', 'reading', 'waiting')) AS loads,
			(SELECT COUNT(*) FROM quizzes WHERE course_id = ? AND state = 'draft') AS quizzes,
			(SELECT COUNT(*) FROM dispatches WHERE course_id = ? AND state IN ('waiting', 'writing', 'proving')) AS dispatch`,
		Array(3).fill(courseId)
	))!;
	return { ...waiting, banks: questionsIn(counts), snags: snagsIn(counts) };
}
