import type { Pool } from 'mysql2/promise';
import { visible } from '$core/markup/visible';
import { askToStop, enqueue } from '../jobs/jobs';
import { storeFile } from '../files/files';
import { freeing } from '../files/uses';
import { row, rows, run, transaction, type Database } from '../db/pool';

/** The states of a load. */
export type LoadState = 'uploading' | 'waiting' | 'reading' | 'review' | 'taken' | 'undone' | 'stopped' | 'failed';

/** A load as lists show it. Sizes in bytes. */
export interface Load {
	id: number;
	course_id: number;
	file_id: number | null;
	file_name: string;
	format: string;
	state: LoadState;
	size: number;
	bytes_read: number;
	bytes_total: number;
	questions_found: number;
	snags_found: number;
	failure: string;
	bank_id: number | null;
	created: Date;
	person: string;
	/** The last load before it that brought the very same file. */
	twin_id: number | null;
	/** What the package calls itself. */
	package_title: string;
	/** What another system has said that it took of it. */
	told_count: number | null;
	/** How many of its questions are in the course, and how many are set aside. */
	taken: number;
	aside: number;
}

const columns = `l.id, l.course_id, l.file_id, l.file_name, l.format, l.state, l.size, l.bytes_read, l.bytes_total, l.questions_found, l.snags_found, l.failure, l.bank_id, l.created, l.package_title, l.told_count, p.name AS person,
	(SELECT MAX(o.id) FROM loads o WHERE o.course_id = l.course_id AND o.file_id = l.file_id AND o.id < l.id) AS twin_id,
	(SELECT COUNT(*) FROM staged_questions s WHERE s.load_id = l.id AND l.state = 'taken' AND s.outcome IN ('taken', 'replaced')) AS taken,
	(SELECT COUNT(*) FROM staged_questions s WHERE s.load_id = l.id AND l.state = 'taken' AND s.outcome = 'aside') AS aside`;

/** The loads of a course, the newest first. */
export async function loadsOf(db: Database, courseId: number): Promise<Load[]> {
	return rows(
		db,
		`SELECT ${columns} FROM loads l JOIN people p ON p.id = l.person_id WHERE l.course_id = ? ORDER BY l.id DESC LIMIT 500`,
		[courseId]
	);
}

/** One load of a course. */
export async function loadOf(db: Database, courseId: number, loadId: number): Promise<Load | undefined> {
	return row(
		db,
		`SELECT ${columns} FROM loads l JOIN people p ON p.id = l.person_id WHERE l.course_id = ? AND l.id = ?`,
		[courseId, loadId]
	);
}

/** Receives a file as a stream and puts its reading in the queue. Where the upload breaks off, no load is left. */
export async function receive(
	pool: Pool,
	courseId: number,
	personId: number,
	fileName: string,
	size: number,
	pieces: AsyncIterable<Uint8Array>
): Promise<number> {
	const { id } = await run(
		pool,
		"INSERT INTO loads (course_id, person_id, file_name, state, size) VALUES (?, ?, ?, 'uploading', ?)",
		[courseId, personId, visible(fileName).slice(0, 255), size]
	);
	try {
		const file = await storeFile(pool, pieces);
		await transaction(pool, async (connection) => {
			await run(connection, "UPDATE loads SET file_id = ?, size = ?, bytes_total = ?, state = 'waiting' WHERE id = ?", [
				file.id,
				file.size,
				file.size,
				id
			]);
			await enqueue(connection, 'read', id);
		});
	} catch (error) {
		await run(pool, 'DELETE FROM loads WHERE id = ?', [id]).catch(() => undefined);
		throw error;
	}
	return id;
}

/** Asks for the reading of a load to stop. One that nobody has begun is stopped at once. */
export async function stopReading(pool: Pool, loadId: number): Promise<void> {
	await askToStop(pool, 'read', loadId);
	await transaction(pool, async (connection) => {
		const { count } = await run(
			connection,
			"UPDATE jobs SET state = 'stopped' WHERE kind = 'read' AND subject_id = ? AND state = 'waiting'",
			[loadId]
		);
		if (count) await run(connection, "UPDATE loads SET state = 'stopped' WHERE id = ? AND state = 'waiting'", [loadId]);
	});
}

/** Puts the reading of a load that was stopped or has failed in the queue again. */
export async function readAgain(pool: Pool, loadId: number): Promise<void> {
	await transaction(pool, async (connection) => {
		const { count } = await run(
			connection,
			"UPDATE loads SET state = 'waiting', failure = '', bytes_read = 0, questions_found = 0, snags_found = 0 WHERE id = ? AND state IN ('stopped', 'failed') AND file_id IS NOT NULL",
			[loadId]
		);
		if (count) await enqueue(connection, 'read', loadId);
	});
}

/** Throws a load away that is not in the course, with its files as far as nothing else uses them. Gives false where it is in the course, or being worked on. */
export async function throwAway(pool: Pool, loadId: number): Promise<boolean> {
	return freeing(pool, loadId, async (connection) => {
		const { count } = await run(
			connection,
			"DELETE FROM loads WHERE id = ? AND state IN ('review', 'undone', 'stopped', 'failed')",
			[loadId]
		);
		return count > 0;
	});
}
