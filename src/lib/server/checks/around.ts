import type { PoolConnection } from 'mysql2/promise';
import { checkOf, checks, manyChecks, oneChecks } from '$core/checks';
import type { ManyCheck } from '$core/checks/check';
import { edition } from '$core/checks/edition';
import { checkBeside } from '$core/checks/one';
import type { Question } from '$core/kinds';
import { parseQuestion } from '$core/kinds/schema';
import { touchCourse } from '../courses/counts';
import { checkRules } from '../courses/kept';
import { rows, run } from '../db/pool';
import { reportColumns } from '../questions/columns';
import { dropLoneTwins } from '../snags/twins';
import { snagsAmong, writeSnags } from './findings';
import { pairAround, partnersOf } from './pairs';
import { checkTallies } from './tallies';
import { setWaivedAside } from './waived';
import { clearGroups, groupsOf, lockGroups, membersOf, writeNotes, type Group, type NotedGroup } from './notes';

const ofChecks = checks.map(({ id }) => id);
const ofOne = oneChecks.map(({ id }) => id);
const ofMany = manyChecks.map(({ id }) => id);

interface StoredRow {
	id: number;
	bankId: number;
	categoryId: number | null;
	title: string;
	machine: number;
	verified: number;
	/** Null where the question is known. */
	document: string | null;
}

/** What is known of questions that were just changed, by their keys. */
interface Changed {
	/** What was written of them, so that it need not be read again. */
	written: ReadonlyMap<number, Question>;
	/** Where they stood before and what they were called, in one text each. */
	standing: ReadonlyMap<number, string>;
}

/** What checking questions has shown of them. */
interface Checked {
	/** Those that stand where they stood and are called as they were. */
	unmoved: ReadonlySet<number>;
	/** Those that have to be paired anew. */
	paired: ReadonlySet<number>;
}

const nothingKnown: Changed = { written: new Map(), standing: new Map() };
const standingText = ({ bankId, categoryId, title }: Pick<StoredRow, 'bankId' | 'categoryId' | 'title'>) =>
	JSON.stringify([bankId, categoryId, title]);

/** Where questions stand and what they are called, which the checks over many tell of them. */
async function standingOf(connection: PoolConnection, ids: readonly number[]): Promise<Map<number, string>> {
	const stored = await rows<Pick<StoredRow, 'id' | 'bankId' | 'categoryId' | 'title'>>(
		connection,
		'SELECT id, bank_id AS bankId, category_id AS categoryId, title FROM questions WHERE id IN (?)',
		[ids]
	);
	return new Map(stored.map((question) => [question.id, standingText(question)]));
}

/**
 * Checks questions anew, each by itself, and notes them for the checks over many; what readers have said stays. Gives
 * what that shows, by what is known of a change.
 */
export async function checkEach(
	connection: PoolConnection,
	courseId: number,
	ids: readonly number[],
	{ written, standing }: Changed = nothingKnown
): Promise<Checked> {
	const stored = await rows<StoredRow>(
		connection,
		'SELECT id, bank_id AS bankId, category_id AS categoryId, title, machine, verified IS NOT NULL AS verified, IF(id IN (?), NULL, document) AS document FROM questions WHERE course_id = ? AND id IN (?) ORDER BY id FOR UPDATE',
		[written.size ? [...written.keys()] : [0], courseId, ids]
	);
	if (!stored.length) return { unmoved: new Set(), paired: new Set() };
	const here = stored.map(({ id }) => id);
	const unmoved = new Set(
		stored.filter((question) => standing.get(question.id) === standingText(question)).map(({ id }) => id)
	);
	const questions = stored.map(({ document, machine, verified, title: _, ...place }) => ({
		...place,
		known: { machine: machine === 1, verified: verified === 1 },
		question: written.get(place.id) ?? parseQuestion(JSON.parse(document!))
	}));
	const { on } = await checkRules(connection, courseId);
	const said = await rows<{ id: number; rule: string }>(
		connection,
		'SELECT question_id AS id, rule FROM snags WHERE question_id IN (?) AND rule NOT IN (?)',
		[here, ofChecks]
	);
	const rulesOf = new Map<number, { rule: string }[]>();
	for (const { id, rule } of said) rulesOf.set(id, [...(rulesOf.get(id) ?? []), { rule }]);
	for (const table of ['snags', 'waived_snags'])
		await run(connection, `DELETE FROM ${table} WHERE question_id IN (?) AND rule IN (?)`, [here, ofOne]);
	await writeSnags(
		connection,
		courseId,
		questions.flatMap(({ id, question, known }) =>
			checkBeside(question, rulesOf.get(id) ?? [], { known, on }).map((report) => [
				courseId,
				id,
				...reportColumns(report)
			])
		)
	);
	const paired = await writeNotes(connection, courseId, questions, unmoved);
	// what a check over many has nothing to note of any more it says nothing of
	for (const table of ['snags', 'waived_snags'])
		await run(
			connection,
			`DELETE s FROM ${table} s LEFT JOIN check_notes n ON n.question_id = s.question_id AND n.rule = s.rule
			WHERE s.question_id IN (?) AND s.rule IN (?) AND n.question_id IS NULL`,
			[here, ofMany]
		);
	await run(connection, 'UPDATE questions SET checked = ? WHERE id IN (?)', [edition, here]);
	return { unmoved, paired };
}

