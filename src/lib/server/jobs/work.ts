import type { Pool } from 'mysql2/promise';
import { checkCourse, endChecking } from '../checks/course';
import { giveUpLosses, workOutLosses } from '../dispatches/losses';
import { writeDispatch } from '../dispatches/write';
import { holdLoadAgain } from '../loads/among';
import { readLoad, stopLoad } from '../loads/read';
import { run } from '../db/pool';
import { carryOutMend, endMend } from '../snags/mending';
import type { Control } from './control';
import type { JobKind } from './jobs';

/** What a kind of job does, and how its subject is marked when it is given up. A new kind is one entry here. */
export const work: Record<
	JobKind,
	{
		run: (pool: Pool, subjectId: number, control: Control) => Promise<void>;
		abandon: (pool: Pool, subjectId: number, failure: string) => Promise<void>;
		/** Leaves the subject as one that was stopped, where its thread was ended before it did so itself. */
		stopped: (pool: Pool, subjectId: number) => Promise<void>;
	}
> = {
	read: {
		run: readLoad,
		stopped: stopLoad,
		abandon: async (pool, subjectId, failure) => {
			await run(
				pool,
				"UPDATE loads SET state = 'failed', failure = ? WHERE id = ? AND state IN ('waiting', 'reading')",
				[failure.slice(0, 1000), subjectId]
			);
		}
	},
	check: {
		run: checkCourse,
		stopped: (pool, courseId) => endChecking(pool, courseId, 'stopped'),
		abandon: (pool, courseId, failure) => endChecking(pool, courseId, 'failed', failure)
	},
	mend: {
		run: carryOutMend,
		stopped: (pool, id) => endMend(pool, id, 'stopped'),
		abandon: (pool, id, failure) => endMend(pool, id, 'failed', { failure })
	},
	// what is found among many is found again once the load is taken in
	among: { run: holdLoadAgain, stopped: () => Promise.resolve(), abandon: () => Promise.resolve() },
	losses: { run: workOutLosses, stopped: () => Promise.resolve(), abandon: giveUpLosses },
	dispatch: {
		run: writeDispatch,
		stopped: async (pool, subjectId) => {
			await run(
				pool,
				"UPDATE dispatches SET state = 'stopped', file_id = NULL WHERE id = ? AND state IN ('waiting', 'writing', 'proving')",
				[subjectId]
			);
		},
		abandon: async (pool, subjectId, failure) => {
			await run(
				pool,
				"UPDATE dispatches SET state = 'failed', failure = ? WHERE id = ? AND state IN ('waiting', 'writing', 'proving')",
				[failure.slice(0, 1000), subjectId]
			);
		}
	}
};
