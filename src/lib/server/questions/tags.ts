import type { PoolConnection } from 'mysql2/promise';
import { rows, run, type Database } from '../db/pool';

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

const mostOffered = 20;

/** Tags of the questions of a course that begin with some letters, large or small, so that one is written as it was before. */
export async function tagsBeginning(db: Database, courseId: number, letters: string): Promise<string[]> {
	const begins = letters.replace(/[\\%_]/g, '\\$&');
	const small = begins.toLowerCase();
	const written = [...new Set([begins, small, small.slice(0, 1).toUpperCase() + small.slice(1), begins.toUpperCase()])];
	// by_tag, a stretch of it for each way of writing
	const found = await rows<{ tag: string }>(
		db,
		`SELECT DISTINCT t.tag FROM question_tags t JOIN questions q ON q.id = t.question_id
		WHERE (${written.map(() => 't.tag LIKE ?').join(' OR ')}) AND q.course_id = ? ORDER BY t.tag LIMIT ${mostOffered}`,
		[...written.map((start) => `${start}%`), courseId]
	);
	return found.map(({ tag }) => tag);
}
