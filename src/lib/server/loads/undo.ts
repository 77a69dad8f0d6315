import type { Pool, PoolConnection } from 'mysql2/promise';
import { row, rows, run, transaction, type Database } from '../db/pool';
import { record } from '../ledger/ledger';
import { rememberBanks, rememberCategories, rememberQuestions } from '../quizzes/lost';
import { dropLoneTwins } from '../snags/twins';
import { checkSoon } from '../checks/course';
import { putBack, replacements } from '../questions/put-back';
import { Refused } from './refused';

/** What taking a load back would touch. */
export interface UndoPreview {
	/** Questions that it brought, and questions that it put something else in the place of. */
	questions: number;
	replaced: number;
	/** Those of them that somebody has changed since. */
	changed: { id: number; title: string; bankId: number }[];
	/** Quizzes, not of the load itself, that name or draw its questions. */
	quizzes: { id: number; title: string }[];
	/** Quizzes that came with it and go with it, and those of them that somebody has changed since. */
	own: { id: number; title: string; changed: boolean }[];
}

/** What taking a load back would touch. */
export async function undoPreview(db: Database, loadId: number): Promise<UndoPreview> {
	const counts = (await row<{ questions: number; replaced: number }>(
		db,
		`SELECT (SELECT COUNT(*) FROM questions WHERE load_id = ?) AS questions, (SELECT COUNT(*) ${replacements}) AS replaced`,
		[loadId, loadId]
	))!;
	const changed = await rows<UndoPreview['changed'][number]>(
		db,
		`SELECT id, title, bank_id AS bankId FROM questions WHERE load_id = ? AND version > 1
		UNION SELECT q.id, q.title, q.bank_id ${replacements} AND q.version > v.version + 1 ORDER BY id LIMIT 2000`,
		[loadId, loadId]
	);
	// by_load, then up the tree: a part may draw from a category above, or from the bank
	const quizzes = await rows<{ id: number; title: string }>(
		db,
		`WITH RECURSIVE holding (id, parent_id) AS (
			SELECT c.id, c.parent_id FROM categories c WHERE c.id IN (SELECT category_id FROM questions WHERE load_id = ?)
			UNION SELECT a.id, a.parent_id FROM categories a JOIN holding h ON a.id = h.parent_id
		), using_parts (part_id) AS (
			SELECT u.part_id FROM quiz_part_questions u JOIN questions x ON x.id = u.question_id WHERE x.load_id = ?
			UNION SELECT k.part_id FROM quiz_part_categories k JOIN holding h ON h.id = k.category_id
			UNION SELECT k.part_id FROM quiz_part_banks k WHERE k.bank_id IN (SELECT bank_id FROM questions WHERE load_id = ?)
		)
		SELECT DISTINCT z.id, z.title FROM using_parts n JOIN quiz_parts p ON p.id = n.part_id JOIN quizzes z ON z.id = p.quiz_id WHERE z.load_id IS NULL OR z.load_id <> ? ORDER BY z.id`,
		[loadId, loadId, loadId, loadId]
	);
	const own = await rows<{ id: number; title: string; version: number }>(
		db,
		'SELECT id, title, version FROM quizzes WHERE load_id = ? ORDER BY id',
		[loadId]
	);
	return {
		...counts,
		changed,
		quizzes,
		own: own.map(({ version, ...one }) => ({ ...one, changed: version > 1 }))
	};
}

/**
 * Takes a load back as a whole: its questions, what it put in the place of others, its quizzes, and the categories and
 * the bank that it made, where they are empty then. What was changed since stays with `keepChanged`, as a question of
 * the bank like any other. Gives how many questions were taken back. Throws Refused where it is not in the course.
 */
export async function undo(
	pool: Pool,
	courseId: number,
	loadId: number,
	personId: number,
	keepChanged = false
): Promise<number> {
	return transaction(pool, async (connection) => {
		const load = await row<{ state: string; file_name: string }>(
			connection,
			'SELECT state, file_name FROM loads WHERE id = ? AND course_id = ? FOR UPDATE',
			[loadId, courseId]
		);
		if (load?.state !== 'taken') throw new Refused('This load is not in the course, so there is nothing to take back.');
		await run(connection, 'DELETE FROM quizzes WHERE load_id = ?', [loadId]);
		if (keepChanged)
			await run(connection, 'UPDATE questions SET load_id = NULL, staged_id = NULL WHERE load_id = ? AND version > 1', [
				loadId
			]);
		const back = await putBack(connection, loadId, keepChanged);
		await rememberQuestions(connection, 'q.load_id = ?', [loadId]);
		const { count } = await run(connection, 'DELETE FROM questions WHERE load_id = ?', [loadId]);
		await dropEmptyCategories(connection, loadId);
		await run(connection, 'UPDATE loads SET bank_id = NULL WHERE id = ?', [loadId]);
		const empty =
			'b.load_id = ? AND NOT EXISTS (SELECT 1 FROM questions q WHERE q.bank_id = b.id) AND NOT EXISTS (SELECT 1 FROM categories c WHERE c.bank_id = b.id)';
		await rememberBanks(connection, empty, [loadId]);
		await run(connection, `DELETE b FROM banks b WHERE ${empty}`, [loadId]);
		await dropLoneTwins(connection, courseId);
		await checkSoon(connection, courseId);
		await run(connection, "UPDATE staged_questions SET outcome = 'waiting' WHERE load_id = ?", [loadId]);
		await run(
			connection,
			"UPDATE loads SET state = 'undone', settled = NOW(3), compared = NULL, review_version = review_version + 1 WHERE id = ?",
			[loadId]
		);
		await record(connection, {
			courseId,
			personId,
			deed: 'took back',
			subject: load.file_name,
			questions: count + back,
			address: `/courses/${courseId}/loads/${loadId}`
		});
		return count + back;
	});
}

/** Takes the categories away that a load has made and that are empty, one level after the other from below. */
async function dropEmptyCategories(connection: PoolConnection, loadId: number): Promise<void> {
	for (;;) {
		// by_load
		const empty = await rows<{ id: number }>(
			connection,
			'SELECT c.id FROM categories c LEFT JOIN categories u ON u.parent_id = c.id LEFT JOIN questions q ON q.category_id = c.id WHERE c.load_id = ? AND u.id IS NULL AND q.id IS NULL',
			[loadId]
		);
		if (!empty.length) return;
		const ids = empty.map((one) => one.id);
		await rememberCategories(connection, ids);
		await run(connection, 'DELETE FROM categories WHERE id IN (?)', [ids]);
	}
}
