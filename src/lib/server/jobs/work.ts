import type { Pool } from 'mysql2/promise';
import { writeDispatch } from '../dispatches/write';
import { readLoad } from '../loads/read';
import { run } from '../db/pool';
import type { Control } from './control';
import type { JobKind } from './jobs';

/** What a kind of job does, and how its subject is marked when it is given up. A new kind is one entry here. */
export const work: Record<
	JobKind,
	{
		run: (pool: Pool, subjectId: number, control: Control) => Promise<void>;
		abandon: (pool: Pool, subjectId: number, failure: string) => Promise<void>;
	}
> = {
	read: {
		run: readLoad,
		abandon: async (pool, subjectId, failure) => {
			await run(
				pool,
				"UPDATE loads SET state = 'failed', failure = ? WHERE id = ? AND state IN ('waiting', 'reading')",
				[failure.slice(0, 1000), subjectId]
			);
		}
	},
	dispatch: {
		run: writeDispatch,
		abandon: async (pool, subjectId, failure) => {
			await run(
				pool,
				"UPDATE dispatches SET state = 'failed', failure = ? WHERE id = ? AND state IN ('waiting', 'writing', 'proving')",
				[failure.slice(0, 1000), subjectId]
			);
		}
	}
};
