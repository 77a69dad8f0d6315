import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, readFileSync, readdirSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { asTrouble, say, Stopped, Trouble } from './words';

const sources = [
	'core',
	'src',
	'static',
	'package-lock.json',
	'svelte.config.js',
	'vite.config.ts',
	'vite.workers.config.ts'
];

function files(path: string): string[] {
	if (!statSync(path).isDirectory()) return [path];
	return readdirSync(path)
		.sort()
		.flatMap((name) => files(join(path, name)));
}

/** Builds the application where its sources have changed since it was built last. */
export function buildIfStale(root: string): void {
	const hash = createHash('sha256');
	for (const path of sources.flatMap((name) => files(join(root, name))))
		if (!path.endsWith('.test.ts')) hash.update(path.slice(root.length)).update(readFileSync(path));
	const wanted = hash.digest('hex');
	const mark = join(root, 'build', 'built-from');
	if (existsSync(mark) && readFileSync(mark, 'utf8') === wanted && existsSync(join(root, 'build/threads/job.js')))
		return;
	say('Building …');
	const built = spawnSync('npm', ['run', 'build', '--silent'], {
		cwd: root,
		encoding: 'utf8',
		env: { ...process.env, NODE_ENV: 'production' }
	});
	if (built.signal) throw new Stopped();
	if (built.status !== 0) {
		const words = `${built.stdout ?? ''}${built.stderr ?? ''}`;
		const trouble = asTrouble(new Error(words), 'the application is built');
		throw trouble instanceof Trouble
			? trouble
			: new Trouble(`The build failed:\n${words.trim().split('\n').slice(-25).join('\n')}`);
	}
	writeFileSync(mark, wanted);
}
