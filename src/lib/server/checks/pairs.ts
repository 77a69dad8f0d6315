import type { PoolConnection } from 'mysql2/promise';
import { pairChecks } from '$core/checks';
import type { Noted, PairCheck } from '$core/checks/check';
import { alikeAmong } from '$core/checks/pairing';
import { ruleOf } from '$core/reports/rules';
import { rows, run, type Database } from '../db/pool';
import type { Control } from '../jobs/control';
import { reportColumns } from '../questions/columns';
import { writeSnags, type SnagRow } from './findings';
import { noteColumns, notedOf } from './notes';

const atOnce = 4000;
/** In a message so many others are named; of so many candidates of a question at the most is one alike. */
const mostNamed = 3;
const mostCandidates = 600;
const mostMembers = 300;

type NotedRow = Parameters<typeof notedOf>[0];

/** The questions that are paired with some. */
export async function partnersOf(db: Database, ids: readonly number[]): Promise<number[]> {
	if (!ids.length) return [];
	// the key
	return (
		await rows<{ id: number }>(db, 'SELECT DISTINCT other_id AS id FROM check_pairs WHERE question_id IN (?)', [ids])
	).map(({ id }) => id);
}

async function candidatesOf(
	db: Database,
	courseId: number,
	rule: string,
	ids: readonly number[]
): Promise<Map<number, Noted<unknown>[]>> {
	// by_question, then the key
	const found = await rows<NotedRow & { of: number }>(
		db,
		`SELECT c.of, ${noteColumns.replace('FROM check_notes n', `FROM (SELECT DISTINCT k.question_id AS of, o.question_id AS other FROM check_keys k JOIN check_keys o ON o.course_id = k.course_id AND o.rule = k.rule AND o.key_hash = k.key_hash AND o.question_id <> k.question_id WHERE k.question_id IN (?) AND k.course_id = ? AND k.rule = ? LIMIT ${mostCandidates * 20}) c JOIN check_notes n ON n.question_id = c.other AND n.rule = ?`)} ORDER BY c.of, n.question_id`,
		[ids, courseId, rule, rule]
	);
	const candidates = new Map<number, Noted<unknown>[]>();
	for (const candidate of found) {
		const known = candidates.get(candidate.of) ?? [];
		candidates.set(candidate.of, known);
		if (known.length < mostCandidates) known.push(notedOf(candidate));
	}
	return candidates;
}

const notesOf = async (db: Database, rule: string, ids: readonly number[]): Promise<Noted<unknown>[]> =>
	ids.length
		? (await rows<NotedRow>(db, `SELECT ${noteColumns} WHERE n.question_id IN (?) AND n.rule = ?`, [ids, rule])).map(
				notedOf
			)
		: [];

const bothWays = (rule: string, pairs: readonly [number, number][]) =>
	pairs.flatMap(([a, b]) => [
		[rule, a, b],
		[rule, b, a]
	]);

async function insertPairs(
	connection: PoolConnection,
	rule: string,
	pairs: readonly [number, number][]
): Promise<void> {
	if (pairs.length)
		await run(connection, 'INSERT IGNORE INTO check_pairs (rule, question_id, other_id) VALUES ?', [
			bothWays(rule, pairs)
		]);
}

