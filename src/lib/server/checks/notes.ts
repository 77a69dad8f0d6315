import { createHash } from 'node:crypto';
import type { PoolConnection } from 'mysql2/promise';
import { manyChecks, pairChecks } from '$core/checks';
import type { ManyCheck, Noted } from '$core/checks/check';
import { withinKey } from '$core/checks/many';
import type { Question } from '$core/kinds';
import { languagesOf } from '$core/language/detect';
import { rows, run, type Database } from '../db/pool';
import { keyRows, type StoredStanding } from './pair-keys';

/** What notes of checks over pairs have instead of a group: they are found by their keys. */
const ofPairs = Buffer.alloc(8);

/** What checks over many note questions with. */
const tools = { languagesOf };

/** A group of questions that a check holds against one another, by the id of the check and the hash of the group. */
export interface Group {
	rule: string;
	hash: Buffer;
}

const hashOf = (check: ManyCheck, { bankId, categoryId }: StoredStanding, note: unknown): Buffer =>
	createHash('sha256')
		.update(
			JSON.stringify([
				withinKey(check, { bank: String(bankId), category: categoryId === null ? [] : [String(categoryId)] }),
				check.key?.(note) ?? ''
			])
		)
		.digest()
		.subarray(0, 8);

/** Notes questions anew for all checks over many. */
export async function writeNotes(
	connection: PoolConnection,
	courseId: number,
	questions: readonly (StoredStanding & { question: Question })[]
): Promise<void> {
	if (!questions.length) return;
	const notes: unknown[][] = [];
	const keys: unknown[][] = [];
	for (const { question, ...standing } of questions) {
		for (const check of manyChecks) {
			const note = check.note(question, tools);
			if (note !== null)
				notes.push([standing.id, check.id, courseId, hashOf(check, standing, note), JSON.stringify(note)]);
		}
		for (const check of pairChecks) {
			const note = check.note(question, tools);
			if (note === null) continue;
			notes.push([standing.id, check.id, courseId, ofPairs, JSON.stringify(note)]);
			for (const key of keyRows(courseId, check, standing, note)) keys.push(key);
		}
	}
	const ids = questions.map(({ id }) => id);
	await run(connection, 'DELETE FROM check_notes WHERE question_id IN (?)', [ids]);
	await run(connection, 'DELETE FROM check_keys WHERE question_id IN (?)', [ids]);
	if (notes.length)
		await run(connection, 'INSERT INTO check_notes (question_id, rule, course_id, group_hash, note) VALUES ?', [notes]);
	if (keys.length)
		await run(connection, 'INSERT IGNORE INTO check_keys (course_id, rule, key_hash, question_id) VALUES ?', [keys]);
}

/** A group with a digest of the notes that some questions have in it, and of whether something is said of them. */
export interface NotedGroup extends Group {
	digest: string;
}

/** The groups that questions belong to. */
export async function groupsOf(db: Database, ids: readonly number[]): Promise<NotedGroup[]> {
	return rows(
		db,
		`SELECT n.rule, n.group_hash AS hash, CONCAT(COUNT(*), ' ', BIT_XOR(CONV(LEFT(MD5(CONCAT(n.question_id, ' ', n.note, ' ',
			EXISTS (SELECT 1 FROM snags s WHERE s.question_id = n.question_id AND s.rule = n.rule))), 16), 16, 10))) AS digest
		FROM check_notes n WHERE n.question_id IN (?) AND n.group_hash <> ? GROUP BY n.rule, n.group_hash`,
		[ids, ofPairs]
	);
}

/** A condition for notes `n` of a course that says which groups are meant, with its parameters. */
function inGroups(courseId: number, groups: readonly Group[]): { sql: string; parameters: unknown[] } {
	const byRule = new Map<string, Buffer[]>();
	for (const { rule, hash } of groups) byRule.set(rule, [...(byRule.get(rule) ?? []), hash]);
	return {
		sql: [...byRule].map(() => '(n.course_id = ? AND n.rule = ? AND n.group_hash IN (?))').join(' OR '),
		parameters: [...byRule].flatMap(([rule, hashes]) => [courseId, rule, hashes])
	};
}

interface NoteRow {
	id: number;
	rule: string;
	hash: Buffer;
	note: string;
	name: string;
	category: string | null;
}

/** What is read of a note, and of the question that it is of. */
export const noteColumns =
	'n.question_id AS id, n.rule, n.group_hash AS hash, n.note, q.title AS name, c.name AS category FROM check_notes n JOIN questions q ON q.id = n.question_id LEFT JOIN categories c ON c.id = q.category_id';

/** A note as the checks take it. */
export const notedOf = ({ id, note, name, category }: Omit<NoteRow, 'rule' | 'hash'>): Noted<unknown> => ({
	id,
	name,
	category: category === null ? [] : [category],
	note: JSON.parse(note) as unknown
});

/**
 * Lets nobody else check questions of a course against one another until the transaction ends, so that of two who change
 * the same group the second sees what the first has done.
 */
export async function lockGroups(connection: PoolConnection, courseId: number): Promise<void> {
	await run(connection, 'INSERT IGNORE INTO course_checks (course_id) VALUES (?)', [courseId]);
	await rows(connection, 'SELECT course_id FROM course_checks WHERE course_id = ? FOR UPDATE', [courseId]);
}

/** The questions of groups as they were noted, group by group, as they are at this moment. */
export async function membersOf(
	db: Database,
	courseId: number,
	groups: readonly Group[]
): Promise<{ rule: string; noted: Noted<unknown>[] }[]> {
	if (!groups.length) return [];
	const { sql, parameters } = inGroups(courseId, groups);
	// by_group
	const found = await rows<NoteRow>(
		db,
		`SELECT ${noteColumns} WHERE ${sql} ORDER BY n.rule, n.group_hash, n.question_id LOCK IN SHARE MODE`,
		parameters
	);
	const members = new Map<string, { rule: string; noted: Noted<unknown>[] }>();
	for (const note of found) {
		const key = `${note.rule} ${note.hash.toString('hex')}`;
		const group = members.get(key) ?? { rule: note.rule, noted: [] };
		members.set(key, group);
		group.noted.push(notedOf(note));
	}
	return [...members.values()];
}

/** Takes away what is said of the questions of groups by the checks that the groups are of. */
export async function clearGroups(
	connection: PoolConnection,
	courseId: number,
	groups: readonly Group[]
): Promise<void> {
	if (!groups.length) return;
	const { sql, parameters } = inGroups(courseId, groups);
	for (const table of ['snags', 'waived_snags'])
		await run(
			connection,
			`DELETE s FROM check_notes n JOIN ${table} s ON s.question_id = n.question_id AND s.rule = n.rule WHERE ${sql}`,
			parameters
		);
}
