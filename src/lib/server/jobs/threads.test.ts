import { describe, expect, it } from 'vitest';
import type { ThreadResult } from './thread';
import { JobThreads } from './threads';

/** A thread whose jobs say which of its own they are, and end as a line of script says. */
const counting = (state: string) =>
	new URL(
		`data:text/javascript,${encodeURIComponent(
			`import { parentPort } from 'node:worker_threads'; let count = 0; parentPort.on('message', (message) => { if (message !== 'stop') setTimeout(() => parentPort.postMessage({ state: ${state}, failure: String(++count) }), 300); });`
		)}`
	);
const task = { kind: 'read' as const, subjectId: 1, databaseUrl: '' };
const carryOut = (threads: JobThreads) =>
	new Promise<{ said: ThreadResult | null; broke: string; thread: ReturnType<JobThreads['begin']> }>((resolve) => {
		const thread = threads.begin(task, (said, broke) => setTimeout(() => resolve({ said, broke, thread })));
	});

describe('a thread for jobs', () => {
	it('does one job after the other, and is not disturbed by what comes late for one that is over', async () => {
		const threads = new JobThreads(counting('"done"'));
		const first = await carryOut(threads);
		expect(first.said).toEqual({ state: 'done', failure: '1' });
		// what is kept has not to be asked at once
		await new Promise((resolve) => setTimeout(resolve, 300));
		const second = carryOut(threads);
		first.thread.askToStop();
		first.thread.end();
		expect((await second).said).toEqual({ state: 'done', failure: '2' });
		await threads.close();
		expect((await carryOut(threads)).said).toEqual({ state: 'done', failure: '1' });
		await threads.close();
	});
	it('is another where a job failed in the one before', async () => {
		const threads = new JobThreads(counting('"failed"'));
		expect((await carryOut(threads)).said).toEqual({ state: 'failed', failure: '1' });
		expect((await carryOut(threads)).said).toEqual({ state: 'failed', failure: '1' });
		await threads.close();
	});
	it('says why it ended without a word', async () => {
		const threads = new JobThreads(new URL('data:text/javascript,throw new Error("the mast is gone")'));
		expect(await carryOut(threads)).toMatchObject({ said: null, broke: 'the mast is gone' });
	});
});
