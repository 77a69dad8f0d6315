import type { Pool, PoolConnection } from 'mysql2/promise';
import { row, rows, run, transaction, type Database } from '../db/pool';
import { record } from '../ledger/ledger';
import { Refused } from './refused';

/** What taking a load back would touch. */
export interface UndoPreview {
	/** Questions that it brought, and questions that it put something else in the place of. */
	questions: number;
	replaced: number;
	/** Those of them that somebody has changed since. */
	changed: { id: number; title: string; bankId: number }[];
	/** Quizzes, not of the load itself, that use its questions. */
	quizzes: { id: number; title: string }[];
}

const batch = 500;
/** What was replaced by a load: the question, and the version that it has where nobody has touched it since. */
const replacements = `FROM question_versions v JOIN questions q ON q.id = v.question_id WHERE v.load_id = ?`;

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
	const quizzes = await rows<{ id: number; title: string }>(
		db,
		`SELECT DISTINCT z.id, z.title FROM quiz_part_questions u JOIN quiz_parts p ON p.id = u.part_id JOIN quizzes z ON z.id = p.quiz_id JOIN questions x ON x.id = u.question_id
		WHERE x.load_id = ? AND (z.load_id IS NULL OR z.load_id <> ?) ORDER BY z.id`,
		[loadId, loadId]
	);
	return { ...counts, changed, quizzes };
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
		const { count } = await run(connection, 'DELETE FROM questions WHERE load_id = ?', [loadId]);
		for (let left = 1; left > 0;) {
			// one level of empty categories at a time, from below
			left = (
				await run(
					connection,
					'DELETE c FROM categories c LEFT JOIN categories u ON u.parent_id = c.id LEFT JOIN questions q ON q.category_id = c.id WHERE c.load_id = ? AND u.id IS NULL AND q.id IS NULL',
					[loadId]
				)
			).count;
		}
		await run(connection, 'UPDATE loads SET bank_id = NULL WHERE id = ?', [loadId]);
		await run(
			connection,
			'DELETE b FROM banks b LEFT JOIN questions q ON q.bank_id = b.id LEFT JOIN categories c ON c.bank_id = b.id WHERE b.load_id = ? AND q.id IS NULL AND c.id IS NULL',
			[loadId]
		);
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

/** Puts back what a load had replaced, with the snags that were open on it then; gives how many. */
async function putBack(connection: PoolConnection, loadId: number, keepChanged: boolean): Promise<number> {
	const untouched = keepChanged ? 'AND q.version = v.version + 1' : '';
	const versions = await rows<{ id: number; courseId: number; snags: string | null }>(
		connection,
		`SELECT q.id, q.course_id AS courseId, v.snags ${replacements} ${untouched}`,
		[loadId]
	);
	if (versions.length) {
		const snags = versions.flatMap(({ id, courseId, snags: kept }) =>
			((JSON.parse(kept ?? '[]') ?? []) as unknown[][]).map((columns) => [courseId, id, ...columns])
		);
		await run(connection, 'DELETE FROM snags WHERE question_id IN (?)', [versions.map((one) => one.id)]);
		for (let at = 0; at < snags.length; at += batch)
			await run(
				connection,
				'INSERT INTO snags (course_id, question_id, rule, severity, message, words, place, line) VALUES ?',
				[snags.slice(at, at + batch)]
			);
	}
	const { count } = await run(
		connection,
		`UPDATE questions q JOIN question_versions v ON v.question_id = q.id AND v.load_id = ?
		SET q.kind = v.kind, q.title = v.title, q.stem_text = v.stem_text, q.points = v.points, q.document = v.document, q.fingerprint = v.fingerprint,
			q.word_hashes = v.word_hashes, q.identifier = v.identifier, q.verified_by = v.verified_by, q.verified = v.verified, q.version = q.version + 1
		WHERE v.load_id = ? ${untouched}`,
		[loadId, loadId]
	);
	if (versions.length)
		await run(connection, 'DELETE FROM question_versions WHERE load_id = ? AND question_id IN (?)', [
			loadId,
			versions.map((one) => one.id)
		]);
	// what stays as it was changed since keeps its history too
	await run(connection, 'UPDATE question_versions SET load_id = NULL WHERE load_id = ?', [loadId]);
	return count;
}
