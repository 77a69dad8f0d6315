import { randomUUID } from 'node:crypto';
import { hostname } from 'node:os';
import type { Pool } from 'mysql2/promise';
import type { Config } from '../config';
import { checkWhatIsDue } from '../checks/course';
import { sweep } from '../files/uses';
import { log } from '../log';
import { finish, giveBack, mostTries, renew, takeJob, type Job } from './jobs';
import type { ThreadResult, ThreadTask } from './thread';
import { JobThreads } from './threads';
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

/** Works on jobs in threads: takes them, has them done, and says how each ended. */
class Supervision {
	readonly #owner = `${hostname().slice(0, 30)}/${process.pid}/${randomUUID().slice(0, 8)}`;
	readonly #running = new Map<number, { end: (why: End) => void }>();
	readonly #pool: Pool;
	readonly #config: Config;
	readonly #threads: JobThreads;
	#closing = false;
	readonly #loop: Promise<void>;

	constructor(pool: Pool, config: Config, script: URL) {
		this.#pool = pool;
		this.#config = config;
		this.#threads = new JobThreads(script);
		this.#loop = this.#work();
	}

	async close(): Promise<void> {
		this.#closing = true;
		await this.#loop;
	}

	/** Has a job done in a thread; gives how that ended. */
	#inThread(job: Job): Promise<End> {
		const { databaseUrl, jobTime, jobLeaseSeconds } = this.#config;
		const task: ThreadTask = { kind: job.kind, subjectId: job.subject_id, databaseUrl };
		return new Promise((resolve) => {
			let said: End | null = null;
			let stopping: NodeJS.Timeout | null = null;
			const thread = this.#threads.begin(task, (message, broke) => {
				clearInterval(heartbeat);
				clearTimeout(tooLong);
				if (stopping) clearTimeout(stopping);
				this.#running.delete(job.id);
				resolve(said ?? message ?? { state: 'failed', failure: broke });
			});
			const end = (why: End) => {
				said ??= why;
				thread.end();
			};
			this.#running.set(job.id, { end });
			const tooLong = setTimeout(() => end({ state: 'too long', failure: '' }), jobTime);
			const beat = (found: Awaited<ReturnType<typeof renew>>) => {
				if (found === 'lost') end({ state: 'given back', failure: '' });
				if (found !== 'stop' || stopping) return;
				thread.askToStop();
				stopping = setTimeout(() => end({ state: 'stopped', failure: '' }), stopPatience);
			};
			const heartbeat = setInterval(
				() => void renew(this.#pool, job.id, this.#owner, jobLeaseSeconds).then(beat, () => undefined),
				Math.min(1000, (jobLeaseSeconds * 1000) / 4)
			);
		});
	}

	async #giveUp(job: Job, words: string): Promise<void> {
		log.error({ job: job.kind, subject: job.subject_id, tries: job.tries, reason: words }, 'a job was given up');
		await work[job.kind].abandon(this.#pool, job.subject_id, words);
		await finish(this.#pool, job.id, this.#owner, 'failed', words);
	}

	async #carryOut(job: Job): Promise<void> {
		if (job.tries > mostTries) {
			await this.#giveUp(
				job,
				`It broke off ${mostTries} times and was given up. The server log says why; try again, or load the file in parts.`
			);
			return;
		}
		const result = await this.#inThread(job);
		if (result.state === 'given back') return;
		if (result.state === 'too long')
			await this.#giveUp(
				job,
				`It was not done within ${Math.round(this.#config.jobTime / 60_000)} minutes and was ended. Something in it takes without end: load the file in parts to find it.`
			);
		else if (result.state === 'stopped') {
			await work[job.kind].stopped(this.#pool, job.subject_id);
			await finish(this.#pool, job.id, this.#owner, 'stopped');
		} else if (result.state === 'done') await finish(this.#pool, job.id, this.#owner, 'done');
		else if (job.tries >= mostTries) await this.#giveUp(job, `It broke off ${mostTries} times: ${result.failure}`);
		else await giveBack(this.#pool, job.id, this.#owner, false);
	}

	async #nextJob(): Promise<Job | null> {
		try {
			return await takeJob(this.#pool, this.#owner, this.#config.jobLeaseSeconds);
		} catch (error) {
			log.warn({ reason: (error as Error).message }, 'jobs cannot be taken: the database does not answer');
			return null;
		}
	}

	async #work(): Promise<void> {
		await sweep(this.#pool).catch((error: unknown) => log.error({ error }, 'unfinished uploads were not cleared away'));
		await checkWhatIsDue(this.#pool).catch((error: unknown) =>
			log.error({ error }, 'what is to be checked was not found out')
		);
		const atHand = new Set<Promise<void>>();
		while (!this.#closing) {
			const job = atHand.size < this.#config.jobThreads ? await this.#nextJob() : null;
			if (job) {
				const done: Promise<void> = this.#carryOut(job)
					.catch((error: unknown) =>
						log.error({ job: job.kind, subject: job.subject_id, error }, 'a job was not ended')
					)
					.finally(() => atHand.delete(done));
				atHand.add(done);
			} else await new Promise((resolve) => setTimeout(resolve, pause));
		}
		const open = [...this.#running.keys()];
		for (const { end } of this.#running.values()) end({ state: 'given back', failure: '' });
		await Promise.all(atHand);
		await this.#threads.close();
		for (const id of open) await giveBack(this.#pool, id, this.#owner, true);
	}
}

/**
 * Begins to work on jobs, `config.jobThreads` at once. `script` is the built entry of a worker thread. A job whose
 * thread breaks off is tried again, up to three times in all; then its subject is marked as failed with the reason. One
 * that takes longer than `config.jobTime`, or does not stop when it is asked to, is ended from outside.
 */
export function supervise(pool: Pool, config: Config, script: URL): Supervisor {
	return new Supervision(pool, config, script);
}
