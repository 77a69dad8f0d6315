import { ValidationError } from 'yup';
import { describe, expect, it } from 'vitest';
import { Refused } from '../loads/refused';
import { Threads } from './ask';

/** Threads that answer with what a line of script makes of the values that they are given. */
const threads = (answer: string, time = 10_000) =>
	new Threads(
		new URL(
			`data:text/javascript,${encodeURIComponent(`import { parentPort, workerData } from 'node:worker_threads'; const shared = new Int32Array(workerData.progress); parentPort.on('message', ({ name, values }) => parentPort.postMessage(${answer}));`)}`
		),
		'mysql://nobody',
		time
	);
const ask = (of: Threads, value: number) => of.ask('mendPreview', value, 'no-key', 1);
const failure = (kind: string) => `{ failure: { kind: '${kind}', message: 'the words', code: 'ER_X', stack: '' } }`;

describe('what a page has done in a thread', () => {
	it('comes back, for as many as ask at once', async () => {
		const doubling = threads('{ value: values[0] * 2 }');
		const found = await Promise.all(Array.from({ length: 40 }, (_, at) => ask(doubling, at)));
		expect(found).toEqual(Array.from({ length: 40 }, (_, at) => at * 2));
	});
	it('is ended where it takes without end, and the others go on', async () => {
		const stuck = threads('(() => { while (values[0] === 0); return { value: values[0] }; })()', 700);
		const found = await Promise.allSettled([0, 1, 0, 2, 3].map((value) => ask(stuck, value)));
		const ended = found.filter((one) => one.status === 'rejected');
		expect(ended).toHaveLength(2);
		expect(
			ended.every((one) => one.reason instanceof Refused && /longer than 0.7 seconds/.test(one.reason.message))
		).toBe(true);
		expect(found.flatMap((one) => (one.status === 'fulfilled' ? [one.value] : []))).toEqual([1, 2, 3]);
		expect(await ask(stuck, 7)).toBe(7);
	});
	it('fails as it fails there: in words for people, as a wrong value, or with its code', async () => {
		await expect(ask(threads(failure('refused')), 1)).rejects.toThrow(Refused);
		await expect(ask(threads(failure('invalid')), 1)).rejects.toThrow(ValidationError);
		await expect(ask(threads(failure('other')), 1)).rejects.toMatchObject({ message: 'the words', code: 'ER_X' });
	});
	it('is refused where very many wait already', async () => {
		const slow = threads('(() => { const end = Date.now() + 60; while (Date.now() < end); return { value: 1 }; })()');
		const found = await Promise.allSettled(Array.from({ length: 100 }, () => ask(slow, 1)));
		const refused = found.filter((one) => one.status === 'rejected');
		expect(refused).toHaveLength(100 - 63);
		expect(refused[0]!.reason).toBeInstanceOf(Refused);
	});
	it('tells how far it is, and stops where that is asked for', async () => {
		const counting = threads(
			"(() => { Atomics.store(shared, 1, 50); while (!Atomics.load(shared, 2)) Atomics.store(shared, 0, 7); return { failure: { kind: 'refused', message: 'stopped', code: '', stack: '' } }; })()"
		);
		const running = counting.begin('mendPreview', 1, 'no-key', 1);
		while (!running.progress().done) await new Promise((resolve) => setTimeout(resolve, 10));
		expect(running.progress()).toEqual({ done: 7, total: 50 });
		running.stop();
		await expect(running.result).rejects.toThrow('stopped');
		// the next begins anew
		const next = counting.begin('mendPreview', 1, 'no-key', 1);
		while (!next.progress().done) await new Promise((resolve) => setTimeout(resolve, 10));
		next.stop();
		await expect(next.result).rejects.toThrow('stopped');
	});
	it('is stopped while it still waits', async () => {
		const slow = threads('(() => { const end = Date.now() + 200; while (Date.now() < end); return { value: 1 }; })()');
		const all = Array.from({ length: 6 }, () => slow.begin('mendPreview', 1, 'no-key', 1));
		all[5]!.stop();
		await expect(all[5]!.result).rejects.toThrow('before it began');
		expect(await Promise.all(all.slice(0, 5).map(({ result }) => result))).toEqual([1, 1, 1, 1, 1]);
	});
});
