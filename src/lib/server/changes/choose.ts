import type { PoolConnection } from 'mysql2/promise';
import { run } from '../db/pool';
import { tellProgress } from '../threads/progress';

/** Where a question is to stand from now on. */
export interface Placing {
	id: number;
	bankId: number;
	categoryId: number | null;
}

const batch = 2000;

/** Notes which questions are meant, and where each is to stand, in a table that lives as long as the connection. */
export async function notePlacings(connection: PoolConnection, placings: readonly Placing[]): Promise<void> {
	await run(
		connection,
		'CREATE TEMPORARY TABLE IF NOT EXISTS placing_now (id BIGINT UNSIGNED NOT NULL PRIMARY KEY, bank_id INT UNSIGNED NOT NULL, category_id INT UNSIGNED NULL)'
	);
	await run(connection, 'DELETE FROM placing_now');
	for (let at = 0; at < placings.length; at += batch)
		await run(connection, 'INSERT INTO placing_now (id, bank_id, category_id) VALUES ?', [
			placings.slice(at, at + batch).map(({ id, bankId, categoryId }) => [id, bankId, categoryId])
		]);
}

const slice = 5000;

/**
 * Goes through the questions that are noted slice by slice, in the order of their keys; `work` gets the condition for those
 * `n` of placing_now that are meant, with its parameters. How far it is is told, so that it can be stopped in between.
 */
export async function placingBySlices(
	placings: readonly Placing[],
	work: (sql: string, parameters: [first: number, last: number]) => Promise<void>
): Promise<void> {
	const ids = placings.map(({ id }) => id).sort((a, b) => a - b);
	for (let at = 0; at < ids.length; at += slice) {
		tellProgress(at, ids.length);
		await work('n.id BETWEEN ? AND ?', [ids[at]!, ids[Math.min(ids.length, at + slice) - 1]!]);
	}
	tellProgress(ids.length, ids.length);
}
