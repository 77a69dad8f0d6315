import { fork, spawn, spawnSync, type ChildProcess } from 'node:child_process';
import { chmodSync, existsSync, mkdirSync, mkdtempSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { createConnection, type Connection } from 'mysql2/promise';
import { afterAll, afterEach, describe, expect, it } from 'vitest';
import { asTrouble, Stopped, Trouble } from '../words';
import { startMariadb, type OwnDatabase } from './mariadb';
import { until } from '../../test-support/until';

const made = mkdtempSync(join(tmpdir(), 'barrow-database-'));
let count = 0;
const folder = () => join(made, `${(count += 1)}`);
let database: OwnDatabase | null = null;
const children: ChildProcess[] = [];
async function start(where: string): Promise<OwnDatabase> {
	database = await startMariadb(where, { quick: true });
	return database;
}
afterEach(async () => {
	await database?.stop();
	database = null;
	for (const child of children.splice(0)) child.kill('SIGKILL');
});
afterAll(() => rmSync(made, { recursive: true, force: true }));

async function asked<T>(url: string, ask: (connection: Connection) => Promise<T>): Promise<T> {
	const connection = await createConnection(url);
	try {
		return await ask(connection);
	} finally {
		await connection.end();
	}
}
const first = async (url: string, sql: string) =>
	asked(url, async (connection) => ((await connection.query(sql))[0] as Record<string, unknown>[])[0]);
/** Whether root gets in by the network without a password. */
async function rootGetsIn(url: string): Promise<boolean> {
	const { port } = new URL(url);
	return createConnection({ host: '127.0.0.1', port: Number(port), user: 'root' }).then(
		async (connection) => {
			await connection.end();
			return true;
		},
		() => false
	);
}
const mode = (path: string) => statSync(path).mode & 0o777;

describe('the own database', () => {
	it('lets in the application with its password, and nobody else by the network', async () => {
		const where = folder();
		const { url } = await start(where);
		expect(await rootGetsIn(url)).toBe(false);
		const wrong = new URL(url);
		wrong.password = '';
		await expect(createConnection(wrong.href)).rejects.toThrow(/denied/i);
		expect([mode(where), mode(join(where, 'data')), mode(join(where, 'password'))]).toEqual([0o700, 0o700, 0o600]);
	});
	it('lets the application work in its own schema only, and write no files', async () => {
		const { url } = await start(folder());
		await asked(url, async (connection) => {
			await connection.query('CREATE TABLE knots (name VARCHAR(20))');
			const refused = (sql: string) => expect(connection.query(sql)).rejects.toThrow(/denied|secure-file-priv/i);
			await refused("SELECT 'x' INTO OUTFILE '/tmp/barrow-outfile-test'");
			await refused('SELECT * FROM mysql.global_priv');
			await refused('CREATE DATABASE elsewhere');
			await refused("CREATE USER 'x'@'%'");
			await refused('SELECT LOAD_FILE("/etc/passwd") FROM mysql.user');
		});
		expect(existsSync('/tmp/barrow-outfile-test')).toBe(false);
	});
	it('of an installation made before is put right, with everything in it', async () => {
		const where = folder();
		const data = join(where, 'data');
		mkdirSync(where, { recursive: true });
		const root = process.getuid?.() === 0 ? ['--user=root'] : [];
		spawnSync('mariadb-install-db', [
			'--no-defaults',
			`--datadir=${data}`,
			'--auth-root-authentication-method=normal',
			...root
		]);
		chmodSync(where, 0o755);
		writeFileSync(join(where, 'password'), 'an-old-password-of-the-first-kind');
		const { url } = await start(where);
		expect(new URL(url).password).toBe('an-old-password-of-the-first-kind');
		expect(await rootGetsIn(url)).toBe(false);
		expect(mode(where)).toBe(0o700);
		await asked(url, (connection) => connection.query('CREATE TABLE knots (name VARCHAR(20))'));
		await database!.stop();
		// also where the password is gone, what it holds is kept
		rmSync(join(where, 'password'));
		rmSync(join(where, 'installed'));
		const again = await start(where);
		expect(await first(again.url, "SHOW TABLES LIKE 'knots'")).toBeDefined();
	});
	it('is made anew where making it broke off', async () => {
		const where = folder();
		mkdirSync(join(where, 'data', 'mysql'), { recursive: true });
		writeFileSync(join(where, 'data', 'ibdata1'), 'half');
		expect(await first((await start(where)).url, 'SELECT 1 AS one')).toEqual({ one: 1 });
	});
	it('is started again by itself where it ends by itself', async () => {
		const where = folder();
		const { url } = await start(where);
		const before = Number(readFileSync(join(where, 'pid'), 'utf8'));
		process.kill(before, 'SIGKILL');
		await until(async () => Number(readFileSync(join(where, 'pid'), 'utf8')) !== before);
		await until(async () => (await first(url, 'SELECT 1 AS one')) !== undefined);
	});
	it('starts again after its owner was killed, at whatever moment', async () => {
		const where = folder();
		const owner = () => {
			const child = fork(new URL('../../test-support/database-for-tests.ts', import.meta.url).pathname, [where], {
				execArgv: ['--import', 'tsx'],
				stdio: ['ignore', 'ignore', 'ignore', 'ipc']
			});
			children.push(child);
			return child;
		};
		for (const after of [400, 900, 1500, 2500, null]) {
			const child = owner();
			const gone = new Promise((resolve) => child.on('exit', resolve));
			if (after === null) await new Promise((resolve) => child.on('message', resolve));
			else await new Promise((resolve) => setTimeout(resolve, after));
			child.kill('SIGKILL');
			await gone;
		}
		expect(await first((await start(where)).url, 'SELECT 1 AS one')).toEqual({ one: 1 });
	});
	it('that outlived its owner is ended, and the folder is free', async () => {
		const where = folder();
		await start(where);
		await database!.stop();
		const root = process.getuid?.() === 0 ? ['--user=root'] : [];
		const orphan = spawn(
			'/usr/sbin/mariadbd',
			[
				'--no-defaults',
				`--datadir=${join(where, 'data')}`,
				`--socket=${join(where, 'other')}`,
				'--skip-networking',
				...root
			],
			{ stdio: 'ignore', detached: true }
		);
		const gone = new Promise((resolve) => orphan.on('exit', resolve));
		await until(async () => existsSync(join(where, 'other')));
		const { url } = await start(where);
		await gone;
		expect(await first(url, 'SELECT 1 AS one')).toEqual({ one: 1 });
	});
	it('is refused to a second one who starts it, by the number of the first', async () => {
		const where = folder();
		await start(where);
		const second = fork(new URL('../../test-support/database-for-tests.ts', import.meta.url).pathname, [where], {
			execArgv: ['--import', 'tsx'],
			stdio: ['ignore', 'ignore', 'pipe', 'ipc']
		});
		children.push(second);
		let words = '';
		second.stderr!.setEncoding('utf8').on('data', (text: string) => (words += text));
		await new Promise((resolve) => second.on('exit', resolve));
		expect(words).toContain(`runs from this folder already (process ${process.pid})`);
	});
	it('is stopped while it starts, and leaves nothing running', async () => {
		for (const after of [50, 600, 2000]) {
			const stopping = new AbortController();
			const where = folder();
			setTimeout(() => stopping.abort(), after);
			const started = startMariadb(where, { quick: true, stopping: stopping.signal });
			const outcome = await started.then(
				(one) => one,
				(error: unknown) => error
			);
			if (outcome instanceof Error) expect(outcome).toBeInstanceOf(Stopped);
			else await (outcome as OwnDatabase).stop();
			expect(await first((await start(where)).url, 'SELECT 1 AS one')).toEqual({ one: 1 });
			await database!.stop();
		}
	});
	it('says in words what keeps it from its folder', async () => {
		const file = join(made, 'a-file');
		writeFileSync(file, '');
		const failure = await startMariadb(join(file, 'mariadb')).catch((error: unknown) =>
			asTrouble(error, 'it is started')
		);
		expect(failure).toBeInstanceOf(Trouble);
		expect((failure as Trouble).message).toContain('There is a file where a folder has to be');
	});
});