/** Says anew of questions, or of all of a course, what the pairs of a check say; two that are both meant say nothing. */
async function sayPairs(
	connection: PoolConnection,
	courseId: number,
	check: PairCheck,
	ids: readonly number[] | null
): Promise<void> {
	const which = ids === null ? '' : ' AND p.question_id IN (?)';
	// the key, then by_question of waivers
	const found = await rows<NotedRow & { of: number; all: number }>(
		connection,
		`SELECT x.of, x.all, ${noteColumns.replace(
			'FROM check_notes n',
			`FROM (SELECT p.question_id AS of, p.other_id AS other, COUNT(*) OVER (PARTITION BY p.question_id) AS \`all\`, ROW_NUMBER() OVER (PARTITION BY p.question_id ORDER BY p.other_id) AS place
				FROM check_pairs p JOIN questions o ON o.id = p.question_id AND o.course_id = ? WHERE p.rule = ?${which} AND NOT EXISTS (SELECT 1 FROM waivers w WHERE w.rule = p.rule AND w.scope = 'pair' AND w.question_id = LEAST(p.question_id, p.other_id) AND w.other_id = GREATEST(p.question_id, p.other_id))) x
			JOIN check_notes n ON n.question_id = x.other AND n.rule = ? AND x.place <= ${mostNamed}`
		)} ORDER BY x.of, x.place`,
		[courseId, check.id, ...(ids === null ? [] : [ids]), check.id]
	);
	const others = new Map<number, { named: Noted<unknown>[]; all: number }>();
	for (const other of found) {
		const known = others.get(other.of) ?? { named: [], all: Number(other.all) };
		others.set(other.of, known);
		known.named.push(notedOf(other));
	}
	const gone = ids === null ? 'course_id = ? AND rule = ?' : 'question_id IN (?) AND rule = ?';
	for (const table of ['snags', 'waived_snags'])
		await run(connection, `DELETE FROM ${table} WHERE ${gone}`, [ids ?? courseId, check.id]);
	const snags = [...others].map(([id, { named, all }]): SnagRow => [
		courseId,
		id,
		...reportColumns({ rule: ruleOf(check), severity: check.severity, ...check.say(named, all) })
	]);
	await writeSnags(connection, courseId, snags);
}

/**
 * Looks anew for the pairs of questions that were changed and noted; `before` are those that they were paired with. What is
 * said of all of them is said anew.
 */
export async function pairAround(
	connection: PoolConnection,
	courseId: number,
	ids: readonly number[],
	before: readonly number[]
): Promise<void> {
	if (!ids.length) return;
	// the key, and by_other
	await run(connection, 'DELETE FROM check_pairs WHERE question_id IN (?) OR other_id IN (?)', [ids, ids]);
	for (const check of pairChecks) {
		const own = await notesOf(connection, check.id, ids);
		const candidates = await candidatesOf(connection, courseId, check.id, ids);
		const pairs = own.flatMap((noted) =>
			alikeAmong(check, noted, candidates.get(noted.id) ?? []).map((other): [number, number] => [noted.id, other.id])
		);
		await insertPairs(connection, check.id, pairs);
		const concerned = new Set([...ids, ...before, ...pairs.map(([, other]) => other)]);
		await sayPairs(connection, courseId, check, [...concerned]);
	}
}

/** Says anew what is said of questions by their pairs, as once two of them are both meant. */
export async function sayPairsOf(connection: PoolConnection, courseId: number, ids: readonly number[]): Promise<void> {
	for (const check of pairChecks) await sayPairs(connection, courseId, check, ids);
}

/** Keys in slices that so many questions have together; one that more have is a slice of its own. */
function slicesOf(shared: readonly { hash: Buffer; size: number }[]): Buffer[][] {
	const slices: Buffer[][] = [];
	let held = atOnce;
	for (const { hash, size } of shared) {
		if (held + Number(size) > atOnce) {
			slices.push([]);
			held = 0;
		}
		slices.at(-1)!.push(hash);
		held += Number(size);
	}
	return slices;
}

/** The questions that have some keys, key by key; of a single one so many behind a place. */
async function sharing(
	db: Database,
	courseId: number,
	rule: string,
	hashes: readonly Buffer[],
	after: number
): Promise<(NotedRow & { hash: Buffer })[]> {
	// the key of check_keys
	return rows(
		db,
		`SELECT k.key_hash AS hash, n.question_id AS id, n.note, q.title AS name, c.name AS category FROM check_keys k JOIN check_notes n ON n.question_id = k.question_id AND n.rule = k.rule
		JOIN questions q ON q.id = n.question_id LEFT JOIN categories c ON c.id = q.category_id
		WHERE k.course_id = ? AND k.rule = ? AND k.key_hash IN (?) AND k.question_id > ? ORDER BY k.key_hash, k.question_id LIMIT ${atOnce}`,
		[courseId, rule, hashes, after]
	);
}

/** Finds the pairs of a check among all questions of a course, by their keys that more than one has. */
export async function pairAll(
	connection: PoolConnection,
	courseId: number,
	check: PairCheck,
	control: Control
): Promise<void> {
	await run(
		connection,
		'DELETE p FROM check_pairs p JOIN questions q ON q.id = p.question_id WHERE q.course_id = ? AND p.rule = ?',
		[courseId, check.id]
	);
	// the key of check_keys
	const shared = await rows<{ hash: Buffer; size: number }>(
		connection,
		'SELECT key_hash AS hash, COUNT(*) AS size FROM check_keys WHERE course_id = ? AND rule = ? GROUP BY key_hash HAVING COUNT(*) > 1',
		[courseId, check.id]
	);
	let group: { hash: string; noted: Noted<unknown>[] } = { hash: '', noted: [] };
	let pairs: [number, number][] = [];
	const partners = new Map<number, number>();
	const close = () => {
		group.noted.forEach((own, at) => {
			if ((partners.get(own.id) ?? 0) > mostNamed) return;
			for (const other of alikeAmong(check, own, group.noted.slice(at + 1, at + 1 + mostMembers))) {
				pairs.push([own.id, other.id]);
				for (const { id } of [own, other]) partners.set(id, (partners.get(id) ?? 0) + 1);
			}
		});
		group = { hash: '', noted: [] };
	};
	for (const slice of slicesOf(shared)) {
		control.check();
		for (let last = 0; ;) {
			const found = await sharing(connection, courseId, check.id, slice, last);
			for (const member of found) {
				const hash = member.hash.toString('hex');
				if (hash !== group.hash) {
					close();
					group.hash = hash;
				}
				group.noted.push(notedOf(member));
			}
			// of a key that very many have, those near one another are held against one another
			if (slice.length > 1 || found.length < atOnce) break;
			last = found.at(-1)!.id;
			close();
		}
		close();
		await insertPairs(connection, check.id, pairs);
		pairs = [];
	}
	await sayPairs(connection, courseId, check, null);
}
