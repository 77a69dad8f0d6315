import type { Pool, PoolConnection } from 'mysql2/promise';
import { takenOver } from '$core/checks/take-over';
import { parseQuestion } from '$core/kinds/schema';
import { binPlace } from '../changes/bin';
import { beginDeed, endDeed } from '../changes/deed';
import { placeQuestions } from '../changes/place';
import { rows, run, transaction } from '../db/pool';
import { Refused } from '../loads/refused';
import { saveQuestions } from '../questions/save';
import { tellProgress } from '../threads/progress';
import { conditionOf, type SnagFilter } from './filter';
import type { Hearing } from './mend';
import { twinRule, twinsOf } from './twins';

interface Twin {
	id: number;
	bankId: number;
	categoryId: number | null;
	title: string;
	document: string;
	used: number;
	verified: number;
}

/** What keeping one of several has done. */
export interface KeptOne {
	/** The question that stays, and how many others are in the bin. */
	kept: { id: number; title: string };
	gone: number;
	deedId: number;
}

const atOnce = 200;

/** Questions that say the same: the first stays, the others give way. */
type Twins = [Twin, ...Twin[]];

/** Has the quizzes that name questions which give way name the one that stays instead. */
async function nameKept(connection: PoolConnection, groups: readonly Twins[]): Promise<void> {
	const pairs = groups.flatMap(([kept, ...others]) => others.filter(({ used }) => used).map(({ id }) => [id, kept.id]));
	for (let at = 0; at < pairs.length; at += atOnce) {
		const some = pairs.slice(at, at + atOnce);
		await run(
			connection,
			`UPDATE IGNORE quiz_part_questions p JOIN (${some.map(() => 'SELECT ? AS gone, ? AS kept').join(' UNION ALL ')}) m ON m.gone = p.question_id SET p.question_id = m.kept`,
			some.flat()
		);
	}
}

/** Keeps the first of each group and puts the others in the bin; what it lacks of them it takes over. Gives how many are gone. */
async function keepFirsts(
	connection: PoolConnection,
	courseId: number,
	groups: readonly Twins[],
	by: { deedId: number; personId: number }
): Promise<number> {
	const changed = groups.flatMap(([kept, ...others]) => {
		const [before, ...rest] = [kept, ...others].map(({ document }) => parseQuestion(JSON.parse(document)));
		const question = takenOver(before!, rest);
		const same = JSON.stringify(question) === JSON.stringify(before);
		return same ? [] : [{ id: kept.id, bankId: kept.bankId, question }];
	});
	if (changed.length) await saveQuestions(connection, courseId, changed, { ...by, keepsKey: true });
	const placed = groups.flatMap(([kept, ...others]) => {
		const other = others.find(({ categoryId, bankId }) => categoryId !== null && bankId === kept.bankId);
		return kept.categoryId === null && other
			? [{ id: kept.id, bankId: kept.bankId, categoryId: other.categoryId }]
			: [];
	});
	if (placed.length) await placeQuestions(connection, courseId, courseId, placed, by);
	await nameKept(connection, groups);
	const bin = await binPlace(connection, courseId);
	const gone = groups.flatMap(([, ...others]) =>
		others.map(({ id }) => ({ id, bankId: bin.bankId, categoryId: null }))
	);
	await placeQuestions(connection, courseId, bin.courseId, gone, by);
	return gone.length;
}

async function locked(connection: PoolConnection, courseId: number, ids: readonly number[]): Promise<Twin[]> {
	return rows<Twin>(
		connection,
		`SELECT q.id, q.bank_id AS bankId, q.category_id AS categoryId, q.title, q.document, EXISTS (SELECT 1 FROM quiz_part_questions u WHERE u.question_id = q.id AND u.role <> 'excluded') AS used, q.verified IS NOT NULL AS verified
		FROM questions q WHERE q.course_id = ? AND q.id IN (?) ORDER BY used DESC, verified DESC, q.id FOR UPDATE`,
		[courseId, ids]
	);
}

/** Keeps the first of some questions that say the same, as a deed. */
async function keepFirst(
	connection: PoolConnection,
	courseId: number,
	personId: number,
	twins: Twins
): Promise<KeptOne> {
	const [kept] = twins;
	const deedId = await beginDeed(connection, {
		courseId,
		personId,
		deed: 'kept one of',
		subject: `the repeats of “${kept.title}”`,
		address: `/courses/${courseId}/banks?bank=${kept.bankId}&question=${kept.id}`
	});
	const gone = await keepFirsts(connection, courseId, [twins], { deedId, personId });
	await endDeed(connection, deedId, gone);
	return { kept: { id: kept.id, title: kept.title }, gone, deedId };
}

