import { randomUUID } from 'node:crypto';
import { hostname } from 'node:os';
import { Worker } from 'node:worker_threads';
import type { Pool } from 'mysql2/promise';
import type { Config } from '../config';
import { sweepUnfinished } from '../files/files';
import { finish, giveBack, mostTries, renew, takeJob, type Job } from './jobs';
import type { ThreadResult, ThreadTask } from './thread';
import { work } from './work';

const pause = 500;

/** The part of a process that takes jobs and has them done in worker threads. */
export interface Supervisor {
	/** Takes no more jobs, and gives back those at hand, so that another process or the next start goes on with them. */
	close: () => Promise<void>;
}

/**
 * Begins to work on jobs, `config.jobThreads` at once. `script` is the built entry of a worker thread. A job whose
 * thread breaks off is tried again, up to three times in all; then its subject is marked as failed with the reason.
 */
export function supervise(pool: Pool, config: Config, script: URL): Supervisor {
	const owner = `${hostname().slice(0, 30)}/${process.pid}/${randomUUID().slice(0, 8)}`;
	const running = new Map<number, Worker>();
	let closing = false;

	async function carryOut(job: Job): Promise<void> {
		if (job.tries > mostTries) {
			const words = `It broke off ${mostTries} times and was given up. The server log says why; try again, or load the file in parts.`;
			await work[job.kind].abandon(pool, job.subject_id, words);
			await finish(pool, job.id, owner, 'failed', words);
			return;
		}
		const task: ThreadTask = { kind: job.kind, subjectId: job.subject_id, databaseUrl: config.databaseUrl };
		const worker = new Worker(script, { workerData: task });
		running.set(job.id, worker);
		const heartbeat = setInterval(
			() => {
				renew(pool, job.id, owner, config.jobLeaseSeconds).then(
					(found) => {
						if (found === 'stop') worker.postMessage('stop');
						else if (found === 'lost') void worker.terminate();
					},
					() => undefined
				);
			},
			Math.min(1000, (config.jobLeaseSeconds * 1000) / 4)
		);
		const result = await new Promise<ThreadResult>((resolve) => {
			let said: ThreadResult | null = null;
			let broke = 'The worker thread ended without a word.';
			worker.on('message', (message: ThreadResult) => (said = message));
			worker.on('error', (error) => (broke = error.message));
			worker.on('exit', () => resolve(said ?? { state: 'failed', failure: broke }));
		});
		clearInterval(heartbeat);
		running.delete(job.id);
		if (result.state !== 'failed') await finish(pool, job.id, owner, result.state);
		else if (job.tries >= mostTries && !closing) {
			await work[job.kind].abandon(pool, job.subject_id, `It broke off ${mostTries} times: ${result.failure}`);
			await finish(pool, job.id, owner, 'failed', result.failure);
		} else await giveBack(pool, job.id, owner);
	}

	const loop = (async () => {
		await sweepUnfinished(pool).catch((error) => console.error(error));
		const atHand = new Set<Promise<void>>();
		while (!closing) {
			let job: Job | null = null;
			try {
				if (atHand.size < config.jobThreads) job = await takeJob(pool, owner, config.jobLeaseSeconds);
			} catch (error) {
				console.error('Jobs cannot be taken: the database does not answer.', (error as Error).message);
			}
			if (job) {
				const done: Promise<void> = carryOut(job)
					.catch((error) => console.error(error))
					.finally(() => atHand.delete(done));
				atHand.add(done);
			} else await new Promise((resolve) => setTimeout(resolve, pause));
		}
		await Promise.all([...running.values()].map((worker) => worker.terminate()));
		await Promise.all(atHand);
	})();

	return {
		close: async () => {
			closing = true;
			await loop;
		}
	};
}
