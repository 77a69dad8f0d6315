import { execFileSync, fork, type ChildProcess } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, afterEach, describe, expect, it } from 'vitest';
import { Generator } from '$core/numbers/generator';
import { row, rows, run } from '../db/pool';
import { receive } from '../loads/loads';
import { readLoad } from '../loads/read';
import { unhindered } from './control';
import { fillCourse } from '../test-support/fill';
import { arriving, makeCourse, testPool } from '../test-support/world';
import { until } from '../../../../test-support/until';

const root = new URL('../../../..', import.meta.url).pathname;
const questions = 1200;
/** How often taking in and taking back are killed: more of it in a long run. */
const rounds = Number(process.env.KILLS ?? 1);
const pool = testPool();
const folder = mkdtempSync(join(tmpdir(), 'barrow-kill-'));
const children: ChildProcess[] = [];
// an application that is left running would take the jobs of the next test
afterEach(async () => {
	await Promise.all(
		children.splice(0).map(
			(child) =>
				new Promise((resolve) => {
					if (child.exitCode !== null || child.signalCode !== null) return resolve(null);
					child.on('exit', resolve);
					child.kill('SIGKILL');
				})
		)
	);
});
afterAll(async () => {
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

/** Has work done in a process of its own, which is killed so many milliseconds after it began; says whether it came to its end. */
function workApart(what: readonly (string | number)[], killAfter: number | null): Promise<boolean> {
	return new Promise((resolve) => {
		const child = fork(join(root, 'test-support/work-for-tests.ts'), what.map(String), {
			cwd: root,
			execArgv: ['--import', 'tsx'],
			env: process.env,
			stdio: ['ignore', 'ignore', 'ignore', 'ipc']
		});
		children.push(child);
		let done = false;
		child.on('message', (message) => {
			if (message === 'done') done = true;
			else if (killAfter !== null) setTimeout(() => child.kill('SIGKILL'), killAfter);
		});
		child.on('exit', () => resolve(done));
	});
}

/** Ends when the database has undone what a process had begun that is gone. */
const settled = () =>
	until(
		async () =>
			((await row(
				pool,
				"SELECT id FROM information_schema.processlist WHERE info LIKE 'INSERT INTO questions%' OR info LIKE 'UPDATE questions%'"
			)) ?? null) === null
	);

/** What has to hold at every moment between two pieces of work: all of the load is in the course, or nothing of it. */
async function allOrNothing(loadId: number): Promise<'all' | 'nothing'> {
	const load = (await row<{ state: string; bank_id: number | null }>(
		pool,
		'SELECT state, bank_id FROM loads WHERE id = ?',
		[loadId]
	))!;
	const inBank = (await row<{ n: number; staged: number }>(
		pool,
		'SELECT COUNT(*) AS n, COUNT(DISTINCT staged_id) AS staged FROM questions WHERE load_id = ?',
		[loadId]
	))!;
	const outcomes = await rows<{ outcome: string; n: number }>(
		pool,
		'SELECT outcome, COUNT(*) AS n FROM staged_questions WHERE load_id = ? GROUP BY outcome',
		[loadId]
	);
	if (load.state === 'taken') {
		expect([inBank.n, inBank.staged]).toEqual([questions, questions]);
		expect(outcomes).toEqual([{ outcome: 'taken', n: questions }]);
		expect(
			await row(pool, 'SELECT COUNT(*) AS n FROM questions WHERE load_id = ? AND (points <> 2 OR bank_id <> ?)', [
				loadId,
				load.bank_id
			])
		).toEqual({ n: 0 });
		return 'all';
	}
	expect(inBank.n).toBe(0);
	expect(outcomes).toEqual([{ outcome: 'waiting', n: questions }]);
	expect(await row(pool, 'SELECT COUNT(*) AS n FROM banks WHERE load_id = ?', [loadId])).toEqual({ n: 0 });
	return 'nothing';
}

describe('a process that is killed at any moment of taking in and taking back', () => {
	it('leaves all of a load in the course, or nothing of it, and the work can be done again', async () => {
		const path = join(folder, 'whole.zip');
		execFileSync('node', [join(root, 'bench/big.mjs'), String(questions), path, 'qti21']);
		const bytes = new Uint8Array(readFileSync(path));
		const course = await makeCourse(pool);
		const id = await receive(
			pool,
			course.courseId,
			course.personId,
			'whole.zip',
			bytes.length,
			arriving(bytes, 1 << 16)
		);
		await readLoad(pool, id, unhindered);
		// broken ones would be set aside, and this is about numbers that are easy to see
		await run(pool, "UPDATE staged_questions SET broken = 0, match_kind = 'new' WHERE load_id = ?", [id]);
		await run(pool, "UPDATE jobs SET state = 'done' WHERE subject_id = ?", [id]);
		const random = new Generator('killed');
		const work = (what: 'take' | 'undo', killAfter: number | null) =>
			workApart([what, course.courseId, id, course.personId], killAfter);
		for (let time = 0; time < rounds; time += 1) {
			await work('take', random.below(500));
			// the database undoes what was begun as soon as it sees that the connection is gone
			await settled();
			const state = await allOrNothing(id);
			if (state === 'nothing') await work('take', null);
			expect(await allOrNothing(id)).toBe('all');
			await work('undo', random.below(400));
			if ((await allOrNothing(id)) === 'all') await work('undo', null);
			expect(await allOrNothing(id)).toBe('nothing');
		}
	});
});

describe('a process that is killed while it changes many questions, or takes that back', () => {
	it('leaves all of them changed, or none, with the deed that can be taken back', async () => {
		const { personId } = await makeCourse(pool);
		const course = await fillCourse(pool, personId, questions);
		const random = new Generator('changed');
		const state = async () => {
			const changed = (await row<{ n: number }>(
				pool,
				'SELECT COUNT(*) AS n FROM questions WHERE course_id = ? AND points = 3',
				[course.id]
			))!.n;
			const deeds = await rows<{ id: number; questions: number; n: number }>(
				pool,
				"SELECT g.id, g.questions, (SELECT COUNT(*) FROM changed_questions c WHERE c.deed_id = g.id) AS n FROM ledger g WHERE g.course_id = ? AND g.way_back = 'open' AND g.deed = 'set the points of'",
				[course.id]
			);
			expect([0, questions]).toContain(changed);
			expect(deeds.map((deed) => [deed.questions, deed.n])).toEqual(changed ? [[questions, questions]] : []);
			return deeds[0]?.id ?? null;
		};
		for (let time = 0; time < rounds; time += 1) {
			await workApart(['bulk', course.id, course.bank, personId], 200 + random.below(900));
			await settled();
			if ((await state()) === null) await workApart(['bulk', course.id, course.bank, personId], null);
			const deedId = (await state())!;
			await workApart(['undo-deed', course.id, deedId, personId], 200 + random.below(900));
			await settled();
			if ((await state()) !== null) await workApart(['undo-deed', course.id, deedId, personId], null);
			expect(await state()).toBeNull();
		}
	});
});
