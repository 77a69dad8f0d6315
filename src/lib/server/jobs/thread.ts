import { parentPort, workerData } from 'node:worker_threads';
import { makePool } from '../db/pool';
import { log } from '../log';
import { Stopped } from './control';
import type { JobKind } from './jobs';
import { work } from './work';

/** What a worker thread is started with. */
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

const task = workerData as ThreadTask;
let stop = false;
parentPort!.on('message', () => (stop = true));
const pool = makePool(task.databaseUrl, 4);
let result: ThreadResult = { state: 'done', failure: '' };
try {
	await work[task.kind].run(pool, task.subjectId, {
		check: () => {
			if (stop) throw new Stopped();
		}
	});
} catch (error) {
	result =
		error instanceof Stopped
			? { state: 'stopped', failure: '' }
			: { state: 'failed', failure: (error as Error).message };
	if (result.state === 'failed') log.error({ job: task.kind, subject: task.subjectId, error }, 'a job failed');
}
await pool.end().catch(() => undefined);
parentPort!.postMessage(result);
parentPort!.close();
