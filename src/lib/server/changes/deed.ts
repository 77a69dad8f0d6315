import type { PoolConnection } from 'mysql2/promise';
import { run } from '../db/pool';

/** Who does what in which course. */
export interface Doing {
	courseId: number;
	personId: number;
	/** What is done, in a few words: “moved”. */
	deed: string;
	/** What it is done to. */
	subject: string;
	/** Where in the application that can be seen. */
	address?: string;
}

/** Begins a deed that has a way back; gives its key, under which all that it changes is kept. */
export async function beginDeed(
	connection: PoolConnection,
	{ courseId, personId, deed, subject, address = '' }: Doing
): Promise<number> {
	const { id } = await run(
		connection,
		"INSERT INTO ledger (course_id, person_id, deed, subject, questions, address, way_back) VALUES (?, ?, ?, ?, 0, ?, 'open')",
		[courseId, personId, deed, subject.slice(0, 255), address]
	);
	return id;
}

/** Says at the end of a deed how many questions it was; a deed that did nothing at all is none. */
export async function endDeed(connection: PoolConnection, deedId: number, questions: number): Promise<void> {
	await run(connection, 'UPDATE ledger SET questions = ? WHERE id = ?', [questions, deedId]);
	await run(
		connection,
		'DELETE FROM ledger WHERE id = ? AND NOT EXISTS (SELECT 1 FROM changed_questions WHERE deed_id = ?) AND NOT EXISTS (SELECT 1 FROM changed_things WHERE deed_id = ?)',
		[deedId, deedId, deedId]
	);
}

/** What was done, for the page that asked for it: words, a number, and the deed that can be taken back. */
export interface Done {
	deedId: number;
	questions: number;
	words: string;
}
