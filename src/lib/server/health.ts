import type { Pool } from 'mysql2/promise';
import { row } from './db/pool';
import { troubleOf } from './db/trouble';
import { roomOn, type Room } from './disk';

/** How a process and what it needs stand, for whoever runs it; nothing of it is secret. */
export interface Health {
	/** It answers, and can do its work. */
	ready: boolean;
	database: 'answers' | 'does not answer' | 'its disk is full' | 'can only be read';
	/** How many jobs wait, are worked on, and are held by a process that is gone; null where the database does not answer. */
	jobs: { waiting: number; running: number; leftBehind: number } | null;
	/** The room on the disk that this process runs from, where the data of an own database lie as well. */
	disk: Room;
}

/** How long the database is waited for, in milliseconds. */
const patience = 3000;

async function jobsOf(pool: Pool): Promise<NonNullable<Health['jobs']>> {
	// by_state
	const found = await row<Record<'waiting' | 'running' | 'leftBehind', string | null>>(
		pool,
		"SELECT SUM(state = 'waiting') AS waiting, SUM(state = 'running' AND lease_until >= NOW(3)) AS running, SUM(state = 'running' AND lease_until < NOW(3)) AS leftBehind FROM jobs WHERE state IN ('waiting', 'running')"
	);
	const { waiting, running, leftBehind } = found!;
	return { waiting: Number(waiting ?? 0), running: Number(running ?? 0), leftBehind: Number(leftBehind ?? 0) };
}

const states = { full: 'its disk is full', readOnly: 'can only be read' } as const;

/** Looks how this process stands. `folder` is where it runs from. */
export async function healthOf(pool: Pool, folder: string): Promise<Health> {
	let jobs: Health['jobs'] = null;
	let database: Health['database'] = 'answers';
	try {
		const late = new Promise<never>((_, reject) => setTimeout(() => reject(new Error('late')), patience).unref());
		jobs = await Promise.race([jobsOf(pool), late]);
		const state = await Promise.race([row<{ only: number }>(pool, 'SELECT @@global.read_only AS `only`'), late]);
		if (state?.only) database = states.readOnly;
	} catch (cause) {
		database = troubleOf(cause)?.status === 507 ? states.full : 'does not answer';
	}
	const disk = roomOn(folder);
	return { ready: database === 'answers' && disk !== 'full', database, jobs, disk };
}
