import { Worker } from 'node:worker_threads';
import type { ThreadResult, ThreadTask } from './thread';

/** How long a thread that has nothing to do is kept, in milliseconds. */
const keptFor = 120_000;

/** Hears how a job in a thread ends: with what the thread says, or null and why where it ended without a word. */
type Ended = (said: ThreadResult | null, broke: string) => void;

/** A thread that waits for the next job, and how it is dropped: after some time, or where it breaks off. */
interface Kept {
	worker: Worker;
	drop: () => void;
	timeout: NodeJS.Timeout;
}

/**
 * Threads that do jobs, one at a time each. What a thread has to load and to make ready takes longer than most jobs, so
 * one that is done waits for the next; one in which a job failed is not used again.
 */
export class JobThreads {
	readonly #script: URL;
	readonly #idle: Kept[] = [];

	constructor(script: URL) {
		this.#script = script;
	}

	/** Gives a job to a thread; gives how it is asked to stop, and how it is ended from outside. */
	begin(task: ThreadTask, ended: Ended): { askToStop: () => void; end: () => void } {
		const worker = this.#take();
		let broke = 'The worker thread ended without a word.';
		let isOver = false;
		const over = (said: ThreadResult | null) => {
			isOver = true;
			worker.off('message', over).off('error', onError).off('exit', onExit);
			if (said && said.state !== 'failed') this.#keep(worker);
			else void worker.terminate();
			ended(said, broke);
		};
		const onError = (error: Error) => (broke = error.message);
		const onExit = () => over(null);
		worker.on('message', over).on('error', onError).on('exit', onExit);
		worker.postMessage(task);
		// where the job is over, its thread may be at the next
		return {
			askToStop: () => {
				if (!isOver) worker.postMessage('stop');
			},
			end: () => {
				if (!isOver) void worker.terminate();
			}
		};
	}

	/** Ends the threads that have nothing to do. */
	async close(): Promise<void> {
		await Promise.all(this.#idle.splice(0).map((kept) => this.#free(kept).terminate()));
	}

	#take(): Worker {
		const kept = this.#idle.pop();
		// nothing but what is built runs in it, whatever the process was started with
		if (!kept) return new Worker(this.#script, { execArgv: [] });
		const worker = this.#free(kept);
		worker.ref();
		return worker;
	}

	#keep(worker: Worker): void {
		const drop = () => {
			const at = this.#idle.indexOf(kept);
			if (at >= 0) void this.#free(this.#idle.splice(at, 1)[0]!).terminate();
		};
		const kept: Kept = { worker, drop, timeout: setTimeout(drop, keptFor).unref() };
		worker.on('error', drop).on('exit', drop).unref();
		this.#idle.push(kept);
	}

	/** A thread that waits no more, and is listened to by others from here on. */
	#free({ worker, drop, timeout }: Kept): Worker {
		clearTimeout(timeout);
		return worker.off('error', drop).off('exit', drop);
	}
}
