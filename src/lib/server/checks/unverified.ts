import type { PoolConnection } from 'mysql2/promise';
import { keyUnverified } from '$core/checks/key-unverified';
import { checkRules } from '../courses/kept';
import { run } from '../db/pool';
import { setWaivedAside } from './waived';

/** The kinds that have no key which a machine could have got wrong, and the snags that say there is none. */
const keyless = ['essay', 'file-upload', 'information', 'unreadable'];
const withoutKey = ['no-key', 'lost-key'];

/**
 * Says anew which of some questions a machine wrote and nobody verified, after something was said of their keys: the one
 * check that goes by what is known of a question, and not by what it says.
 */
export async function keepUnverified(
	connection: PoolConnection,
	courseId: number,
	ids: readonly number[]
): Promise<void> {
	if (!ids.length) return;
	const { off, severities } = await checkRules(connection, courseId);
	for (const table of ['snags', 'waived_snags'])
		await run(connection, `DELETE FROM ${table} WHERE question_id IN (?) AND rule = ?`, [ids, keyUnverified.id]);
	if (off.has(keyUnverified.id)) return;
	const { count } = await run(
		connection,
		`INSERT INTO snags (course_id, question_id, rule, severity, message, words)
		SELECT q.course_id, q.id, ?, ?, ?, '[]' FROM questions q WHERE q.course_id = ? AND q.id IN (?) AND q.machine = 1 AND q.verified IS NULL AND q.kind NOT IN (?) AND NOT EXISTS (SELECT 1 FROM snags s WHERE s.question_id = q.id AND s.rule IN (?))`,
		[
			keyUnverified.id,
			severities.get(keyUnverified.id) ?? keyUnverified.severity,
			keyUnverified.says,
			courseId,
			ids,
			keyless,
			withoutKey
		]
	);
	if (count) await setWaivedAside(connection, courseId, ids);
}
