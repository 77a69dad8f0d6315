import type { PoolConnection } from 'mysql2/promise';
import { run } from '../db/pool';

/** Which questions `q` are meant: those of a load, those that a deed made, or some by their keys. */
export type Which = { loadId: number } | { deedId: number } | { ids: readonly number[] };

/** The condition for them, with its parameters: by_load, by_deed, or the key. */
export function whichCondition(which: Which): { sql: string; parameters: unknown[] } {
	if ('loadId' in which) return { sql: 'q.load_id = ?', parameters: [which.loadId] };
	if ('deedId' in which) return { sql: 'q.deed_id = ?', parameters: [which.deedId] };
	return which.ids.length ? { sql: 'q.id IN (?)', parameters: [which.ids] } : { sql: 'FALSE', parameters: [] };
}

/** Notes the tags of questions as their documents have them now, so that they are found and counted by an index. */
export async function keepTags(connection: PoolConnection, which: Which): Promise<void> {
	const { sql, parameters } = whichCondition(which);
	await run(
		connection,
		`DELETE t FROM question_tags t JOIN questions q ON q.id = t.question_id WHERE ${sql}`,
		parameters
	);
	await run(
		connection,
		`INSERT IGNORE INTO question_tags (question_id, tag)
		SELECT q.id, t.tag FROM questions q JOIN JSON_TABLE(q.tags, '$[*]' COLUMNS (tag VARCHAR(120) PATH '$')) t
		WHERE ${sql} AND q.tags <> '[]' AND t.tag IS NOT NULL`,
		parameters
	);
}
