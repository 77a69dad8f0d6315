import { join } from 'node:path';
import { readConfig } from '../src/lib/server/config';
import { makePool } from '../src/lib/server/db/pool';
import { inviteFirst } from '../src/lib/server/people/invitations';
import { linkOf } from '../src/lib/server/people/inviting';
import { buildIfStale } from './build';
import { asDatabaseTrouble, reach } from './database/given';
import { startMariadb, type OwnDatabase } from './database/mariadb';
import { ensurePackages } from './packages';
import { serve, type Served } from './serve';
import { startSettings } from './settings';
import { asTrouble, say, Stopped, Trouble } from './words';

const root = new URL('..', import.meta.url).pathname.replace(/\/$/, '');
const stopping = new AbortController();
let database: OwnDatabase | null = null;
let served: Served | null = null;
let ending = false;

async function stop(code: number): Promise<void> {
	if (ending) return;
	ending = true;
	if (served) say('\nStopping …');
	stopping.abort();
	await served?.stop().catch(() => undefined);
	await database?.stop().catch(() => undefined);
	process.exit(code);
}
for (const name of ['SIGINT', 'SIGTERM', 'SIGHUP'] as const)
	process.on(name, () => {
		stopping.abort();
		if (served) void stop(0);
	});
// a terminal that is closed takes what is said with it
for (const stream of [process.stdout, process.stderr]) stream.on('error', () => undefined);

/** Ends the start at the next step where somebody has asked for that. */
async function goOn(): Promise<void> {
	await new Promise((resolve) => setImmediate(resolve));
	if (stopping.signal.aborted) throw new Stopped();
}

async function prepareDatabase(): Promise<void> {
	if (process.env.DATABASE_URL) return reach(process.env.DATABASE_URL);
	ensurePackages(['mariadb-server']);
	await goOn();
	database = await startMariadb(join(root, 'var', 'mariadb'), {
		stopping: stopping.signal,
		onGivenUp: (trouble) => {
			process.stderr.write(`\n${trouble.message}\n`);
			void stop(1);
		}
	});
	process.env.DATABASE_URL = database.url;
}

/** How to sign in to the demo, which is filled in where the database is empty. */
async function fillInDemo(databaseUrl: string): Promise<{ email: string; password: string }> {
	const { demoSignIn, fillDemo } = await import('../demo/fill');
	if (await fillDemo(databaseUrl)) say('The demo school was filled in.');
	return demoSignIn;
}

/** The link by which the first person comes into an empty installation; null where somebody is there. */
async function firstLink(databaseUrl: string, address: string): Promise<string | null> {
	const pool = makePool(databaseUrl, 2);
	try {
		const token = await inviteFirst(pool);
		return token && linkOf(address, token);
	} finally {
		await pool.end();
	}
}

// what is large is loaded when it is needed, so that a wrong setting is told at once
async function start(): Promise<void> {
	const settings = startSettings(process.env);
	readConfig({ ...process.env, DATABASE_URL: 'mysql://any/any' });
	await prepareDatabase();
	const config = readConfig(process.env);
	const { migrate } = await import('../src/lib/server/db/migrate');
	await migrate(config.databaseUrl, join(root, 'db/migrations'), say).catch((error: unknown) => {
		throw asDatabaseTrouble(error);
	});
	await goOn();
	const signIn = settings.demo && (await fillInDemo(config.databaseUrl));
	buildIfStale(root);
	await goOn();
	served = await serve(root, settings);
	if (stopping.signal.aborted) return stop(0);
	say(`\nYarn Barrow is ready: ${served.address}`);
	if (signIn) say(`Sign in as ${signIn.email} with the password ${signIn.password}`);
	const first = await firstLink(config.databaseUrl, served.address);
	if (first)
		say(`Nobody is here yet. Whoever opens this link looks after the installation; it is good for once:\n${first}`);
	say('Stop it with Ctrl+C.');
}

try {
	await start();
} catch (error) {
	const trouble = asTrouble(error, 'Yarn Barrow is started');
	const plain = trouble instanceof Trouble || /^A setting is wrong/.test(trouble.message);
	process.stderr.write(`\n${plain ? trouble.message : (trouble.stack ?? trouble.message)}\n`);
	await stop(trouble instanceof Stopped ? 130 : 1);
}
