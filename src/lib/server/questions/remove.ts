import type { PoolConnection } from 'mysql2/promise';
import { checkAround } from '../checks/around';
import { run } from '../db/pool';

/** Takes questions out of their course for good; those that they were held against are checked again. */
export async function removeQuestions(
	connection: PoolConnection,
	courseId: number,
	ids: readonly number[]
): Promise<void> {
	if (!ids.length) return;
	await checkAround(connection, courseId, ids, async () => {
		await run(connection, 'DELETE FROM questions WHERE course_id = ? AND id IN (?)', [courseId, ids]);
	});
}
