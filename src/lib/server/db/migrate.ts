import { readdir, readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { createConnection } from 'mysql2/promise';
import { fillSearchedWords } from './searched-words';
import type { Database } from './pool';

/** What the program fills in behind a migration: what SQL alone cannot work out. It may be broken off and begun again. */
const fillings = new Map<string, (db: Database, say: (words: string) => void) => Promise<void>>([
	['030_searched_words.sql', fillSearchedWords]
]);

/**
 * Brings a database up to the newest numbered migration of a folder; gives the names of those that it ran.
 * Several processes may call it at once: one does the work, the others wait for it.
 * What takes long is said.
 */
export async function migrate(
	url: string,
	folder: string,
	say: (words: string) => void = () => undefined
): Promise<string[]> {
	const connection = await createConnection({
		uri: url.replace(/^mariadb:/, 'mysql:'),
		multipleStatements: true,
		charset: 'utf8mb4'
	});
	const ran: string[] = [];
	try {
		await connection.query("SELECT GET_LOCK('yarn-barrow-migrate', 120)");
		await connection.query(
			'CREATE TABLE IF NOT EXISTS migrations (name VARCHAR(120) NOT NULL PRIMARY KEY, ran DATETIME(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3)) ENGINE=InnoDB'
		);
		const [known] = await connection.query('SELECT name FROM migrations');
		const names = new Set((known as { name: string }[]).map((entry) => entry.name));
		for (const file of (await readdir(folder)).filter((name) => /^\d+.*\.sql$/.test(name)).sort()) {
			if (names.has(file)) continue;
			await connection.query(await readFile(join(folder, file), 'utf8'));
			await fillings.get(file)?.(connection, say);
			await connection.query('INSERT INTO migrations (name) VALUES (?)', [file]);
			ran.push(file);
		}
	} finally {
		await connection.end();
	}
	return ran;
}
