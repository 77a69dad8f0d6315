import { spawn } from 'node:child_process';
import { chmodSync, existsSync, mkdirSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { asTrouble, Stopped } from '../words';

/** The schema of the application in a database of its own. */
export const schema = 'yarn_barrow';

/** What stands in a folder once a data folder in it was made to its end. */
const mark = (folder: string) => join(folder, 'installed');

/** Whether a data folder holds tables of ours, whatever else is missing: it is then never made anew. */
const holdsTables = (data: string) =>
	existsSync(join(data, schema)) && readdirSync(join(data, schema)).some((name) => name.endsWith('.ibd'));

/** Whether a data folder was made to its end. One of a time before there was a mark has its password beside it. */
function isInstalled(folder: string): boolean {
	const data = join(folder, 'data');
	if (!existsSync(join(data, 'mysql'))) return false;
	return existsSync(mark(folder)) || existsSync(join(folder, 'password')) || holdsTables(data);
}

/**
 * The folder for the temporary files of a data folder, beside it and empty: servers that share one take each other's
 * files away when they start.
 */
export function ownTemporary(data: string): string {
	const folder = join(dirname(data), 'temporary');
	rmSync(folder, { recursive: true, force: true });
	mkdirSync(folder, { recursive: true, mode: 0o700 });
	return folder;
}

/** Runs the program that makes a data folder; gives what it said where it failed. */
function make(data: string, stopping: AbortSignal | undefined): Promise<string | null> {
	const user = process.getuid?.() === 0 ? ['--user=root'] : [];
	return new Promise((resolve) => {
		const child = spawn(
			'mariadb-install-db',
			[
				'--no-defaults',
				`--datadir=${data}`,
				`--tmpdir=${ownTemporary(data)}`,
				'--auth-root-authentication-method=socket',
				'--skip-test-db',
				...user
			],
			{ stdio: ['ignore', 'pipe', 'pipe'], detached: true }
		);
		let words = '';
		for (const stream of [child.stdout, child.stderr])
			stream.setEncoding('utf8').on('data', (text: string) => (words = (words + text).slice(-4000)));
		const end = () => child.pid && process.kill(-child.pid, 'SIGKILL');
		stopping?.addEventListener('abort', end, { once: true });
		child.on('error', (error) => resolve(String(error)));
		child.on('close', (code) => {
			stopping?.removeEventListener('abort', end);
			resolve(code === 0 ? null : words || `It ended with ${code}.`);
		});
	});
}

/**
 * Makes the data folder in `folder` where there is none, or where making it broke off. Both are for their owner alone.
 * Throws a Trouble where it cannot be made, and Stopped where it was stopped.
 */
export async function ensureInstalled(folder: string, stopping?: AbortSignal): Promise<void> {
	mkdirSync(folder, { recursive: true, mode: 0o700 });
	chmodSync(folder, 0o700);
	const data = join(folder, 'data');
	if (!isInstalled(folder)) {
		rmSync(data, { recursive: true, force: true });
		const words = await make(data, stopping);
		if (words !== null) {
			rmSync(data, { recursive: true, force: true });
			if (stopping?.aborted) throw new Stopped();
			throw asTrouble(new Error(words), 'the database is set up');
		}
	}
	chmodSync(data, 0o700);
	writeFileSync(mark(folder), '', { mode: 0o600 });
}
