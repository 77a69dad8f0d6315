import type { PoolConnection } from 'mysql2/promise';
import { writeSnags, type SnagRow } from '../checks/findings';
import { rows, run } from '../db/pool';
import { contentSet } from './columns';
import { keepFound } from './found';

/** What was replaced by a load: the question, and the version that it has where nobody has touched it since. */
export const replacements = `FROM question_versions v JOIN questions q ON q.id = v.question_id WHERE v.load_id = ?`;

/** Puts back what a load had replaced, with the snags that were open on it then; gives how many. */
export async function putBack(connection: PoolConnection, loadId: number, keepChanged: boolean): Promise<number> {
	const untouched = keepChanged ? 'AND q.version = v.version + 1' : '';
	const versions = await rows<{ id: number; courseId: number; snags: string | null }>(
		connection,
		`SELECT q.id, q.course_id AS courseId, v.snags ${replacements} ${untouched}`,
		[loadId]
	);
	const ids = versions.map(({ id }) => id);
	if (ids.length) {
		const snags = versions.flatMap(({ id, courseId, snags: kept }) =>
			((JSON.parse(kept ?? '[]') ?? []) as SnagRow[]).map((columns): SnagRow => [courseId, id, ...columns])
		);
		await run(connection, 'DELETE FROM snags WHERE question_id IN (?)', [ids]);
		await writeSnags(connection, versions[0]!.courseId, snags);
	}
	const { count } = await run(
		connection,
		`UPDATE questions q JOIN question_versions v ON v.question_id = q.id AND v.load_id = ?
		SET ${contentSet('q', 'v')}, q.version = q.version + 1, q.checked = 0 WHERE v.load_id = ? ${untouched}`,
		[loadId, loadId]
	);
	await keepFound(connection, { ids });
	if (ids.length)
		await run(connection, 'DELETE FROM question_versions WHERE load_id = ? AND question_id IN (?)', [loadId, ids]);
	// what stays as it was changed since keeps its history too
	await run(connection, 'UPDATE question_versions SET load_id = NULL WHERE load_id = ?', [loadId]);
	return count;
}
