import { randomUUID } from 'node:crypto';
import { hostname } from 'node:os';
import { Worker } from 'node:worker_threads';
import type { Pool } from 'mysql2/promise';
import type { Config } from '../config';
import { checkWhatIsDue } from '../checks/course';
import { sweep } from '../files/uses';
import { log } from '../log';
import { finish, giveBack, mostTries, renew, takeJob, type Job } from './jobs';
import type { ThreadResult, ThreadTask } from './thread';
import { work } from './work';

const pause = 500;
/** How long a job may go on after it was asked to stop, before it is ended from outside, in milliseconds. */
const stopPatience = 10_000;

/** The part of a process that takes jobs and has them done in worker threads. */
export interface Supervisor {
	/** Takes no more jobs, and gives back those at hand, so that another process or the next start goes on with them. */
	close: () => Promise<void>;
}

/** How a thread ended: as it said itself, or because it was ended from outside. */
type End = ThreadResult | { state: 'given back' | 'too long'; failure: '' };

/**
 * Begins to work on jobs, `config.jobThreads` at once. `script` is the built entry of a worker thread. A job whose
 * thread breaks off is tried again, up to three times in all; then its subject is marked as failed with the reason. One
 * that takes longer than `config.jobTime`, or does not stop when it is asked to, is ended from outside.
 */
export function supervise(pool: Pool, config: Config, script: URL): Supervisor {
	const owner = `${hostname().slice(0, 30)}/${process.pid}/${randomUUID().slice(0, 8)}`;
	const running = new Map<number, { end: (why: End) => void }>();
	let closing = false;

	/** Has a job done in a thread of its own; gives how that ended. */
	function inThread(job: Job): Promise<End> {
		const task: ThreadTask = { kind: job.kind, subjectId: job.subject_id, databaseUrl: config.databaseUrl };
		const worker = new Worker(script, { workerData: task });
		let said: End | null = null;
		let broke = 'The worker thread ended without a word.';
		const end = (why: End) => {
			said ??= why;
			void worker.terminate();
		};
		running.set(job.id, { end });
		let stopping: NodeJS.Timeout | null = null;
		const tooLong = setTimeout(() => end({ state: 'too long', failure: '' }), config.jobTime);
		const heartbeat = setInterval(
			() => {
				renew(pool, job.id, owner, config.jobLeaseSeconds).then(
					(found) => {
						if (found === 'lost') end({ state: 'given back', failure: '' });
						if (found !== 'stop' || stopping) return;
						worker.postMessage('stop');
						stopping = setTimeout(() => end({ state: 'stopped', failure: '' }), stopPatience);
					},
					() => undefined
				);
			},
			Math.min(1000, (config.jobLeaseSeconds * 1000) / 4)
		);
		return new Promise((resolve) => {
			worker.on('message', (message: ThreadResult) => (said ??= message));
			worker.on('error', (error) => (broke = error.message));
			worker.on('exit', () => {
				clearInterval(heartbeat);
				clearTimeout(tooLong);
				if (stopping) clearTimeout(stopping);
				running.delete(job.id);
				resolve(said ?? { state: 'failed', failure: broke });
			});
		});
	}

	async function giveUp(job: Job, words: string): Promise<void> {
		log.error({ job: job.kind, subject: job.subject_id, tries: job.tries, reason: words }, 'a job was given up');
		await work[job.kind].abandon(pool, job.subject_id, words);
		await finish(pool, job.id, owner, 'failed', words);
	}

	async function carryOut(job: Job): Promise<void> {
		if (job.tries > mostTries) {
			await giveUp(
				job,
				`It broke off ${mostTries} times and was given up. The server log says why; try again, or load the file in parts.`
			);
			return;
		}
		const result = await inThread(job);
		if (result.state === 'given back') return;
		if (result.state === 'too long')
			await giveUp(
				job,
				`It was not done within ${Math.round(config.jobTime / 60_000)} minutes and was ended. Something in it takes without end: load the file in parts to find it.`
			);
		else if (result.state === 'stopped') {
			await work[job.kind].stopped(pool, job.subject_id);
			await finish(pool, job.id, owner, 'stopped');
		} else if (result.state === 'done') await finish(pool, job.id, owner, 'done');
		else if (job.tries >= mostTries) await giveUp(job, `It broke off ${mostTries} times: ${result.failure}`);
		else await giveBack(pool, job.id, owner, false);
	}

	const loop = (async () => {
		await sweep(pool).catch((error: unknown) => log.error({ error }, 'unfinished uploads were not cleared away'));
		await checkWhatIsDue(pool).catch((error: unknown) =>
			log.error({ error }, 'what is to be checked was not found out')
		);
		const atHand = new Set<Promise<void>>();
		while (!closing) {
			let job: Job | null = null;
			try {
				if (atHand.size < config.jobThreads) job = await takeJob(pool, owner, config.jobLeaseSeconds);
			} catch (error) {
				log.warn({ reason: (error as Error).message }, 'jobs cannot be taken: the database does not answer');
			}
			if (job) {
				const taken = job;
				const done: Promise<void> = carryOut(taken)
					.catch((error: unknown) =>
						log.error({ job: taken.kind, subject: taken.subject_id, error }, 'a job was not ended')
					)
					.finally(() => atHand.delete(done));
				atHand.add(done);
			} else await new Promise((resolve) => setTimeout(resolve, pause));
		}
		const open = [...running.keys()];
		for (const { end } of running.values()) end({ state: 'given back', failure: '' });
		await Promise.all(atHand);
		for (const id of open) await giveBack(pool, id, owner, true);
	})();

	return {
		close: async () => {
			closing = true;
			await loop;
		}
	};
}
