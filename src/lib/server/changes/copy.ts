import type { PoolConnection } from 'mysql2/promise';
import { checkAround } from '../checks/around';
import { checkSoon } from '../checks/course';
import { rows, run } from '../db/pool';
import { contentList, contentNames } from '../questions/columns';
import type { ByDeed } from '../questions/save';
import { keepFound } from '../questions/found';
import { notePlacings, placingBySlices, type Placing } from './choose';

const mostAtOnce = 1000;

/**
 * Copies questions to other places, of their course or of another: what they say, what is known of their keys, and their
 * files. Gives how many were copied.
 */
export async function copyQuestions(
	connection: PoolConnection,
	to: number,
	placings: readonly Placing[],
	{ deedId, personId }: ByDeed
): Promise<number> {
	if (!placings.length) return 0;
	await notePlacings(connection, placings);
	let count = 0;
	await placingBySlices(placings, async (which, parameters) => {
		const copied = await run(
			connection,
			`INSERT INTO questions (course_id, bank_id, category_id, ${contentNames}, verified_version, disputed, disputed_by, copied_from, deed_id, changed, changed_by)
			SELECT ?, n.bank_id, n.category_id, ${contentList('q')}, IF(q.verified_version = q.version, 1, NULL), q.disputed, q.disputed_by, q.id, ?, NOW(3), ? FROM placing_now n JOIN questions q ON q.id = n.id WHERE ${which} ORDER BY q.id`,
			[to, deedId, personId, ...parameters]
		);
		count += copied.count;
	});
	// by_deed
	await run(
		connection,
		"INSERT INTO changed_questions (deed_id, question_id, sort, course_after, bank_after, category_after, version_after) SELECT ?, q.id, 'made', q.course_id, q.bank_id, q.category_id, q.version FROM questions q WHERE q.deed_id = ?",
		[deedId, deedId]
	);
	await run(
		connection,
		'INSERT IGNORE INTO question_files (question_id, file_id) SELECT q.id, f.file_id FROM questions q JOIN question_files f ON f.question_id = q.copied_from WHERE q.deed_id = ?',
		[deedId]
	);
	await keepFound(connection, { deedId });
	if (count > mostAtOnce) {
		await checkSoon(connection, to);
		return count;
	}
	const made = await rows<{ id: number }>(connection, 'SELECT id FROM questions WHERE deed_id = ?', [deedId]);
	await checkAround(
		connection,
		to,
		made.map(({ id }) => id),
		() => Promise.resolve()
	);
	return count;
}
