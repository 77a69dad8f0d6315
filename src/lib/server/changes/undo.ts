import type { Pool, PoolConnection } from 'mysql2/promise';
import { parseQuestion } from '$core/kinds/schema';
import { touchCourse } from '../courses/counts';
import { row, rows, run, transaction, type Database } from '../db/pool';
import { Refused } from '../loads/refused';
import { tellProgress } from '../threads/progress';
import { saveQuestions, type ByDeed } from '../questions/save';
import { findLost, rememberBanks, rememberCategories } from '../quizzes/lost';
import { binPlace } from './bin';
import { lockGroups } from '../checks/notes';
import { checkedTogether } from '../checks/around';
import { beginDeed, endDeed, type Done } from './deed';
import { changeKeys, keyState } from './key-state';
import { placeQuestions } from './place';
import { changeThings, imagesOf, insertImages, updateImages, type Image, type Thing } from './things';

/** A question `q` that is still as the deed of `c` has left it. */
const untouched = `CASE c.sort
	WHEN 'placed' THEN q.course_id = c.course_after AND q.bank_id = c.bank_after AND q.category_id <=> c.category_after
	WHEN 'written' THEN q.version = c.version_after
	WHEN 'made' THEN q.version = c.version_after AND q.course_id = c.course_after
	ELSE ${keyState} = c.key_after END`;

/** What taking a deed back would touch. */
export interface WayBack {
	deedId: number;
	deed: string;
	subject: string;
	/** Questions that are as they were before, and those among them that somebody has changed since. */
	questions: number;
	changed: { id: number; title: string }[];
	changedInAll: number;
}

interface LedgerRow {
	id: number;
	deed: string;
	subject: string;
	way_back: 'none' | 'open' | 'done';
}

const mostNamed = 50;

/** What taking a deed back would touch; undefined where it is none of the course, or has no way back any more. */
export async function wayBackOf(db: Database, courseId: number, deedId: number): Promise<WayBack | undefined> {
	const found = await row<LedgerRow>(
		db,
		"SELECT id, deed, subject, way_back FROM ledger WHERE id = ? AND course_id = ? AND way_back = 'open'",
		[deedId, courseId]
	);
	if (!found) return undefined;
	const counts = (await row<{ questions: number; changed: number }>(
		db,
		`SELECT COUNT(*) AS questions, COALESCE(SUM(NOT (${untouched})), 0) AS changed FROM changed_questions c JOIN questions q ON q.id = c.question_id WHERE c.deed_id = ?`,
		[deedId]
	))!;
	const changed = await rows<{ id: number; title: string }>(
		db,
		`SELECT q.id, q.title FROM changed_questions c JOIN questions q ON q.id = c.question_id WHERE c.deed_id = ? AND NOT (${untouched}) ORDER BY q.id LIMIT ${mostNamed}`,
		[deedId]
	);
	return {
		deedId,
		deed: found.deed,
		subject: found.subject,
		questions: counts.questions,
		changed,
		changedInAll: Number(counts.changed)
	};
}

interface ChangedRow {
	id: number;
	sort: 'placed' | 'written' | 'keyed' | 'made';
	courseId: number;
	bankId: number;
	courseBefore: number | null;
	bankBefore: number | null;
	categoryBefore: number | null;
	keyBefore: string | null;
}

async function changedBy(connection: PoolConnection, deedId: number, all: boolean): Promise<ChangedRow[]> {
	return rows(
		connection,
		`SELECT q.id, c.sort, q.course_id AS courseId, q.bank_id AS bankId, c.course_before AS courseBefore, c.bank_before AS bankBefore, c.category_before AS categoryBefore, c.key_before AS keyBefore
		FROM changed_questions c JOIN questions q ON q.id = c.question_id WHERE c.deed_id = ?${all ? '' : ` AND (${untouched})`} ORDER BY q.id FOR UPDATE`,
		[deedId]
	);
}

interface ThingRow {
	thing: Thing;
	thing_id: number;
	before_it: string | null;
	after_it: string | null;
}

/** Puts banks and categories back as they were before a deed; those that are no longer as it left them stay. */
async function putThingsBack(connection: PoolConnection, kept: readonly ThingRow[], by: ByDeed): Promise<void> {
	for (const thing of ['bank', 'category'] as const) {
		const own = kept.filter((one) => one.thing === thing && one.before_it !== null);
		const ids = own.map((one) => one.thing_id);
		await changeThings(connection, by.deedId, thing, ids, async () => {
			const now = await imagesOf(connection, thing, ids);
			const was = (one: ThingRow) => JSON.parse(one.before_it!) as Image;
			await insertImages(connection, thing, own.filter((one) => !now.has(one.thing_id)).map(was));
			const same = (one: ThingRow) => JSON.stringify(now.get(one.thing_id)) === one.after_it;
			await updateImages(connection, thing, own.filter((one) => now.has(one.thing_id) && same(one)).map(was));
			return undefined;
		});
	}
}

