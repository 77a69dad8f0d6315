import { execFileSync, fork, type ChildProcess } from 'node:child_process';
import { createHash, randomBytes } from 'node:crypto';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Pool } from 'mysql2/promise';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { startMariadb, type OwnDatabase } from '../../../../scripts/database/mariadb';
import { Generator } from '$core/numbers/generator';
import { migrate } from '../db/migrate';
import { makePool, row, rows, run } from '../db/pool';
import { begin } from '../dispatches/dispatches';
import { fileChunks } from '../files/files';
import { hashPassword } from '../people/passwords';
import { signIn } from '../people/sessions';
import { takeIn } from '../loads/take-in';
import { decide, makeCourse } from '../test-support/world';
import { until } from '../../../../test-support/until';

/** Everything here has a database of its own, which is killed as well as the application is. */
const root = new URL('../../../..', import.meta.url).pathname;
/** How often each of them is killed in the middle of an upload: more of it in a long run. */
const rounds = Number(process.env.KILLS ?? 1);
const kills = Array.from({ length: rounds }, () => ['application', 'database'] as const).flat();
const questions = 1000;
const piece = 2 ** 20;
const folder = mkdtempSync(join(tmpdir(), 'barrow-restart-'));
const random = new Generator('restart');
let database: OwnDatabase;
let databasePort = 0;
let pool: Pool;
let application: ChildProcess;
let port = 0;
let course: Awaited<ReturnType<typeof makeCourse>>;
let cookie = '';
let bytes: Uint8Array;

async function startApplication(): Promise<void> {
	application = fork(join(root, 'test-support/serve-for-tests.ts'), {
		cwd: root,
		execArgv: ['--import', 'tsx'],
		env: {
			...process.env,
			DATABASE_URL: database.url,
			JOB_LEASE_SECONDS: '3',
			...(port ? { PORT: String(port) } : {})
		},
		stdio: ['ignore', 'ignore', 'ignore', 'ipc']
	});
	const address = await new Promise<string>((resolve, reject) => {
		application.on('message', (one) => resolve(String(one)));
		application.on('exit', () => reject(new Error('the application did not start')));
	});
	port = Number(new URL(address).port);
}
async function startDatabase(): Promise<void> {
	database = await startMariadb(join(folder, 'data'), { port: databasePort });
	databasePort = Number(new URL(database.url).port);
}
const pause = (time: number) => new Promise((resolve) => setTimeout(resolve, time));
/** Kills the application or the database a moment from now, and starts it again. */
async function disturb(what: 'application' | 'database', after: number): Promise<void> {
	await pause(after);
	if (what === 'application') {
		const gone = new Promise((resolve) => application.on('exit', resolve));
		application.kill('SIGKILL');
		await gone;
		await startApplication();
	} else {
		await database.kill();
		await startDatabase();
	}
}

beforeAll(async () => {
	const path = join(folder, 'big.zip');
	execFileSync('node', [join(root, 'bench/big.mjs'), String(questions), path, 'qti21']);
	bytes = new Uint8Array(readFileSync(path));
	await startDatabase();
	await migrate(database.url, new URL('../../../../db/migrations', import.meta.url).pathname);
	pool = makePool(database.url, 4);
	course = await makeCourse(pool);
	await run(pool, 'UPDATE people SET password_hash = ? WHERE id = ?', [
		await hashPassword('anchor-watch'),
		course.personId
	]);
	const { email } = (await row<{ email: string }>(pool, 'SELECT email FROM people WHERE id = ?', [course.personId]))!;
	const signed = await signIn(pool, { email, password: 'anchor-watch', address: '127.0.0.1' }, 1);
	cookie = `barrow_session=${(signed as { token: string }).token}`;
	await startApplication();
});
afterAll(async () => {
	application.kill('SIGKILL');
	await pool.end().catch(() => undefined);
	await database.stop();
	rmSync(folder, { recursive: true, force: true });
});

/** Sends a file as the tray does: what breaks off goes on where the server says that it has come to. */
async function send(name: string, content: Uint8Array): Promise<number> {
	const address = () => `http://127.0.0.1:${port}/courses/${course.courseId}/loads/upload`;
	const call = async (method: string, query: string, body: BodyInit, type: string) => {
		const response = await fetch(address() + query, {
			method,
			body,
			headers: { cookie, Accept: 'application/json', 'Content-Type': type }
		});
		if (!response.ok) throw Object.assign(new Error(await response.text()), { status: response.status });
		return (await response.json()) as { id: number; received: number };
	};
	for (let at: { id: number; received: number } | null = null, tries = 0; ;) {
		try {
			at = at
				? await call(
						'PUT',
						`?id=${at.id}&offset=${at.received}`,
						content.slice(at.received, at.received + piece),
						'application/octet-stream'
					)
				: await call('POST', '', JSON.stringify({ name, size: content.length, mark: 'm' }), 'application/json');
			if (at.received >= content.length) return at.id;
		} catch (error) {
			const { status } = error as { status?: number };
			// the tray waits for these, and for nothing else
			if (status !== undefined && ![502, 503, 504].includes(status)) throw error;
			tries += 1;
			if (tries > 200) throw error;
			at = null;
			await pause(100);
		}
	}
}
const stateOf = async (id: number) =>
	(await row<{ state: string }>(pool, 'SELECT state FROM loads WHERE id = ?', [id]))!.state;
