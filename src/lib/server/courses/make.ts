import type { Pool } from 'mysql2/promise';
import type { CourseDetails } from '$lib/forms/course';
import { row, run, transaction, type Database } from '../db/pool';
import { record } from '../ledger/ledger';
import type { CourseState } from './courses';

/** Another course that has a code already. */
export async function otherOf(db: Database, code: string, courseId: number): Promise<{ name: string } | undefined> {
	// by_code
	return row(db, 'SELECT name FROM courses WHERE code = ? AND id <> ?', [code, courseId]);
}

/** What is said where a code is taken already, by which course. */
export const taken = (code: string, name: string) => ({ taken: `“${name}” has the code ${code} already.` });

/** Makes a course, which its maker manages; gives its key, or says which other has the code. */
export async function makeCourse(
	pool: Pool,
	personId: number,
	details: CourseDetails
): Promise<{ id: number } | { taken: string }> {
	return transaction(pool, async (connection) => {
		const other = await otherOf(connection, details.code, 0);
		if (other) return taken(details.code, other.name);
		const { id } = await run(connection, 'INSERT INTO courses (code, name, intake) VALUES (?, ?, ?)', [
			details.code,
			details.name,
			details.intake
		]);
		await run(connection, "INSERT INTO memberships (person_id, course_id, role) VALUES (?, ?, 'manage')", [
			personId,
			id
		]);
		await record(connection, { courseId: id, personId, deed: 'made the course', subject: details.name, questions: 0 });
		return { id };
	});
}

/** Changes what a course is called; says which other has the code where one has it. */
export async function renameCourse(
	pool: Pool,
	courseId: number,
	personId: number,
	details: CourseDetails
): Promise<{ id: number } | { taken: string }> {
	return transaction(pool, async (connection) => {
		const other = await otherOf(connection, details.code, courseId);
		if (other) return taken(details.code, other.name);
		await run(connection, 'UPDATE courses SET code = ?, name = ?, intake = ? WHERE id = ?', [
			details.code,
			details.name,
			details.intake,
			courseId
		]);
		await record(connection, {
			courseId,
			personId,
			deed: 'renamed the course',
			subject: [details.name, details.code, details.intake].filter(Boolean).join(' · '),
			questions: 0
		});
		return { id: courseId };
	});
}

const deeds: Record<CourseState, string> = {
	open: 'opened the course again',
	archived: 'put the course in the archive',
	binned: 'put the course in the bin'
};

/** Puts a course in the archive or in the bin, or opens it again. */
export async function moveCourse(
	pool: Pool,
	course: { id: number; name: string },
	personId: number,
	state: CourseState
): Promise<void> {
	await transaction(pool, async (connection) => {
		const { count } = await run(
			connection,
			'UPDATE courses SET state = ?, settled = NOW(3) WHERE id = ? AND state <> ?',
			[state, course.id, state]
		);
		if (count)
			await record(connection, {
				courseId: course.id,
				personId,
				deed: deeds[state],
				subject: course.name,
				questions: 0
			});
	});
}
