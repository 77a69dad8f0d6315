import { spawn, type ChildProcess } from 'node:child_process';
import { chmodSync, existsSync, mkdirSync, mkdtempSync, openSync, readFileSync, rmSync, statSync } from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { createConnection } from 'mysql2/promise';
import { roomOn } from '../../src/lib/server/disk';
import { say, Stopped, Trouble } from '../words';
import { account, passwordIn, writeAccounts } from './accounts';
import { ensureInstalled, ownTemporary, schema } from './install';
import { endLeftOvers, own } from './processes';

/** A MariaDB of the project's own, on loopback, with its data in a folder of the project. */
export interface OwnDatabase {
	/** As DATABASE_URL takes it. */
	url: string;
	stop: () => Promise<void>;
	/** Ends it at once, as a machine does that goes down: for tests. */
	kill: () => Promise<void>;
}

/** How an own database is started. */
interface Wishes {
	/** Does without waiting for the disk: for tests. */
	quick?: boolean;
	/** The port; a free one where none is named. */
	port?: number;
	/** Breaks the start off. */
	stopping?: AbortSignal;
	/** Told once the database has ended by itself so often that it is not started again. */
	onGivenUp?: (trouble: Trouble) => void;
}

const host = '127.0.0.1';
/** A path of a socket may be no longer (unix(7), 108 with its end). */
const longestSocket = 100;
/** A database that ends by itself is started again so often within so many milliseconds. */
const restarts = { most: 5, within: 10 * 60_000 };

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

const logOf = (folder: string) => join(folder, 'mariadb.log');

/** What the log says of errors, from a place in it on. */
function lastWords(folder: string, from: number): string {
	if (!existsSync(logOf(folder))) return '';
	const lines = readFileSync(logOf(folder)).subarray(from).toString('utf8').trim().split('\n');
	return lines
		.filter((line) => /\[ERROR\]|errcode|error 28|no space left|out of disk space/i.test(line))
		.slice(-2)
		.join('\n');
}

function whyItEnded(folder: string, from: number): Trouble {
	const words = lastWords(folder, from);
	if (/no space left|Errcode: 28|error 28|disk is full|out of disk space/i.test(words))
		return new Trouble('The disk is full: the database cannot run. Make room and start again; nothing is lost.');
	if (/read-only file system|Errcode: 30/i.test(words))
		return new Trouble('The disk can only be read: the database cannot run. Mount it for writing and start again.');
	return new Trouble(
		`The database ended${words ? `. Its last words, from ${logOf(folder)}:\n${words}` : ` without a word. Look into ${logOf(folder)}.`}`
	);
}

/** Waits until a server lets the application in. Throws a Trouble where it ends before, or is silent for a minute. */
async function untilReady(server: ChildProcess, options: object, folder: string, from: number, stopping?: AbortSignal) {
	let last: unknown;
	for (let wait = 0; wait < 600; wait += 1) {
		if (stopping?.aborted) throw new Stopped();
		if (!server.pid) throw new Trouble('MariaDB is not installed, or may not be run: there is no mariadbd.');
		if (server.exitCode !== null || server.signalCode !== null) throw whyItEnded(folder, from);
		try {
			await (await createConnection(options as never)).end();
			return;
		} catch (error) {
			last = error;
			await new Promise((resolve) => setTimeout(resolve, 100));
		}
	}
	throw new Trouble(
		`The database did not let the application in within a minute (${(last as Error).message}). Look into ${logOf(folder)}.`
	);
}

/** A folder for the socket, for its owner alone: that of the database, unless its path is longer than a socket's may be. */
function socketFolder(folder: string): string {
	if (Buffer.byteLength(join(folder, 'socket')) <= longestSocket) return folder;
	const made = mkdtempSync(join(tmpdir(), 'barrow-'));
	chmodSync(made, 0o700);
	return made;
}

class OwnServer {
	readonly #folder: string;
	readonly #wishes: Wishes;
	readonly #port: number;
	readonly #password: string;
	readonly #sockets: string;
	#child: ChildProcess | null = null;
	#ending = false;
	#restarts: number[] = [];

	constructor(folder: string, port: number, wishes: Wishes) {
		this.#folder = folder;
		this.#wishes = wishes;
		this.#port = port;
		this.#password = passwordIn(folder);
		this.#sockets = socketFolder(folder);
		wishes.stopping?.addEventListener('abort', () => void this.stop());
	}

	get url(): string {
		return `mysql://${account}:${this.#password}@${host}:${this.#port}/${schema}`;
	}

