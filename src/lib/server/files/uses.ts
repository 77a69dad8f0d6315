import type { Pool, PoolConnection } from 'mysql2/promise';
import { row, rows, run, transaction, type Database } from '../db/pool';
import { whichCondition, type Which } from '../questions/tags';

/** Nothing uses a file `f`: no load as its package or in a question of it, no question or version of one, no dispatch. */
const unused = `NOT EXISTS (SELECT 1 FROM loads l WHERE l.file_id = f.id) AND NOT EXISTS (SELECT 1 FROM load_files u WHERE u.file_id = f.id)
	AND NOT EXISTS (SELECT 1 FROM question_files q WHERE q.file_id = f.id) AND NOT EXISTS (SELECT 1 FROM dispatches d WHERE d.file_id = f.id)
	AND NOT EXISTS (SELECT 1 FROM course_files h WHERE h.file_id = f.id)`;

/** Notes the files of questions as theirs, so that these are kept as long as the questions are. */
export async function keepFiles(connection: PoolConnection, which: Which): Promise<void> {
	const { sql, parameters } = whichCondition(which);
	await run(
		connection,
		`INSERT IGNORE INTO question_files (question_id, file_id)
		SELECT q.id, f.id FROM questions q JOIN JSON_TABLE(q.document, '$.attachments[*]' COLUMNS (hash CHAR(64) PATH '$.hash')) a JOIN files f ON f.hash = UNHEX(a.hash)
		WHERE ${sql} AND q.document LIKE '%"hash":"%'`,
		parameters
	);
}

/** Notes that a file was handed in for a course, where no question has it yet. */
export async function handInFile(db: Database, courseId: number, fileId: number): Promise<void> {
	await run(db, 'INSERT INTO course_files (course_id, file_id) VALUES (?, ?) ON DUPLICATE KEY UPDATE handed = NOW(3)', [
		courseId,
		fileId
	]);
}

/** A file that questions of a course use, in its bin too, by its hash in hex; nothing where the course has no such file. */
export async function courseFile(
	db: Database,
	courseId: number,
	hash: string
): Promise<{ id: number; size: number } | undefined> {
	// by_hash, then by_file of each
	return row(
		db,
		`SELECT f.id, f.size FROM files f WHERE f.hash = UNHEX(?) AND (EXISTS (SELECT 1 FROM load_files u JOIN loads l ON l.id = u.load_id WHERE u.file_id = f.id AND l.course_id = ?)
			OR EXISTS (SELECT 1 FROM question_files u JOIN questions q ON q.id = u.question_id WHERE u.file_id = f.id AND (q.course_id = ? OR q.course_id = (SELECT id FROM courses WHERE bin_of = ?)))
			OR EXISTS (SELECT 1 FROM course_files h WHERE h.file_id = f.id AND h.course_id = ?))`,
		[hash, courseId, courseId, courseId, courseId]
	);
}

/** Does what takes a use away from the files of a load, and frees those of them that nothing uses then. */
export async function freeing<T>(
	pool: Pool,
	loadId: number,
	work: (connection: PoolConnection) => Promise<T>
): Promise<T> {
	return transaction(pool, async (connection) => {
		const found = await rows<{ id: number }>(
			connection,
			'SELECT file_id AS id FROM loads WHERE id = ? AND file_id IS NOT NULL UNION SELECT file_id FROM load_files WHERE load_id = ?',
			[loadId, loadId]
		);
		const result = await work(connection);
		if (found.length)
			await run(connection, `DELETE f FROM files f WHERE f.id IN (?) AND f.hash IS NOT NULL AND ${unused}`, [
				found.map((one) => one.id)
			]);
		return result;
	});
}

/**
 * Clears away what nothing uses: uploads that broke off with their process and the loads that waited for them, and files
 * that no load, question or dispatch has any more. Only what began more than a day ago is touched, so that nothing is
 * taken from under another process.
 */
export async function sweep(pool: Pool): Promise<void> {
	const dayAgo = 'DATE_SUB(NOW(3), INTERVAL 1 DAY)';
	await run(pool, `DELETE FROM loads WHERE state = 'uploading' AND created < ${dayAgo}`);
	// what was selected and never sent
	await run(
		pool,
		`DELETE s FROM selections s WHERE s.made < DATE_SUB(NOW(3), INTERVAL 30 DAY) AND NOT EXISTS (SELECT 1 FROM dispatches d WHERE d.selection_id = s.id)`
	);
	await run(pool, `DELETE FROM course_files WHERE handed < ${dayAgo}`);
	await run(pool, `DELETE f FROM files f WHERE f.begun < ${dayAgo} AND ${unused}`);
}
