import { parentPort, workerData } from 'node:worker_threads';
import { ValidationError } from 'yup';
import { makePool } from '../db/pool';
import { Refused } from '../loads/refused';
import type { Answer, Question } from './messages';
import { shareProgress } from './progress';
import { tasks } from './tasks';

/** Does what it is asked, one task after the other, until it is ended. */
const { databaseUrl, progress } = workerData as { databaseUrl: string; progress: SharedArrayBuffer };
shareProgress(progress);
const pool = makePool(databaseUrl, 2);
const known = new Map<string, unknown>(Object.entries(tasks));

async function answer({ name, values }: Question): Promise<Answer> {
	try {
		const task = known.get(name) as (...given: unknown[]) => Promise<unknown>;
		return { value: await task(pool, ...values) };
	} catch (error) {
		const { message, code = '', stack = '' } = error as Error & { code?: string };
		const kind = error instanceof Refused ? 'refused' : error instanceof ValidationError ? 'invalid' : 'other';
		return { failure: { kind, message, code, stack } };
	}
}

parentPort!.on(
	'message',
	(question: Question) => void answer(question).then((found) => parentPort!.postMessage(found))
);