async function wholeLoad(id: number): Promise<void> {
	await until(async () => (await stateOf(id)) === 'review');
	expect(
		await row(
			pool,
			'SELECT COUNT(*) AS n, COUNT(DISTINCT number) AS numbers, MAX(number) AS last FROM staged_questions WHERE load_id = ?',
			[id]
		)
	).toEqual({ n: questions, numbers: questions, last: questions });
}

describe('an upload', () => {
	it.each(kills)('goes on by itself while the %s is killed, and arrives once and whole', async (what) => {
		const content = new Uint8Array(randomBytes(12 * piece + random.below(piece)));
		const [id] = await Promise.all([
			send(`${what}-${random.below(1e6)}.bin`, content),
			disturb(what, random.below(300))
		]);
		const found = (await row<{ file_id: number }>(pool, 'SELECT file_id FROM loads WHERE id = ?', [id]))!;
		const hash = createHash('sha256');
		for await (const chunk of fileChunks(pool, found.file_id)) hash.update(chunk);
		expect(hash.digest('hex')).toBe(createHash('sha256').update(content).digest('hex'));
		expect(await row(pool, "SELECT COUNT(*) AS n FROM jobs WHERE kind = 'read' AND subject_id = ?", [id])).toEqual({
			n: 1
		});
	});
});

describe('a reading', () => {
	// kill.test.ts does the same to the application
	it.each(['database'] as const)(
		'ends with every question once, though the %s is killed in the middle of it',
		async (what) => {
			const id = await send(`big-${what}.zip`, bytes);
			await until(
				async () => (await row(pool, 'SELECT 1 FROM staged_questions WHERE load_id = ? LIMIT 1', [id])) !== undefined
			);
			await disturb(what, random.below(400));
			await wholeLoad(id);
		}
	);
	it('that is done already is not done again, whatever has become of the load since', async () => {
		const id = await send('again.zip', bytes.slice());
		await wholeLoad(id);
		await run(pool, "UPDATE staged_questions SET broken = 0, match_kind = 'new' WHERE load_id = ?", [id]);
		await takeIn(pool, course.courseId, id, course.personId, decide({ bankName: 'Once' }));
		// as if the process had gone down between the reading and the end of its job
		await run(
			pool,
			"UPDATE jobs SET state = 'running', tries = 1, owner = 'gone', lease_until = DATE_SUB(NOW(3), INTERVAL 1 SECOND) WHERE kind = 'read' AND subject_id = ?",
			[id]
		);
		await until(
			async () =>
				(await row<{ state: string }>(pool, "SELECT state FROM jobs WHERE kind = 'read' AND subject_id = ?", [id]))!
					.state === 'done'
		);
		expect(await stateOf(id)).toBe('taken');
		expect(
			await row(pool, "SELECT COUNT(*) AS n FROM staged_questions WHERE load_id = ? AND outcome = 'taken'", [id])
		).toEqual({ n: questions });
	});
});

describe('taking in', () => {
	it('while the database is killed is done in full or not at all, and can be done again', async () => {
		const id = await send('taken.zip', bytes);
		await wholeLoad(id);
		await run(pool, "UPDATE staged_questions SET broken = 0, match_kind = 'new' WHERE load_id = ?", [id]);
		const counts = async () => ({
			state: await stateOf(id),
			...(await row<{ n: number; once: number }>(
				pool,
				'SELECT COUNT(*) AS n, COUNT(DISTINCT staged_id) AS once FROM questions WHERE load_id = ?',
				[id]
			))!
		});
		for (let time = 0; time < 2; time += 1) {
			const name = `Taken ${time}`;
			await Promise.all([
				takeIn(pool, course.courseId, id, course.personId, decide({ bankName: name })).catch(() => undefined),
				disturb('database', random.below(250))
			]);
			await until(async () => (await counts()).n >= 0);
			const found = await counts();
			expect([
				{ state: 'taken', n: questions, once: questions },
				{ state: 'review', n: 0, once: 0 }
			]).toContainEqual(found);
			if (found.state === 'taken') break;
		}
		if ((await stateOf(id)) === 'review')
			await takeIn(pool, course.courseId, id, course.personId, decide({ bankName: 'Taken at last' }));
		expect(await counts()).toEqual({ state: 'taken', n: questions, once: questions });
	});
});

describe('a dispatch', () => {
	it.each(['application', 'database'] as const)(
		'is written and proved once, though the %s is killed while it is written',
		async (what) => {
			const bank = (await row<{ bank_id: number }>(pool, 'SELECT bank_id FROM questions WHERE course_id = ? LIMIT 1', [
				course.courseId
			]))!.bank_id;
			const id = (await begin(pool, course.courseId, course.personId, { bankId: bank }, 'qti21'))!;
			const dispatch = async () =>
				(await row<{ state: string; proof: string | null; failure: string }>(
					pool,
					'SELECT state, proof, failure FROM dispatches WHERE id = ?',
					[id]
				))!;
			await until(async () => ['writing', 'proving'].includes((await dispatch()).state));
			await disturb(what, random.below(700));
			await until(async () => (await dispatch()).state === 'done');
			const proof = JSON.parse((await dispatch()).proof!) as { sent: number; missing: number; otherwise: number };
			expect(proof).toMatchObject({ sent: questions, missing: 0, otherwise: 0 });
			expect(
				(
					await rows(pool, "SELECT id FROM ledger WHERE course_id = ? AND deed = 'dispatched' AND address LIKE ?", [
						course.courseId,
						`%show=${id}`
					])
				).length
			).toBe(1);
		}
	);
});
