import { afterAll, beforeEach, describe, expect, it } from 'vitest';
import { row, run } from '../db/pool';
import { testPool } from '../test-support/world';
import { askToStop, enqueue, finish, giveBack, renew, takeJob } from './jobs';

const pool = testPool();
afterAll(() => pool.end());
beforeEach(() => run(pool, 'DELETE FROM jobs'));

describe('jobs', () => {
	it('are taken in the order in which they came, each by one', async () => {
		for (const subject of [11, 12, 13]) await enqueue(pool, 'read', subject);
		expect((await takeJob(pool, 'a', 10))!.subject_id).toBe(11);
		expect((await takeJob(pool, 'b', 10))!.subject_id).toBe(12);
	});
	it('go to one each, however many ask at once', async () => {
		for (let subject = 1; subject <= 12; subject += 1) await enqueue(pool, 'read', subject);
		const taken = await Promise.all(Array.from({ length: 20 }, (_, at) => takeJob(pool, `p${at}`, 10)));
		const more = await Promise.all(Array.from({ length: 12 }, (_, at) => takeJob(pool, `q${at}`, 10)));
		const subjects = [...taken, ...more].flatMap((job) => job?.subject_id ?? []);
		expect(new Set(subjects).size).toBe(subjects.length);
		expect(subjects.sort((a, b) => a - b)).toEqual(Array.from({ length: 12 }, (_, at) => at + 1));
	});
	it('are taken by another once the lease has run out, and count their tries', async () => {
		await enqueue(pool, 'read', 5);
		expect(await takeJob(pool, 'gone', 10)).toMatchObject({ tries: 1 });
		expect(await takeJob(pool, 'next', 10)).toBeNull();
		await run(pool, 'UPDATE jobs SET lease_until = DATE_SUB(NOW(3), INTERVAL 1 SECOND)');
		const job = await takeJob(pool, 'next', 10);
		expect(job).toMatchObject({ subject_id: 5, tries: 2 });
		expect(await renew(pool, job!.id, 'gone', 10)).toBe('lost');
		expect(await renew(pool, job!.id, 'next', 10)).toBe('mine');
	});
	it('are told to stop', async () => {
		await enqueue(pool, 'dispatch', 7);
		const job = await takeJob(pool, 'a', 10);
		expect(await askToStop(pool, 'dispatch', 7)).toBe(true);
		expect(await renew(pool, job!.id, 'a', 10)).toBe('stop');
		await finish(pool, job!.id, 'a', 'stopped');
		expect(await askToStop(pool, 'dispatch', 7)).toBe(false);
	});
	it('are given back to be tried again', async () => {
		await enqueue(pool, 'read', 9);
		const job = await takeJob(pool, 'a', 10);
		await giveBack(pool, job!.id, 'a', false);
		expect(await takeJob(pool, 'b', 10)).toMatchObject({ subject_id: 9, tries: 2 });
	});
	it('are ended only by the one who has them', async () => {
		await enqueue(pool, 'read', 3);
		const job = await takeJob(pool, 'a', 10);
		await finish(pool, job!.id, 'somebody else', 'done');
		expect(await row(pool, 'SELECT state FROM jobs WHERE id = ?', [job!.id])).toEqual({ state: 'running' });
		await finish(pool, job!.id, 'a', 'failed', 'why');
		expect(await row(pool, 'SELECT state, failure FROM jobs WHERE id = ?', [job!.id])).toEqual({
			state: 'failed',
			failure: 'why'
		});
	});
});