/** The groups of questions that say the same, each with the one that stays first: used in a quiz, else verified, else older. */
function grouped(twins: Twin[], alike: readonly { id: number; of: number }[]): Twins[] {
	const others = new Map<number, number[]>();
	for (const { id, of } of alike) others.set(of, [...(others.get(of) ?? []), id]);
	const seen = new Set<number>();
	return twins.flatMap((first): Twins[] => {
		if (seen.has(first.id)) return [];
		const group = new Set([first.id]);
		for (const id of group) for (const other of others.get(id) ?? []) group.add(other);
		for (const id of group) seen.add(id);
		const members = twins.filter(({ id }) => id !== first.id && group.has(id));
		return members.length ? [[first, ...members]] : [];
	});
}

/** What keeping one of each of several groups has done. */
export interface KeptOfEach {
	kept: number;
	gone: number;
	deedId: number;
}

/**
 * Keeps one of each group of questions that a filter finds to be there twice, as one deed: what `keepOne` does, for all at
 * once. Gives how many are kept and how many are in the bin. Throws Refused where there is none.
 */
export async function keepOneOfEach(
	pool: Pool,
	courseId: number,
	personId: number,
	filter: SnagFilter,
	{ told, ended }: Hearing<KeptOfEach> = { told: tellProgress }
): Promise<KeptOfEach> {
	return transaction(pool, async (connection) => {
		const { from, sql, parameters } = await conditionOf(connection, courseId, { ...filter, check: twinRule });
		const found = await rows<{ id: number }>(
			connection,
			`SELECT DISTINCT s.question_id AS id FROM ${from} WHERE ${sql}`,
			parameters
		);
		const ids = found.map(({ id }) => id);
		// by_group, or by_fingerprint
		const alike = ids.length
			? await rows<{ id: number; of: number }>(connection, `SELECT t.id, t.of FROM ${twinsOf} t`, [ids, ids])
			: [];
		const all = [...new Set(alike.flatMap(({ id, of }) => [id, of]))];
		const groups = all.length ? grouped(await locked(connection, courseId, all), alike) : [];
		if (!groups.length) throw new Refused('Nothing is there twice any more.');
		const deedId = await beginDeed(connection, {
			courseId,
			personId,
			deed: 'kept one of',
			subject: groups.length === 1 ? `the repeats of “${groups[0]![0].title}”` : `each of ${groups.length} repeats`,
			address: `/courses/${courseId}/snags?check=${twinRule}`
		});
		let gone = 0;
		for (let at = 0; at < groups.length; at += atOnce) {
			told(at, groups.length);
			gone += await keepFirsts(connection, courseId, groups.slice(at, at + atOnce), { deedId, personId });
		}
		await endDeed(connection, deedId, gone);
		const done = { kept: groups.length, gone, deedId };
		await ended?.(connection, done);
		return done;
	});
}

/**
 * Keeps one of the questions that ask the same as `questionId`, itself among them: the one that is used in a quiz, else
 * one whose key is verified, else the oldest. It takes over what it lacks of the others; these go to the bin, and quizzes
 * that named one of them name the one that stays. Throws Refused where there is no other.
 */
export async function keepOne(pool: Pool, courseId: number, personId: number, questionId: number): Promise<KeptOne> {
	return transaction(pool, async (connection) => {
		// by_group, or by_fingerprint
		const found = await rows<{ id: number }>(connection, `SELECT id FROM ${twinsOf} t`, [[questionId], [questionId]]);
		const twins = await locked(connection, courseId, [questionId, ...found.map(({ id }) => id)]);
		if (twins.length < 2) throw new Refused('There is no other question that says the same any more.');
		return keepFirst(connection, courseId, personId, twins as Twins);
	});
}

/** Keeps one of two questions that are nearly the same, and puts the other in the bin. Throws Refused where one is gone. */
export async function keepThis(
	pool: Pool,
	courseId: number,
	personId: number,
	keptId: number,
	otherId: number
): Promise<KeptOne> {
	return transaction(pool, async (connection) => {
		const both = await locked(connection, courseId, [keptId, otherId]);
		const kept = both.find(({ id }) => id === keptId);
		const other = both.find(({ id }) => id === otherId);
		if (!kept || !other) throw new Refused('One of the two is gone already. Look at what is there.');
		return keepFirst(connection, courseId, personId, [kept, other]);
	});
}
