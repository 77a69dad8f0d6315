import { afterAll, beforeEach, describe, expect, it } from 'vitest';
import { settings } from '../config';
import { row, run } from '../db/pool';
import { makeCourse, testPool } from '../test-support/world';
import { askToStop, enqueue } from './jobs';
import { supervise, type Supervisor } from './supervisor';
import { until } from '../../../../test-support/until';

const pool = testPool();
let supervisor: Supervisor | null = null;
let subject = 0;
afterAll(() => pool.end());
beforeEach(async () => {
	await supervisor?.close();
	await run(pool, 'DELETE FROM jobs');
	const { courseId, personId } = await makeCourse(pool);
	subject = (
		await run(pool, "INSERT INTO loads (course_id, person_id, file_name, state) VALUES (?, ?, 'a.txt', 'reading')", [
			courseId,
			personId
		])
	).id;
	await enqueue(pool, 'read', subject);
});

/** A thread that does what a line of script says, whatever the job is. */
const thread = (script: string) => new URL(`data:text/javascript,${encodeURIComponent(script)}`);
const forEver = thread('for (;;) Math.random();');
const begin = (script: URL, jobTime = 60_000) => {
	supervisor = supervise(pool, { ...settings(), jobThreads: 1, jobLeaseSeconds: 3, jobTime }, script);
};
const job = async () =>
	(await row<{ state: string; tries: number; failure: string }>(
		pool,
		"SELECT state, tries, failure FROM jobs WHERE kind = 'read' AND subject_id = ?",
		[subject]
	))!;
const load = async () =>
	(await row<{ state: string; failure: string }>(pool, 'SELECT state, failure FROM loads WHERE id = ?', [subject]))!;

describe('a job', () => {
	it('that never ends is ended from outside after its time, and says so', async () => {
		begin(forEver, 1500);
		await until(async () => (await job()).state === 'failed');
		expect((await load()).state).toBe('failed');
		expect((await load()).failure).toContain('was not done within');
		await supervisor!.close();
	});
	it('that does not hear that it is to stop is stopped from outside', async () => {
		begin(forEver);
		await until(async () => (await job()).state === 'running');
		await askToStop(pool, 'read', subject);
		await until(async () => (await job()).state === 'stopped');
		expect((await load()).state).toBe('stopped');
		await supervisor!.close();
	});
	it('is not given up by any number of orderly restarts, which are no tries', async () => {
		for (let restart = 0; restart < 5; restart += 1) {
			begin(forEver);
			await until(async () => (await job()).state === 'running');
			await supervisor!.close();
			expect(await job()).toMatchObject({ state: 'waiting', tries: 0 });
		}
		expect((await load()).state).toBe('reading');
	});
	it('that breaks off each time is given up after the third, with the reason', async () => {
		begin(thread('throw new Error("the mast is gone")'));
		await until(async () => (await job()).state === 'failed');
		expect(await job()).toMatchObject({ tries: 3 });
		expect((await load()).failure).toContain('the mast is gone');
		await supervisor!.close();
	});
});