/** Takes banks and categories away that a deed has made and in which nothing is any more. */
async function takeThingsAway(connection: PoolConnection, kept: readonly ThingRow[], by: ByDeed): Promise<void> {
	const made = (thing: Thing) =>
		kept.filter((one) => one.thing === thing && one.before_it === null).map((one) => one.thing_id);
	for (let left = made('category'); left.length;) {
		const empty = (
			await rows<{ id: number }>(
				connection,
				'SELECT c.id FROM categories c WHERE c.id IN (?) AND NOT EXISTS (SELECT 1 FROM questions q WHERE q.category_id = c.id) AND NOT EXISTS (SELECT 1 FROM categories u WHERE u.parent_id = c.id)',
				[left]
			)
		).map(({ id }) => id);
		if (!empty.length) break;
		await rememberCategories(connection, empty);
		await changeThings(connection, by.deedId, 'category', empty, async () => {
			await run(connection, 'DELETE FROM categories WHERE id IN (?)', [empty]);
			return undefined;
		});
		left = left.filter((id) => !empty.includes(id));
	}
	const banks = made('bank');
	if (!banks.length) return;
	const empty =
		'b.id IN (?) AND NOT EXISTS (SELECT 1 FROM questions q WHERE q.bank_id = b.id) AND NOT EXISTS (SELECT 1 FROM categories c WHERE c.bank_id = b.id)';
	await rememberBanks(connection, empty, [banks]);
	await changeThings(connection, by.deedId, 'bank', banks, async () => {
		await run(connection, `DELETE b FROM banks b WHERE ${empty}`, [banks]);
		return undefined;
	});
}

/** What was changed, by a name that each is given; what gets none is left out. */
function grouped(
	changed: readonly ChangedRow[],
	nameOf: (one: ChangedRow) => string | null
): Map<string, ChangedRow[]> {
	const groups = new Map<string, ChangedRow[]>();
	for (const question of changed) {
		const name = nameOf(question);
		if (name === null) continue;
		const group = groups.get(name);
		if (group) group.push(question);
		else groups.set(name, [question]);
	}
	return groups;
}

async function unplace(connection: PoolConnection, changed: readonly ChangedRow[], by: ByDeed): Promise<number> {
	const banks = await imagesOf(connection, 'bank', [...new Set(changed.flatMap(({ bankBefore }) => bankBefore ?? []))]);
	const categories = await imagesOf(connection, 'category', [
		...new Set(changed.flatMap(({ categoryBefore }) => categoryBefore ?? []))
	]);
	const byWay = grouped(changed, (question) => {
		const bank = banks.get(question.bankBefore ?? 0);
		return bank ? `${question.courseId} ${bank.course_id}` : null;
	});
	let count = 0;
	for (const [way, ones] of byWay) {
		const [from, to] = way.split(' ').map(Number) as [number, number];
		count += await placeQuestions(
			connection,
			from,
			to,
			ones.map((question) => ({
				id: question.id,
				bankId: question.bankBefore!,
				categoryId:
					categories.get(question.categoryBefore ?? 0)?.bank_id === question.bankBefore ? question.categoryBefore : null
			})),
			by
		);
	}
	return count;
}

const batch = 300;

async function unwrite(
	connection: PoolConnection,
	deedId: number,
	changed: readonly ChangedRow[],
	by: ByDeed
): Promise<number> {
	for (let at = 0; at < changed.length; at += batch) {
		tellProgress(at, changed.length);
		const ones = changed.slice(at, at + batch);
		// by_deed; the first version that the deed replaced is what was there before it
		const versions = await rows<{ id: number; document: string }>(
			connection,
			'SELECT v.question_id AS id, v.document FROM question_versions v WHERE v.deed_id = ? AND v.question_id IN (?) ORDER BY v.version DESC',
			[deedId, ones.map(({ id }) => id)]
		);
		const documents = new Map(versions.map(({ id, document }) => [id, document]));
		const back = ones.flatMap(({ id, bankId, courseId }) => {
			const document = documents.get(id);
			return document ? [{ id, bankId, courseId, question: parseQuestion(JSON.parse(document)) }] : [];
		});
		for (const courseId of new Set(back.map((one) => one.courseId)))
			await saveQuestions(
				connection,
				courseId,
				back.filter((one) => one.courseId === courseId),
				by
			);
	}
	return changed.length;
}

