import { Refused } from '../loads/refused';

/** How far a task is: so many of so many; a total of 0 says that it is not known yet. */
export interface Progress {
	done: number;
	total: number;
}

/** The numbers that a thread shares with the process that it works for: done, total, and 1 where it is to stop. */
const places = { done: 0, total: 1, stop: 2 };

/** Memory for these numbers. */
export const sharedProgress = (): SharedArrayBuffer => new SharedArrayBuffer(3 * Int32Array.BYTES_PER_ELEMENT);

let own: Int32Array | null = null;

/** Has this thread tell its progress in such memory. */
export function shareProgress(memory: SharedArrayBuffer): void {
	own = new Int32Array(memory);
}

/**
 * Tells how far the task of this thread is. Throws Refused where somebody has asked for it to stop, so that its
 * transaction is taken back. Outside of a thread it does nothing.
 */
export function tellProgress(done: number, total: number): void {
	if (!own) return;
	Atomics.store(own, places.total, total);
	Atomics.store(own, places.done, done);
	if (Atomics.load(own, places.stop)) throw new Refused('It was stopped. Nothing was changed.');
}

/** What the process that serves sees of a thread, and how it stops it. */
export class ProgressOf {
	readonly memory = sharedProgress();
	readonly #numbers = new Int32Array(this.memory);

	/** Begins anew, for the next task. */
	clear(): void {
		this.#numbers.fill(0);
	}
	stop(): void {
		Atomics.store(this.#numbers, places.stop, 1);
	}
	get now(): Progress {
		return { done: Atomics.load(this.#numbers, places.done), total: Atomics.load(this.#numbers, places.total) };
	}
}
