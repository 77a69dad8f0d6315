import { randomBytes } from 'node:crypto';
import { chmodSync, existsSync, readFileSync, renameSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { schema } from './install';

/** The account of the application. */
export const account = 'barrow';

/** The password of the application's account, made once and kept in `folder`, readable by its owner alone. */
export function passwordIn(folder: string): string {
	const file = join(folder, 'password');
	const kept = existsSync(file) ? readFileSync(file, 'utf8').trim() : '';
	if (/^[\w-]{20,}$/.test(kept)) {
		chmodSync(file, 0o600);
		return kept;
	}
	const made = randomBytes(24).toString('base64url');
	writeFileSync(`${file}.new`, made, { mode: 0o600 });
	renameSync(`${file}.new`, file);
	return made;
}

/**
 * Writes what a server does each time before it lets anybody in: the schema and the application's account, which may
 * work in that schema and nowhere else; no account without a password, and root only for whoever the machine knows as
 * root, through the socket. Gives the path of the file.
 */
export function writeAccounts(folder: string, host: string, password: string): string {
	const file = join(folder, 'accounts.sql');
	const user = `'${account}'@'${host}'`;
	const statements = [
		`CREATE DATABASE IF NOT EXISTS ${schema} CHARACTER SET utf8mb4;`,
		`DELETE FROM mysql.global_priv WHERE NOT (User = '${account}' AND Host = '${host}') AND NOT (User = 'root' AND Host = 'localhost') AND User <> 'mariadb.sys';`,
		'FLUSH PRIVILEGES;',
		"ALTER USER IF EXISTS 'root'@'localhost' IDENTIFIED VIA unix_socket;",
		`CREATE OR REPLACE USER ${user} IDENTIFIED BY '${password}';`,
		`GRANT ALL ON \`${schema.replace('_', '\\_')}\`.* TO ${user};`,
		'FLUSH PRIVILEGES;'
	];
	writeFileSync(file, `${statements.join('\n')}\n`, { mode: 0o600 });
	return file;
}
