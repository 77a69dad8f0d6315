import { existsSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { migrate } from '../src/lib/server/db/migrate';
import { startMariadb } from '../scripts/database/mariadb';

/** Starts a MariaDB in a temporary folder for a run of tests; DATABASE_URL names it. Gives what ends it. */
export default async function setup(): Promise<() => Promise<void>> {
	for (const built of ['build/handler.js', 'build/threads/job.js'])
		if (!existsSync(new URL(`../${built}`, import.meta.url)))
			throw new Error(
				`${built} is missing, which these tests run. Build it first: npm run build (./test does it by itself).`
			);
	const folder = mkdtempSync(join(tmpdir(), 'barrow-test-'));
	const database = await startMariadb(folder, { quick: true });
	process.env.DATABASE_URL = database.url;
	await migrate(database.url, new URL('../db/migrations', import.meta.url).pathname);
	return async () => {
		await database.stop();
		rmSync(folder, { recursive: true, force: true });
	};
}
