import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { Worker } from 'node:worker_threads';
import { ValidationError } from 'yup';
import { settings } from '../config';
import { Refused } from '../loads/refused';
import type { Answer, Question } from './messages';
import { ProgressOf, type Progress } from './progress';
import type { Tasks } from './tasks';

/** So many threads work for the pages of a process, and so many tasks may wait for one. */
const atOnce = 3;
const mostWaiting = 60;
/** How long a task may take, in milliseconds. */
const taskTime = 30_000;
/** The same for tasks that work on a whole load or bank. */
const longTasks = new Map<keyof Tasks, number>([
	['takeIn', 10 * 60_000],
	['doBulk', 10 * 60_000],
	['previewBulk', 5 * 60_000],
	['undoDeed', 10 * 60_000],
	['carryCategories', 10 * 60_000],
	['copyCourse', 10 * 60_000],
	['binBank', 5 * 60_000],
	['moveBank', 5 * 60_000],
	['mergeBanks', 5 * 60_000],
	['copyBank', 10 * 60_000],
	['splitBank', 5 * 60_000],
	['dropCategory', 5 * 60_000],
	['mergeCategory', 5 * 60_000],
	['gatherQuestions', 5 * 60_000],
	['splitCategory', 5 * 60_000],
	['carryPreview', 5 * 60_000],
	['putBankBack', 5 * 60_000],
	['putBackFromBin', 5 * 60_000],
	['emptyBin', 10 * 60_000],
	['writeDifficulties', 5 * 60_000],
	['takeAside', 10 * 60_000],
	['leaveOut', 5 * 60_000],
	['setAsideAgain', 5 * 60_000],
	['mend', 10 * 60_000],
	['keepOneOfEach', 10 * 60_000],
	['mendPlaces', 5 * 60_000],
	['mendStaged', 10 * 60_000],
	['compareAgain', 5 * 60_000]
]);

/** What a task takes behind the pool of connections. */
type Values<Name extends keyof Tasks> = Tasks[Name] extends (pool: never, ...values: infer Given) => unknown
	? Given
	: never;

interface Waiting {
	question: Question;
	resolve: (value: unknown) => void;
	reject: (error: Error) => void;
	/** The thread that does it, once one does. */
	thread: Thread | null;
}

/** A thread, with what it tells of its progress. */
interface Thread {
	worker: Worker;
	progress: ProgressOf;
}

/** A task that is being done. */
export interface Running<Value> {
	result: Promise<Value>;
	progress: () => Progress;
	/** Asks it to stop: what it has done is taken back then, and the result is refused in words. */
	stop: () => void;
}

/** Threads that do the tasks of pages. `script` is the built entry of a thread. */
export class Threads {
	readonly #script: URL;
	readonly #databaseUrl: string;
	readonly #time: number;
	readonly #idle: Thread[] = [];
	readonly #waiting: Waiting[] = [];
	#count = 0;

	constructor(script: URL, databaseUrl: string, time = taskTime) {
		this.#script = script;
		this.#databaseUrl = databaseUrl;
		this.#time = time;
	}

	/**
	 * Has a task done. Throws Refused where it takes too long, or too many wait, and whatever the task throws: Refused and
	 * ValidationError as such.
	 */
	ask<Name extends keyof Tasks>(name: Name, ...values: Values<Name>): Promise<Awaited<ReturnType<Tasks[Name]>>> {
		return this.begin(name, ...values).result;
	}

	/** The same, where one wants to see how far it is and may stop it. */
	begin<Name extends keyof Tasks>(name: Name, ...values: Values<Name>): Running<Awaited<ReturnType<Tasks[Name]>>> {
		const task = { question: { name, values }, thread: null } as unknown as Waiting;
		const result = new Promise<Awaited<ReturnType<Tasks[Name]>>>((resolve, reject) => {
			Object.assign(task, { resolve, reject });
			if (this.#waiting.length >= mostWaiting)
				reject(new Refused('Very many ask for something at this moment. Try again in half a minute.'));
			else {
				this.#waiting.push(task);
				this.#next();
			}
		});
		const stop = () => {
			const place = this.#waiting.indexOf(task);
			if (place < 0) task.thread?.progress.stop();
			else {
				this.#waiting.splice(place, 1);
				task.reject(new Refused('It was stopped before it began. Nothing was changed.'));
			}
		};
		return { result, stop, progress: () => task.thread?.progress.now ?? { done: 0, total: 0 } };
	}

	#next(): void {
		if (!this.#waiting.length) return;
		const thread = this.#idle.pop() ?? (this.#count < atOnce ? this.#start() : null);
		if (thread) this.#give(thread, this.#waiting.shift()!);
	}

	#start(): Thread {
		this.#count += 1;
		const progress = new ProgressOf();
		const worker = new Worker(this.#script, {
			// nothing but what is built runs in it, whatever the process was started with
			execArgv: [],
			workerData: { databaseUrl: this.#databaseUrl, progress: progress.memory }
		});
		worker.unref();
		return { worker, progress };
	}

	#give(thread: Thread, task: Waiting): void {
		const { worker } = thread;
		const { question, resolve, reject } = task;
		thread.progress.clear();
		task.thread = thread;
		const settle = (how: () => void) => {
			clearTimeout(late);
			worker.off('message', answered);
			worker.off('error', broke);
			task.thread = null;
			how();
		};
		const gone = (error: Error) =>
			settle(() => {
				this.#count -= 1;
				void worker.terminate();
				reject(error);
				this.#next();
			});
		const answered = (answer: Answer) =>
			settle(() => {
				if ('value' in answer) resolve(answer.value);
				else reject(errorOf(answer.failure));
				this.#idle.push(thread);
				this.#next();
			});
		const broke = (error: Error) => gone(error);
		const time = longTasks.get(question.name as keyof Tasks) ?? this.#time;
		const late = setTimeout(
			() =>
				gone(
					new Refused(
						`This took longer than ${time / 1000} seconds and was ended; nothing was changed. Something in it takes very long or has no end: look at its formulas, patterns and paths.`
					)
				),
			time
		);
		worker.on('message', answered);
		worker.on('error', broke);
		worker.postMessage(question);
	}
}

function errorOf({ kind, message, code, stack }: Extract<Answer, { failure: unknown }>['failure']): Error {
	if (kind === 'refused') return new Refused(message);
	if (kind === 'invalid') return new ValidationError(message);
	return Object.assign(new Error(message), { stack, ...(code ? { code } : {}) });
}

let shared: Threads | undefined;

/** The threads of this process. */
export function threads(): Threads {
	return (shared ??= new Threads(pathToFileURL(join(process.cwd(), 'build/threads/page.js')), settings().databaseUrl));
}