	async start(): Promise<void> {
		const accounts = writeAccounts(this.#folder, host, this.#password);
		const from = existsSync(logOf(this.#folder)) ? statSync(logOf(this.#folder)).size : 0;
		const child = this.#spawn(accounts);
		this.#child = child;
		try {
			await untilReady(
				child,
				{ host, port: this.#port, user: account, password: this.#password, database: schema },
				this.#folder,
				from,
				this.#wishes.stopping
			);
		} catch (error) {
			await this.#end(child, 'SIGTERM');
			throw error;
		} finally {
			rmSync(accounts, { force: true });
		}
		const ended = () => void this.#again(from);
		if (child.exitCode !== null || child.signalCode !== null) ended();
		else child.on('exit', ended);
	}

	#spawn(accounts: string): ChildProcess {
		const folder = this.#folder;
		const files = join(folder, 'files');
		mkdirSync(files, { recursive: true, mode: 0o700 });
		const server = [
			existsSync('/usr/sbin/mariadbd') ? '/usr/sbin/mariadbd' : 'mariadbd',
			'--no-defaults',
			`--datadir=${join(folder, 'data')}`,
			`--tmpdir=${ownTemporary(join(folder, 'data'))}`,
			`--socket=${join(this.#sockets, 'socket')}`,
			`--pid-file=${join(folder, 'pid')}`,
			`--port=${this.#port}`,
			`--bind-address=${host}`,
			`--init-file=${accounts}`,
			`--secure-file-priv=${files}`,
			'--local-infile=0',
			'--skip-symbolic-links',
			'--character-set-server=utf8mb4',
			'--max-allowed-packet=64M',
			'--innodb-buffer-pool-size=256M',
			'--innodb-log-file-size=256M',
			`--innodb-flush-log-at-trx-commit=${this.#wishes.quick ? 0 : 1}`,
			'--skip-name-resolve',
			...(process.getuid?.() === 0 ? ['--user=root'] : [])
		];
		// where the system can, it ends the database when this process is ended, however hard
		const words = existsSync('/usr/bin/setpriv') ? ['/usr/bin/setpriv', '--pdeathsig', 'TERM', ...server] : server;
		const out = openSync(logOf(folder), 'a', 0o600);
		const child = spawn(words[0]!, words.slice(1), { stdio: ['ignore', out, out], detached: true });
		child.on('error', () => undefined);
		return child;
	}

	/** Starts the database again that has ended by itself, unless it does so all the time. */
	async #again(from: number): Promise<void> {
		if (this.#ending) return;
		if (roomOn(this.#folder) === 'full') await this.#untilThereIsRoom();
		if (this.#ending) return;
		const why = whyItEnded(this.#folder, from);
		const now = Date.now();
		this.#restarts = [...this.#restarts.filter((at) => now - at < restarts.within), now];
		if (this.#restarts.length > restarts.most) {
			this.#wishes.onGivenUp?.(
				new Trouble(`${why.message}\nIt has ended ${restarts.most + 1} times in ten minutes, and is not started again.`)
			);
			return;
		}
		say(`${why.message}\nIt is started again.`);
		await new Promise((resolve) => setTimeout(resolve, 500 * 2 ** this.#restarts.length));
		if (this.#ending) return;
		await this.start().catch(() => this.#again(from));
	}

	/** Waits while the disk is full, on which no database can start. */
	async #untilThereIsRoom(): Promise<void> {
		say(
			'The disk is full, and the database has ended of it. It is started again as soon as there is room; nothing is lost.'
		);
		while (!this.#ending && roomOn(this.#folder) === 'full') await new Promise((resolve) => setTimeout(resolve, 2000));
	}

	#end(child: ChildProcess, name: NodeJS.Signals): Promise<void> {
		return new Promise((resolve) => {
			if (child.exitCode !== null || child.signalCode !== null || !child.pid) {
				resolve();
				return;
			}
			child.on('exit', () => resolve());
			child.kill(name);
			setTimeout(() => child.kill('SIGKILL'), 20_000).unref();
		});
	}

	async stop(name: NodeJS.Signals = 'SIGTERM'): Promise<void> {
		this.#ending = true;
		if (this.#child) await this.#end(this.#child, name);
		rmSync(join(this.#folder, 'owner'), { force: true });
		if (this.#sockets !== this.#folder) rmSync(this.#sockets, { recursive: true, force: true });
	}
}

/**
 * Starts the project's own MariaDB with its data in `folder`, which is made where it is not there, and for its owner
 * alone. What an earlier run has left behind is ended first, and a database that ends by itself is started again. Throws
 * a Trouble where it cannot start, and Stopped where that was broken off.
 */
export async function startMariadb(folder: string, wishes: Wishes = {}): Promise<OwnDatabase> {
	mkdirSync(folder, { recursive: true, mode: 0o700 });
	own(join(folder, 'owner'));
	try {
		await endLeftOvers(join(folder, 'data'));
		await ensureInstalled(folder, wishes.stopping);
		if (wishes.stopping?.aborted) throw new Stopped();
		const server = new OwnServer(folder, wishes.port || (await freePort()), wishes);
		await server.start();
		return { url: server.url, stop: () => server.stop(), kill: () => server.stop('SIGKILL') };
	} catch (error) {
		rmSync(join(folder, 'owner'), { force: true });
		throw error;
	}
}
