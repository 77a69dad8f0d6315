import { execFileSync, fork, type ChildProcess } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, describe, expect, it } from 'vitest';
import { row, run } from '../db/pool';
import { receive } from '../loads/loads';
import { arriving, makeCourse, testPool } from '../test-support/world';

const root = new URL('../../../..', import.meta.url).pathname;
const questions = 2000;
const pool = testPool();
const folder = mkdtempSync(join(tmpdir(), 'barrow-kill-'));
const children: ChildProcess[] = [];
afterAll(async () => {
	for (const child of children) child.kill('SIGKILL');
	await pool.end();
	rmSync(folder, { recursive: true, force: true });
});

/** Starts an application process of its own on the database of the test. */
async function startApplication(): Promise<ChildProcess> {
	const child = fork(join(root, 'test-support/serve-for-tests.ts'), {
		cwd: root,
		execArgv: ['--import', 'tsx'],
		env: { ...process.env, JOB_LEASE_SECONDS: '3' },
		stdio: ['ignore', 'ignore', 'ignore', 'ipc']
	});
	children.push(child);
	await new Promise((resolve) => child.on('message', resolve));
	return child;
}
async function until(test: () => Promise<boolean>, wait = 45_000): Promise<void> {
	for (const end = Date.now() + wait; Date.now() < end; await new Promise((resolve) => setTimeout(resolve, 40)))
		if (await test()) return;
	throw new Error('it did not come to pass');
}

describe('a server that is killed in the middle of its work', () => {
	it('leaves no half-read load behind, and the next one goes on with it', async () => {
		await run(pool, 'DELETE FROM jobs');
		const path = join(folder, 'big.zip');
		execFileSync('node', [join(root, 'bench/big.mjs'), String(questions), path, 'qti21']);
		const bytes = new Uint8Array(readFileSync(path));
		const course = await makeCourse(pool);
		const first = await startApplication();
		const id = await receive(pool, course.courseId, course.personId, 'big.zip', bytes.length, arriving(bytes, 1 << 16));
		const staged = async () =>
			(await row<{ n: number }>(pool, 'SELECT COUNT(*) AS n FROM staged_questions WHERE load_id = ?', [id]))!.n;
		await until(async () => (await staged()) > 0);
		first.kill('SIGKILL');
		const half = await staged();
		expect(half).toBeLessThan(questions);
		expect(await row(pool, 'SELECT state FROM loads WHERE id = ?', [id])).toEqual({ state: 'reading' });
		await startApplication();
		await until(
			async () => (await row<{ state: string }>(pool, 'SELECT state FROM loads WHERE id = ?', [id]))!.state === 'review'
		);
		expect(
			await row(
				pool,
				'SELECT COUNT(*) AS n, COUNT(DISTINCT number) AS numbers, MAX(number) AS last FROM staged_questions WHERE load_id = ?',
				[id]
			)
		).toEqual({
			n: questions,
			numbers: questions,
			last: questions
		});
		expect(await row(pool, "SELECT state, tries FROM jobs WHERE kind = 'read' AND subject_id = ?", [id])).toMatchObject(
			{ tries: 2 }
		);
	});
});
