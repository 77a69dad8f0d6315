import type { PoolConnection } from 'mysql2/promise';
import { keepUnverified } from '../checks/unverified';
import { touchCourse } from '../courses/counts';
import { run } from '../db/pool';
import { tellProgress } from '../threads/progress';
import type { ByDeed } from '../questions/save';

/** What is known of the key of a question: verified by somebody, doubted with words, or nothing. */
export type KeyChange = { state: 'verified' } | { state: 'unverified' } | { state: 'disputed'; note: string };

/** What is known of a key, as JSON for SQL, of a question `q`. */
export const keyState =
	'JSON_ARRAY(q.verified_by, q.verified, q.verified_version, q.disputed, q.disputed_by, q.machine)';

/** Does something to what is known of the keys of questions, and keeps under a deed what it was; gives how many it changed. */
export async function changeKeys(
	connection: PoolConnection,
	courseId: number,
	ids: readonly number[],
	set: { sql: string; values: unknown[] },
	deedId: number
): Promise<number> {
	if (!ids.length) return 0;
	await run(
		connection,
		`INSERT INTO changed_questions (deed_id, question_id, sort, key_before) SELECT ?, q.id, 'keyed', ${keyState} FROM questions q WHERE q.course_id = ? AND q.id IN (?)`,
		[deedId, courseId, ids]
	);
	tellProgress(0, ids.length);
	await run(connection, `UPDATE questions q SET ${set.sql} WHERE q.course_id = ? AND q.id IN (?)`, [
		...set.values,
		courseId,
		ids
	]);
	tellProgress(Math.floor(ids.length / 2), ids.length);
	await run(
		connection,
		`UPDATE changed_questions c JOIN questions q ON q.id = c.question_id SET c.key_after = ${keyState} WHERE c.deed_id = ? AND c.sort = 'keyed'`,
		[deedId]
	);
	const { count: same } = await run(
		connection,
		"DELETE FROM changed_questions WHERE deed_id = ? AND sort = 'keyed' AND key_before = key_after",
		[deedId]
	);
	await keepUnverified(connection, courseId, ids);
	await touchCourse(connection, courseId);
	return ids.length - same;
}

/** How a change of what is known of a key is written. */
export function keySet(change: KeyChange, { personId }: ByDeed): { sql: string; values: unknown[] } {
	if (change.state === 'verified')
		return {
			sql: 'q.verified_by = ?, q.verified = NOW(3), q.verified_version = q.version, q.disputed = NULL, q.disputed_by = NULL',
			values: [personId]
		};
	const none = 'q.verified_by = NULL, q.verified = NULL, q.verified_version = NULL';
	return change.state === 'unverified'
		? { sql: `${none}, q.disputed = NULL, q.disputed_by = NULL`, values: [] }
		: { sql: `${none}, q.disputed = ?, q.disputed_by = ?`, values: [change.note.slice(0, 1000), personId] };
}