async function unkey(connection: PoolConnection, changed: readonly ChangedRow[], by: ByDeed): Promise<number> {
	const alike = grouped(changed, (one) => `${one.courseId} ${one.keyBefore}`);
	for (const ones of alike.values()) {
		const [verifiedBy, verified, version, disputed, disputedBy, machine] = JSON.parse(ones[0]!.keyBefore!) as unknown[];
		await changeKeys(
			connection,
			ones[0]!.courseId,
			ones.map(({ id }) => id),
			{
				sql: 'q.verified_by = ?, q.verified = ?, q.verified_version = ?, q.disputed = ?, q.disputed_by = ?, q.machine = ?',
				values: [verifiedBy, verified, version, disputed, disputedBy, machine]
			},
			by.deedId
		);
	}
	return changed.length;
}

/** Throws Refused where a deed reached into another course that the person may not change, or that is not open any more. */
async function refuseElsewhere(
	connection: PoolConnection,
	courseId: number,
	personId: number,
	deedId: number
): Promise<void> {
	const other = await row<{ name: string }>(
		connection,
		`SELECT c.name FROM (SELECT DISTINCT q.course_id AS id FROM changed_questions d JOIN questions q ON q.id = d.question_id WHERE d.deed_id = ?
			UNION SELECT DISTINCT course_before FROM changed_questions WHERE deed_id = ? AND course_before IS NOT NULL) u
		JOIN courses c ON c.id = u.id AND c.id <> ? AND NOT (c.bin_of <=> ?) JOIN people p ON p.id = ? LEFT JOIN memberships m ON m.course_id = c.id AND m.person_id = p.id
		WHERE c.bin_of IS NULL AND (c.state <> 'open' OR NOT (p.keeper = 1 OR COALESCE(m.role IN ('work', 'manage'), 0))) LIMIT 1`,
		[deedId, deedId, courseId, courseId, personId]
	);
	if (other)
		throw new Refused(`This reaches into ${other.name}, which you may not change. Ask somebody who works there.`);
}

/**
 * Takes a deed back, as a deed of its own that can be taken back again. What was changed since stays as it is, unless
 * `all` is asked for. Throws Refused where there is no way back any more.
 */
export async function undoDeed(
	pool: Pool,
	courseId: number,
	personId: number,
	deedId: number,
	all: boolean
): Promise<Done> {
	return transaction(pool, async (connection) => {
		const found = await row<LedgerRow>(
			connection,
			'SELECT id, deed, subject, way_back FROM ledger WHERE id = ? AND course_id = ? FOR UPDATE',
			[deedId, courseId]
		);
		if (found?.way_back !== 'open')
			throw new Refused(
				found?.way_back === 'done' ? 'This was taken back already.' : 'There is no way back from this.'
			);
		await refuseElsewhere(connection, courseId, personId, deedId);
		const back = await beginDeed(connection, {
			courseId,
			personId,
			deed: 'took back',
			subject: `${found.deed}: ${found.subject}`,
			address: `/courses/${courseId}/ledger`
		});
		const by: ByDeed = { deedId: back, personId };
		const kept = await rows<ThingRow>(
			connection,
			'SELECT thing, thing_id, before_it, after_it FROM changed_things WHERE deed_id = ?',
			[deedId]
		);
		// what checks the course in the background would lock the same questions in another order
		await lockGroups(connection, courseId);
		const changed = await changedBy(connection, deedId, all);
		const of = (sort: ChangedRow['sort']) => changed.filter((one) => one.sort === sort);
		await putThingsBack(connection, kept, by);
		let questions = await unplace(connection, of('placed'), by);
		questions += await checkedTogether(connection, (later) =>
			unwrite(connection, deedId, of('written'), { ...by, later })
		);
		questions += await unkey(connection, of('keyed'), by);
		const made = of('made');
		for (const from of new Set(made.map((one) => one.courseId))) {
			const bin = await binPlace(connection, from);
			const ones = made.filter((one) => one.courseId === from);
			questions += await placeQuestions(
				connection,
				from,
				bin.courseId,
				ones.map(({ id }) => ({ id, bankId: bin.bankId, categoryId: null })),
				by
			);
		}
		await takeThingsAway(connection, kept, by);
		await findLost(connection, courseId);
		await touchCourse(connection, courseId);
		await run(connection, "UPDATE ledger SET way_back = 'done', undone_by = ? WHERE id = ?", [back, deedId]);
		await endDeed(connection, back, questions);
		return { deedId: back, questions, words: `Taken back: ${found.deed} ${found.subject}.` };
	});
}
