import { join } from 'node:path';
import { createConnection } from 'mysql2/promise';
import { number, object, string } from 'yup';
import { migrate } from '../src/lib/server/db/migrate';
import { readConfig } from '../src/lib/server/config';
import { fillDemo, demoSignIn } from '../demo/fill';
import { buildIfStale } from './build';
import { startMariadb, type OwnDatabase } from './mariadb';
import { ensurePackages } from './packages';
import { serve, type Served } from './serve';
import { asTrouble, say, Trouble } from './words';

const root = new URL('..', import.meta.url).pathname.replace(/\/$/, '');
const shape = object({
	HOST: string().default('127.0.0.1'),
	PORT: number().integer('PORT has to be a number').min(0).max(65_535).default(4180),
	DEMO: string().oneOf(['0', '1'], 'DEMO is 1 or 0').default('1')
});

async function reach(url: string): Promise<void> {
	try {
		await (await createConnection({ uri: url.replace(/^mariadb:/, 'mysql:') })).end();
	} catch (error) {
		const { code } = error as { code?: string };
		if (code === 'ER_ACCESS_DENIED_ERROR')
			throw new Trouble(
				'The database of DATABASE_URL does not let this person in. Look at the name and the password in it.'
			);
		if (code === 'ER_BAD_DB_ERROR')
			throw new Trouble(
				'The database that DATABASE_URL names is not there. Make it first: CREATE DATABASE … CHARACTER SET utf8mb4'
			);
		throw new Trouble(
			'The database of DATABASE_URL does not answer. Is it running, and are the address and the port in it right?'
		);
	}
}

let database: OwnDatabase | null = null;
let served: Served | null = null;
let ending = false;

async function stop(code: number): Promise<void> {
	if (ending) return;
	ending = true;
	if (served) say('\nStopping …');
	await served?.stop().catch(() => undefined);
	await database?.stop().catch(() => undefined);
	process.exit(code);
}
process.on('SIGINT', () => void stop(0));
process.on('SIGTERM', () => void stop(0));

try {
	const settings = shape.validateSync(process.env, { stripUnknown: true });
	if (!process.env.DATABASE_URL) {
		ensurePackages(['mariadb-server']);
		database = await startMariadb(join(root, 'var', 'mariadb'));
		process.env.DATABASE_URL = database.url;
	} else await reach(process.env.DATABASE_URL);
	const config = readConfig(process.env);
	await migrate(config.databaseUrl, join(root, 'db/migrations'));
	if (settings.DEMO === '1' && (await fillDemo(config.databaseUrl))) say('The demo school was filled in.');
	buildIfStale(root);
	served = await serve(root, settings.HOST, settings.PORT);
	say(`\nYarn Barrow is ready: ${served.address}`);
	if (settings.DEMO === '1') say(`Sign in as ${demoSignIn.email} with the password ${demoSignIn.password}`);
	say('Stop it with Ctrl+C.');
} catch (error) {
	const trouble = asTrouble(error, 'starting');
	const plain =
		trouble instanceof Trouble ||
		(trouble as Error).name === 'ValidationError' ||
		/^A setting is wrong/.test(trouble.message);
	process.stderr.write(`\n${plain ? trouble.message : (trouble.stack ?? trouble.message)}\n`);
	await stop(1);
}
