import type { Pool, PoolConnection } from 'mysql2/promise';
import { row, run, type Database } from '../db/pool';
import type { Control } from '../jobs/control';
import { askToStop, enqueue } from '../jobs/jobs';
import { everySnag, snagFilterShape, type SnagFilter } from './filter';
import { keepOneOfEach, type KeptOfEach } from './keep-one';
import { snagsFound } from './list';
import { mend, type Mended } from './mend';
import { twinRule } from './twins';

/** More snags than that are mended in the background, also when nobody looks on. */
export const mostWaitedFor = 1000;

/** A mend of many snags: how far it is, and once it is done what came of it. */
export interface Mending {
	id: number;
	rule: string;
	state: 'waiting' | 'running' | 'done' | 'stopped' | 'failed';
	done: number;
	total: number;
	result: Mended | KeptOfEach | null;
	failure: string;
	by: string;
}

/** How many snags of a check are meant where a mend of them is asked for. */
export const askedFor = (db: Database, courseId: number, check: string, within: SnagFilter): Promise<number> =>
	snagsFound(db, courseId, { ...within, check });

/** Has the snags of a check that a filter finds mended in the background; gives the key of that. */
export async function mendSoon(
	db: Database,
	courseId: number,
	personId: number,
	rule: string,
	within: SnagFilter,
	total: number
): Promise<number> {
	const { id } = await run(db, 'INSERT INTO mends (course_id, person_id, rule, within, total) VALUES (?, ?, ?, ?, ?)', [
		courseId,
		personId,
		rule,
		JSON.stringify(within),
		total
	]);
	await enqueue(db, 'mend', id);
	return id;
}

/** So long it is shown how a mend has ended, in minutes. */
const shownFor = 10;

/** The mend that goes on in a course, or has ended a little while ago; null where there is none. */
export async function mendingOf(db: Database, courseId: number): Promise<Mending | null> {
	// by_course
	const found = await row<Omit<Mending, 'result'> & { result: string | null }>(
		db,
		`SELECT m.id, m.rule, m.state, m.done, m.total, m.result, m.failure, p.name AS \`by\` FROM mends m JOIN people p ON p.id = m.person_id
		WHERE m.course_id = ? AND (m.ended IS NULL OR m.ended > NOW(3) - INTERVAL ${shownFor} MINUTE) ORDER BY m.id DESC LIMIT 1`,
		[courseId]
	);
	if (!found) return null;
	return { ...found, result: found.result ? (JSON.parse(found.result) as Mended | KeptOfEach) : null };
}

/** Stops the mend that goes on in a course; nothing of it is kept. */
export async function stopMending(db: Database, courseId: number): Promise<void> {
	const going = await mendingOf(db, courseId);
	if (going && (going.state === 'waiting' || going.state === 'running')) await askToStop(db, 'mend', going.id);
}

/** Does a mend of many, all in one transaction; once it is told as done it is not done again. Throws Stopped. */
export async function carryOutMend(pool: Pool, id: number, control: Control): Promise<void> {
	const asked = await row<{ course_id: number; person_id: number; rule: string; within: string }>(
		pool,
		"SELECT course_id, person_id, rule, within FROM mends WHERE id = ? AND state IN ('waiting', 'running')",
		[id]
	);
	if (!asked) return;
	const within = snagFilterShape.cast({ ...everySnag, ...(JSON.parse(asked.within) as object) });
	await run(pool, "UPDATE mends SET state = 'running', done = 0 WHERE id = ?", [id]);
	const hearing = {
		told: teller(pool, id, control),
		ended: (connection: PoolConnection, result: Mended | KeptOfEach) => endMend(connection, id, 'done', { result })
	};
	const { course_id: courseId, person_id: personId, rule } = asked;
	if (rule === twinRule) await keepOneOfEach(pool, courseId, personId, within, hearing);
	else await mend(pool, courseId, personId, rule, null, null, within, hearing);
}

/** Notes how a mend has ended. */
export async function endMend(
	db: Database,
	id: number,
	state: 'done' | 'stopped' | 'failed',
	{ result = null, failure = '' }: { result?: Mended | KeptOfEach | null; failure?: string } = {}
): Promise<void> {
	await run(
		db,
		"UPDATE mends SET state = ?, done = IF(? = 'done', total, done), result = ?, failure = ?, ended = NOW(3) WHERE id = ? AND ended IS NULL",
		[state, state, result && JSON.stringify(result), failure.slice(0, 1000), id]
	);
}

/** Tells now and then how far a mend is, and looks whether somebody has stopped it. */
function teller(pool: Pool, id: number, control: Control): (done: number, total: number) => void {
	let told = 0;
	return (done, total) => {
		control.check();
		if (Date.now() - told < 400) return;
		told = Date.now();
		void run(pool, 'UPDATE mends SET done = ?, total = ? WHERE id = ? AND ended IS NULL', [done, total, id]).catch(
			() => undefined
		);
	};
}
