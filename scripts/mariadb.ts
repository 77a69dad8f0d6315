import { spawn, spawnSync, type ChildProcess } from 'node:child_process';
import { randomBytes } from 'node:crypto';
import { chmodSync, existsSync, mkdirSync, openSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:net';
import { join } from 'node:path';
import { createConnection } from 'mysql2/promise';
import { asTrouble, Trouble } from './words';

/** A MariaDB of the project's own, on loopback, with its data in a folder of the project. */
export interface OwnDatabase {
	/** As DATABASE_URL takes it. */
	url: string;
	stop: () => Promise<void>;
	/** Ends it at once, as a machine does that goes down: for tests. */
	kill: () => Promise<void>;
}

const host = '127.0.0.1';
const schema = 'yarn_barrow';

async function freePort(): Promise<number> {
	return new Promise((resolve, reject) => {
		const server = createServer();
		server.on('error', reject);
		server.listen(0, host, () => {
			const { port } = server.address() as { port: number };
			server.close(() => resolve(port));
		});
	});
}

const log = (folder: string) => join(folder, 'mariadb.log');
const lastWords = (folder: string) =>
	existsSync(log(folder))
		? readFileSync(log(folder), 'utf8')
				.trim()
				.split('\n')
				.filter((line) => /error/i.test(line))
				.slice(-2)
				.join('\n')
		: '';

function install(folder: string): void {
	const data = join(folder, 'data');
	const user = process.getuid?.() === 0 ? ['--user=root'] : [];
	const made = spawnSync(
		'mariadb-install-db',
		['--no-defaults', `--datadir=${data}`, '--auth-root-authentication-method=normal', '--skip-test-db', ...user],
		{
			encoding: 'utf8',
			stdio: ['ignore', 'pipe', 'pipe']
		}
	);
	if (made.status !== 0) {
		rmSync(data, { recursive: true, force: true });
		throw asTrouble(
			new Error(`${made.stderr ?? ''}${made.stdout ?? ''}` || String(made.error)),
			'the database is set up'
		);
	}
}

async function connect(options: object, server: ChildProcess, folder: string) {
	for (let wait = 0; wait < 600; wait += 1) {
		if (server.exitCode !== null) {
			const words = lastWords(folder);
			if (/no space left|Errcode: 28/i.test(words))
				throw new Trouble('The disk is full: the database cannot start. Make room and start again.');
			throw new Trouble(
				`The database did not start. Its last words, from ${log(folder)}:\n${words}\nIf another ./start is running in this folder, stop it first.`
			);
		}
		try {
			return await createConnection(options as never);
		} catch {
			await new Promise((resolve) => setTimeout(resolve, 100));
		}
	}
	throw new Trouble(`The database did not answer within a minute. Look into ${log(folder)}.`);
}

/**
 * Starts the project's own MariaDB with its data in `folder`, which is made where it is not there. The password is made
 * once and kept beside the data, readable by the owner alone. `port` is a free one where none is named; `quick` does
 * without waiting for the disk. Throws a Trouble where it cannot start.
 */
export async function startMariadb(folder: string, { quick = false, port: wanted = 0 } = {}): Promise<OwnDatabase> {
	mkdirSync(folder, { recursive: true });
	const secret = join(folder, 'password');
	if (!existsSync(join(folder, 'data', 'mysql'))) install(folder);
	const fresh = !existsSync(secret);
	const password = fresh ? randomBytes(24).toString('base64url') : readFileSync(secret, 'utf8').trim();
	const port = wanted || (await freePort());
	const socket = join(folder, 'socket');
	const out = openSync(log(folder), 'a');
	const binary = existsSync('/usr/sbin/mariadbd') ? '/usr/sbin/mariadbd' : 'mariadbd';
	const server = spawn(
		binary,
		[
			'--no-defaults',
			`--datadir=${join(folder, 'data')}`,
			`--socket=${socket}`,
			`--pid-file=${join(folder, 'pid')}`,
			`--port=${port}`,
			`--bind-address=${host}`,
			'--character-set-server=utf8mb4',
			'--max-allowed-packet=64M',
			'--innodb-buffer-pool-size=256M',
			'--innodb-log-file-size=256M',
			'--innodb-flush-log-at-trx-commit=' + (quick ? '0' : '1'),
			'--skip-name-resolve',
			...(process.getuid?.() === 0 ? ['--user=root'] : [])
		],
		{ stdio: ['ignore', out, out], detached: true }
	);
	server.on('error', () => undefined);
	const root = await connect(
		fresh ? { socketPath: socket, user: 'root' } : { host, port, user: 'barrow', password },
		server,
		folder
	);
	if (fresh) {
		await root.query(`CREATE DATABASE IF NOT EXISTS ${schema} CHARACTER SET utf8mb4`);
		await root.query(`CREATE OR REPLACE USER 'barrow'@'${host}' IDENTIFIED BY ?`, [password]);
		await root.query(`GRANT ALL ON \`yarn\\_barrow%\`.* TO 'barrow'@'${host}'`);
		await root.query("DELETE FROM mysql.global_priv WHERE User = ''");
		await root.query('FLUSH PRIVILEGES');
		writeFileSync(secret, password, { mode: 0o600 });
		chmodSync(secret, 0o600);
	}
	await root.end();
	const ended = new Promise<void>((resolve) => server.on('exit', () => resolve()));
	return {
		url: `mysql://barrow:${password}@${host}:${port}/${schema}`,
		stop: () =>
			new Promise((resolve) => {
				if (server.exitCode !== null) return resolve();
				server.on('exit', () => resolve());
				server.kill('SIGTERM');
				setTimeout(() => server.kill('SIGKILL'), 20_000).unref();
			}),
		kill: () => {
			server.kill('SIGKILL');
			return ended;
		}
	};
}
