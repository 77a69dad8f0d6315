import type { Pool, PoolConnection } from 'mysql2/promise';
import { manyChecks, pairChecks } from '$core/checks';
import type { Noted } from '$core/checks/check';
import { edition } from '$core/checks/edition';
import { touchCourse } from '../courses/counts';
import { row, rows, run, transaction, type Database } from '../db/pool';
import type { Control } from '../jobs/control';
import { askToStop, enqueueOnce } from '../jobs/jobs';
import { checkEach } from './around';
import { snagsAmong, writeSnags, type SnagRow } from './findings';
import { lockGroups, noteColumns, notedOf } from './notes';
import { pairAll } from './pairs';
import { checkTallies } from './tallies';
import { setWaivedAside } from './waived';

const batch = 300;
const notesAtOnce = 4000;

/** How far the checking of a course is, where it is going on or was stopped. */
export interface Checking {
	state: 'waiting' | 'running' | 'stopped' | 'failed';
	/** Questions that are checked, of so many. */
	done: number;
	total: number;
	failure: string;
}

/** Whether a course is being checked, or waits for it; null where its snags are of today's checks. */
export async function checkingOf(db: Database, courseId: number): Promise<Checking | null> {
	// by_subject
	const job = await row<{ state: 'waiting' | 'running' }>(
		db,
		"SELECT state FROM jobs WHERE kind = 'check' AND subject_id = ? AND state IN ('waiting', 'running') ORDER BY state DESC LIMIT 1",
		[courseId]
	);
	const kept = await row<Omit<Checking, 'state'> & { state: string }>(
		db,
		'SELECT state, done, total, failure FROM course_checks WHERE course_id = ?',
		[courseId]
	);
	if (job) return { done: 0, total: 0, failure: '', ...(job.state === 'running' ? kept : {}), state: job.state };
	return kept && kept.state !== 'done' ? { ...kept, state: kept.state as Checking['state'] } : null;
}

/** After a change of many questions: has the course checked in the background, once, and counted anew when somebody looks. */
export async function checkSoon(db: Database, courseId: number): Promise<void> {
	await touchCourse(db, courseId);
	await enqueueOnce(db, 'check', courseId);
}

/** Has every course checked that has questions which were checked by other checks than today's. */
export async function checkWhatIsDue(db: Database): Promise<void> {
	// by_checked
	const due = await rows<{ id: number }>(
		db,
		'SELECT id FROM courses c WHERE EXISTS (SELECT 1 FROM questions q WHERE q.course_id = c.id AND q.checked < ?) OR EXISTS (SELECT 1 FROM questions q WHERE q.course_id = c.id AND q.checked > ?)',
		[edition, edition]
	);
	for (const { id } of due) await checkSoon(db, id);
}

/** Stops the checking of a course; what is checked by then stays. */
export async function stopChecking(db: Database, courseId: number): Promise<void> {
	await askToStop(db, 'check', courseId);
}

/** Notes how the checking of a course has ended. */
export async function endChecking(
	db: Database,
	courseId: number,
	state: 'done' | 'stopped' | 'failed',
	failure = ''
): Promise<void> {
	await run(db, 'UPDATE course_checks SET state = ?, failure = ? WHERE course_id = ?', [
		state,
		failure.slice(0, 1000),
		courseId
	]);
}

/**
 * Brings a course up to date with the checks as they are: each question that was checked by others is checked by itself
 * and noted, a batch in a transaction; then every check over many goes once through what was noted. Throws Stopped.
 */
export async function checkCourse(pool: Pool, courseId: number, control: Control): Promise<void> {
	const { n: total } = (await row<{ n: number }>(
		pool,
		'SELECT COUNT(*) AS n FROM questions WHERE course_id = ? AND (checked < ? OR checked > ?)',
		[courseId, edition, edition]
	))!;
	await run(
		pool,
		"INSERT INTO course_checks (course_id, state, done, total) VALUES (?, 'running', 0, ?) ON DUPLICATE KEY UPDATE state = 'running', done = 0, total = VALUES(total), failure = ''",
		[courseId, total]
	);
	for (let done = 0; ;) {
		control.check();
		const due = await transaction(pool, async (connection) => {
			await lockGroups(connection, courseId);
			// by_checked
			const found = await rows<{ id: number }>(
				connection,
				`(SELECT id FROM questions WHERE course_id = ? AND checked < ? LIMIT ${batch}) UNION ALL (SELECT id FROM questions WHERE course_id = ? AND checked > ? LIMIT ${batch}) LIMIT ${batch}`,
				[courseId, edition, courseId, edition]
			);
			if (found.length)
				await checkEach(
					connection,
					courseId,
					found.map(({ id }) => id)
				);
			if (found.length) await touchCourse(connection, courseId);
			return found.length;
		});
		if (!due) break;
		done += due;
		await run(pool, 'UPDATE course_checks SET done = LEAST(total, ?) WHERE course_id = ?', [done, courseId]);
	}
	for (const check of [...manyChecks, ...pairChecks]) {
		control.check();
		await transaction(pool, async (connection) => {
			await lockGroups(connection, courseId);
			if (check.scope === 'pairs') await pairAll(connection, courseId, check, control);
			else if (check.tallied) await checkTallies(connection, courseId, check, null);
			else await checkAmongAll(connection, courseId, check.id, control);
			await touchCourse(connection, courseId);
		});
	}
	await transaction(pool, async (connection) => {
		await setWaivedAside(connection, courseId);
		await touchCourse(connection, courseId);
	});
	await endChecking(pool, courseId, 'done');
}

/** Carries out one check over many among all questions of a course, by its notes in the order of their groups. */
async function checkAmongAll(
	connection: PoolConnection,
	courseId: number,
	rule: string,
	control: Control
): Promise<void> {
	for (const table of ['snags', 'waived_snags'])
		await run(connection, `DELETE FROM ${table} WHERE course_id = ? AND rule = ?`, [courseId, rule]);
	let group: { hash: string; noted: Noted<unknown>[] } = { hash: '', noted: [] };
	let last: { hash: Buffer; id: number } = { hash: Buffer.alloc(8), id: 0 };
	let snags: SnagRow[] = [];
	const close = () => (snags = snags.concat(snagsAmong(courseId, rule, group.noted)));
	for (;;) {
		control.check();
		// by_group
		const found = await rows<Parameters<typeof notedOf>[0] & { hash: Buffer }>(
			connection,
			`SELECT ${noteColumns} WHERE n.course_id = ? AND n.rule = ? AND (n.group_hash > ? OR (n.group_hash = ? AND n.question_id > ?)) ORDER BY n.group_hash, n.question_id LIMIT ${notesAtOnce}`,
			[courseId, rule, last.hash, last.hash, last.id]
		);
		for (const note of found) {
			const hash = note.hash.toString('hex');
			if (hash !== group.hash) {
				close();
				group = { hash, noted: [] };
			}
			group.noted.push(notedOf(note));
		}
		await writeSnags(connection, courseId, snags);
		snags = [];
		if (found.length < notesAtOnce) break;
		last = { hash: found.at(-1)!.hash, id: found.at(-1)!.id };
	}
	close();
	await writeSnags(connection, courseId, snags);
}
