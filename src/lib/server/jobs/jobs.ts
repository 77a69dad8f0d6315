import type { Pool } from 'mysql2/promise';
import { row, run, transaction, type Database } from '../db/pool';

/** The kinds of work done in the background. */
export type JobKind = 'read' | 'dispatch' | 'check' | 'losses' | 'mend' | 'among';

/** A job that was taken. */
export interface Job {
	id: number;
	kind: JobKind;
	subject_id: number;
	tries: number;
}

/** How often a job is begun before it is given up. */
export const mostTries = 3;

/** Puts a job in the queue. */
export async function enqueue(db: Database, kind: JobKind, subjectId: number): Promise<void> {
	await run(db, 'INSERT INTO jobs (kind, subject_id) VALUES (?, ?)', [kind, subjectId]);
}

/** Puts a job in the queue, where none of its kind and subject waits there already. */
export async function enqueueOnce(db: Database, kind: JobKind, subjectId: number): Promise<void> {
	// by_subject
	await run(
		db,
		"INSERT INTO jobs (kind, subject_id) SELECT ?, ? FROM DUAL WHERE NOT EXISTS (SELECT 1 FROM jobs WHERE kind = ? AND subject_id = ? AND state = 'waiting')",
		[kind, subjectId, kind, subjectId]
	);
}

/**
 * Takes the oldest job that waits, or whose lease has run out because its process is gone, for `lease` seconds.
 * Gives null where there is none. Any number of processes may ask at once; each job goes to one.
 */
export async function takeJob(pool: Pool, owner: string, lease: number): Promise<Job | null> {
	return transaction(pool, async (connection) => {
		// by_state
		const job = await row<Job>(
			connection,
			"SELECT id, kind, subject_id, tries FROM jobs WHERE state = 'waiting' OR (state = 'running' AND lease_until < NOW(3)) ORDER BY id LIMIT 1 FOR UPDATE SKIP LOCKED"
		);
		if (!job) return null;
		await run(
			connection,
			"UPDATE jobs SET state = 'running', owner = ?, tries = tries + 1, lease_until = DATE_ADD(NOW(3), INTERVAL ? SECOND) WHERE id = ?",
			[owner, lease, job.id]
		);
		return { ...job, tries: job.tries + 1 };
	});
}

/** What a renewal of a lease finds: all is well, somebody asked for a stop, or the job is another's by now. */
export type Renewal = 'mine' | 'stop' | 'lost';

/** Renews the lease of a job. */
export async function renew(db: Database, jobId: number, owner: string, lease: number): Promise<Renewal> {
	const { count } = await run(
		db,
		"UPDATE jobs SET lease_until = DATE_ADD(NOW(3), INTERVAL ? SECOND) WHERE id = ? AND owner = ? AND state = 'running'",
		[lease, jobId, owner]
	);
	if (!count) return 'lost';
	const job = await row<{ stop_asked: number }>(db, 'SELECT stop_asked FROM jobs WHERE id = ?', [jobId]);
	return job?.stop_asked ? 'stop' : 'mine';
}

/** Ends a job, if it is still the owner's. */
export async function finish(
	pool: Pool,
	jobId: number,
	owner: string,
	state: 'done' | 'failed' | 'stopped',
	failure = ''
): Promise<void> {
	// a deadlock is tried again: what is done must not be done once more
	await transaction(pool, (connection) =>
		run(connection, 'UPDATE jobs SET state = ?, failure = ?, lease_until = NULL WHERE id = ? AND owner = ?', [
			state,
			failure.slice(0, 1000),
			jobId,
			owner
		])
	);
}

/** Gives a job back, so that it is done again. Where that is for no fault of its own, as at a restart, it was no try. */
export async function giveBack(db: Database, jobId: number, owner: string, blameless: boolean): Promise<void> {
	await run(
		db,
		"UPDATE jobs SET state = 'waiting', owner = '', lease_until = NULL, tries = GREATEST(0, tries - ?) WHERE id = ? AND owner = ? AND state = 'running'",
		[blameless ? 1 : 0, jobId, owner]
	);
}

/** Asks the process that works on something to stop. Gives false where nothing is being done about it. */
export async function askToStop(db: Database, kind: JobKind, subjectId: number): Promise<boolean> {
	// by_subject
	const { count } = await run(
		db,
		"UPDATE jobs SET stop_asked = 1 WHERE kind = ? AND subject_id = ? AND state IN ('waiting', 'running')",
		[kind, subjectId]
	);
	return count > 0;
}