/** What several changes of one transaction leave to be checked once, at their end: groups by their names, by course. */
export type ToCheck = Map<number, Map<string, Group>>;

const nameOf = ({ rule, hash }: Group) => `${rule} ${hash.toString('hex')}`;
const isTallied = ({ rule }: Group) => (checkOf(rule) as ManyCheck | undefined)?.tallied ?? false;

/**
 * The groups that have to be looked at anew after a change, by what some of their questions were noted with before it and
 * are noted with after it. A group that is only counted says the same as before where no note has changed, however large
 * it is; of the others the names of the questions are told too, which may have changed.
 */
function groupsToCheck(before: readonly NotedGroup[], after: readonly NotedGroup[], haveMoved: boolean): Group[] {
	const known = new Map(before.map((group) => [nameOf(group), group]));
	const same = new Set(
		after
			.filter((group) => (isTallied(group) || !haveMoved) && known.get(nameOf(group))?.digest === group.digest)
			.map(nameOf)
	);
	const groups = new Map([...before, ...after].map((group) => [nameOf(group), group]));
	return [...groups].flatMap(([name, group]) => (same.has(name) ? [] : [group]));
}

/** Checks groups anew by the notes of all that belong to them. */
async function checkGroups(connection: PoolConnection, courseId: number, groups: readonly Group[]): Promise<void> {
	const tallied = new Map<string, Buffer[]>();
	for (const { rule, hash } of groups.filter(isTallied)) tallied.set(rule, [...(tallied.get(rule) ?? []), hash]);
	for (const [rule, hashes] of tallied) await checkTallies(connection, courseId, checkOf(rule) as ManyCheck, hashes);
	const others = groups.filter((group) => !isTallied(group));
	await clearGroups(connection, courseId, others);
	const members = await membersOf(connection, courseId, others);
	await writeSnags(
		connection,
		courseId,
		members.flatMap(({ rule, noted }) => snagsAmong(courseId, rule, noted))
	);
}

/** What is done once all that a change concerns was checked. */
async function settle(connection: PoolConnection, courseId: number): Promise<void> {
	await setWaivedAside(connection, courseId);
	// where a course was not checked yet, what a load has said of twins is all that is known of them
	await dropLoneTwins(connection, courseId);
	await touchCourse(connection, courseId);
}

/** So many groups are checked at once. */
const groupsAtOnce = 2000;

/**
 * Does several changes of one transaction, after which what they concern among others is checked once: of a group that
 * many of them touch, such as all questions of a bank, each would have to look at the whole of it.
 */
export async function checkedTogether<T>(
	connection: PoolConnection,
	changes: (later: ToCheck) => Promise<T>
): Promise<T> {
	const later: ToCheck = new Map();
	const done = await changes(later);
	for (const [courseId, named] of later) {
		const groups = [...named.values()];
		for (let at = 0; at < groups.length; at += groupsAtOnce)
			await checkGroups(connection, courseId, groups.slice(at, at + groupsAtOnce));
		await settle(connection, courseId);
	}
	return done;
}

/**
 * Makes a change to questions, and checks again what it concerns: the questions themselves, and those that they were held
 * against before it or are after it, which is left to be done where there is a `later`. Those of `written` are what the
 * change makes of them.
 */
export async function checkAround(
	connection: PoolConnection,
	courseId: number,
	ids: readonly number[],
	change: () => Promise<void>,
	{ written = nothingKnown.written, later }: { written?: Changed['written']; later?: ToCheck | undefined } = {}
): Promise<void> {
	await lockGroups(connection, courseId);
	const standing = await standingOf(connection, ids);
	const before = await groupsOf(connection, ids);
	const partners = await partnersOf(connection, ids);
	await change();
	const { unmoved, paired } = await checkEach(connection, courseId, ids, { written, standing });
	const after = await groupsOf(connection, ids);
	const haveMoved = ids.some((id) => !unmoved.has(id));
	const groups = groupsToCheck(before, after, haveMoved);
	if (!later) await checkGroups(connection, courseId, groups);
	// what is no more has no pairs either
	const toPair = ids.filter((id) => paired.has(id) || !unmoved.has(id));
	if (toPair.length) await pairAround(connection, courseId, toPair, partners);
	if (!later) {
		await settle(connection, courseId);
		return;
	}
	const left = later.get(courseId) ?? new Map<string, Group>();
	later.set(courseId, left);
	for (const group of groups) left.set(nameOf(group), group);
}
