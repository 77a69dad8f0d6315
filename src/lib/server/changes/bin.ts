import type { PoolConnection } from 'mysql2/promise';
import { row, run } from '../db/pool';

/** Where the bin of a course is: a course of its own, to which nobody belongs, with one bank for single questions. */
export interface Bin {
	courseId: number;
	bankId: number;
}

/** The bin of a course, which is made where it has none yet. The bin of a bin is itself. */
export async function binPlace(connection: PoolConnection, courseId: number): Promise<Bin> {
	const own = await row<{ bin_of: number | null }>(connection, 'SELECT bin_of FROM courses WHERE id = ?', [courseId]);
	const of = own?.bin_of ?? courseId;
	await run(
		connection,
		"INSERT IGNORE INTO courses (code, name, state, bin_of) VALUES (CONCAT('bin of ', ?), 'Bin', 'binned', ?)",
		[of, of]
	);
	// by_bin
	const bin = (await row<{ id: number }>(connection, 'SELECT id FROM courses WHERE bin_of = ?', [of]))!;
	await run(connection, "INSERT IGNORE INTO banks (course_id, name) VALUES (?, 'Questions')", [bin.id]);
	const bank = (await row<{ id: number }>(
		connection,
		"SELECT id FROM banks WHERE course_id = ? AND name = 'Questions'",
		[bin.id]
	))!;
	return { courseId: bin.id, bankId: bank.id };
}
