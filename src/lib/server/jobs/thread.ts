import { parentPort } from 'node:worker_threads';
import { makePool } from '../db/pool';
import { log } from '../log';
import { Stopped } from './control';
import type { JobKind } from './jobs';
import { work } from './work';

/** What a worker thread is given to do. */
export interface ThreadTask {
	kind: JobKind;
	subjectId: number;
	databaseUrl: string;
}

/** What a worker thread says when it is done. */
export interface ThreadResult {
	state: 'done' | 'stopped' | 'failed';
	failure: string;
}

let stop = false;

/** Does one job, with connections of its own that end with it. */
async function carryOut({ kind, subjectId, databaseUrl }: ThreadTask): Promise<ThreadResult> {
	const pool = makePool(databaseUrl, 4);
	try {
		await work[kind].run(pool, subjectId, {
			check: () => {
				if (stop) throw new Stopped();
			}
		});
		return { state: 'done', failure: '' };
	} catch (error) {
		if (error instanceof Stopped) return { state: 'stopped', failure: '' };
		log.error({ job: kind, subject: subjectId, error }, 'a job failed');
		return { state: 'failed', failure: (error as Error).message };
	} finally {
		await pool.end().catch(() => undefined);
	}
}

/** One job after the other, until the thread is ended. */
parentPort!.on('message', (message: ThreadTask | 'stop') => {
	stop = message === 'stop';
	if (message !== 'stop') void carryOut(message).then((result) => parentPort!.postMessage(result));
});
