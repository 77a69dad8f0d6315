import { createHash } from 'node:crypto';
import type { PoolConnection } from 'mysql2/promise';
import { manyChecks, pairChecks } from '$core/checks';
import type { ManyCheck, Noted, PairCheck } from '$core/checks/check';
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

/** What questions are noted with now: by question, then by check, its course, group and note in one text. */
async function notedBefore(db: Database, ids: readonly number[]): Promise<Map<number, Map<string, string>>> {
	const found = await rows<{ id: number; courseId: number; rule: string; hash: Buffer; note: string }>(
		db,
		'SELECT question_id AS id, course_id AS courseId, rule, group_hash AS hash, CAST(note AS CHAR) AS note FROM check_notes WHERE question_id IN (?)',
		[ids]
	);
	const noted = new Map<number, Map<string, string>>();
	for (const { id, courseId, rule, hash, note } of found) {
		const own = noted.get(id) ?? new Map<string, string>();
		noted.set(id, own.set(rule, inOneText(courseId, hash, note)));
	}
	return noted;
}

const inOneText = (courseId: number, hash: Buffer, note: string) => `${courseId} ${hash.toString('hex')} ${note}`;

type Standing = StoredStanding & { question: Question };

/** What the checks over many, and those over pairs, note of a question. */
function notesFor({
	question,
	...standing
}: Standing): { check: ManyCheck | PairCheck; hash: Buffer; note: unknown }[] {
	return [
		...manyChecks.flatMap((check) => {
			const note = check.note(question, tools);
			return note === null ? [] : [{ check, hash: hashOf(check, standing, note), note }];
		}),
		...pairChecks.flatMap((check) => {
			const note = check.note(question, tools);
			return note === null ? [] : [{ check, hash: ofPairs, note }];
		})
	];
}

/**
 * Notes questions anew for all checks over many; what was noted with the same before is left alone. Gives those that have
 * to be paired anew: all but those of `unmoved`, which stand where they stood, whose notes for pairs are the same.
 */
export async function writeNotes(
	connection: PoolConnection,
	courseId: number,
	questions: readonly Standing[],
	unmoved: ReadonlySet<number>
): Promise<Set<number>> {
	if (!questions.length) return new Set();
	const before = await notedBefore(
		connection,
		questions.map(({ id }) => id)
	);
	const paired = new Set<number>();
	const notes: unknown[][] = [];
	const keys: unknown[][] = [];
	const gone = new Map<string, number[]>();
	for (const { question, ...standing } of questions) {
		const { id } = standing;
		const known = before.get(id) ?? new Map<string, string>();
		const own = notesFor({ question, ...standing });
		const isPair = (rule: string) => pairChecks.some((check) => check.id === rule);
		const changed = own.filter(
			({ check, hash, note }) => known.get(check.id) !== inOneText(courseId, hash, JSON.stringify(note))
		);
		notes.push(...changed.map(({ check, hash, note }) => [id, check.id, courseId, hash, JSON.stringify(note)]));
		const lost = [...known.keys()].filter((rule) => !own.some(({ check }) => check.id === rule));
		for (const rule of lost) gone.set(rule, [...(gone.get(rule) ?? []), id]);
		if (unmoved.has(id) && !changed.some(({ check }) => isPair(check.id)) && !lost.some(isPair)) continue;
		paired.add(id);
		for (const { check, note } of own)
			if (check.scope === 'pairs') keys.push(...keyRows(courseId, check, standing, note));
	}
	for (const [rule, ids] of gone)
		await run(connection, 'DELETE FROM check_notes WHERE question_id IN (?) AND rule = ?', [ids, rule]);
	if (paired.size) await run(connection, 'DELETE FROM check_keys WHERE question_id IN (?)', [[...paired]]);
	if (notes.length)
		await run(
			connection,
			`INSERT INTO check_notes (question_id, rule, course_id, group_hash, note) VALUES ?
			ON DUPLICATE KEY UPDATE course_id = VALUES(course_id), group_hash = VALUES(group_hash), note = VALUES(note)`,
			[notes]
		);
	if (keys.length)
		await run(connection, 'INSERT IGNORE INTO check_keys (course_id, rule, key_hash, question_id) VALUES ?', [keys]);
	return paired;
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
