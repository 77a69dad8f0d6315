import { execFileSync, spawnSync } from 'node:child_process';
import { cpSync, mkdirSync, mkdtempSync, rmSync, symlinkSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { afterAll, describe, expect, it } from 'vitest';

const root = new URL('..', import.meta.url).pathname.replace(/\/$/, '');
const clones: string[] = [];
afterAll(() => {
	for (const clone of clones) rmSync(clone, { recursive: true, force: true });
});

/** What a clone holds: the files of the project that fit, and nothing that was built; its packages are those of npm ci. */
function cloneOf(wanted: RegExp): string {
	const clone = mkdtempSync(join(tmpdir(), 'barrow-clone-'));
	clones.push(clone);
	const files = execFileSync('git', ['ls-files', '--cached', '--others', '--exclude-standard', '-z'], { cwd: root })
		.toString()
		.split('\0')
		.filter((path) => path && wanted.test(path));
	for (const path of files) {
		mkdirSync(dirname(join(clone, path)), { recursive: true });
		cpSync(join(root, path), join(clone, path), { preserveTimestamps: true });
	}
	symlinkSync(join(root, 'node_modules'), join(clone, 'node_modules'));
	return clone;
}

describe('a fresh clone', () => {
	it('runs the command line as its first command, and reads what the project itself reads', () => {
		const clone = cloneOf(
			/^(barrow$|cli\/|core\/|src\/app|src\/lib\/server\/files\/(?:codec|digest|drawings|smaller)|package|svelte\.config|tsconfig|vite)/
		);
		const sample = join(root, 'core/test-support/samples/tides-and-charts.zip');
		const inspect = (at: string) =>
			spawnSync(join(at, 'barrow'), ['inspect', sample, '--plain'], { cwd: tmpdir(), encoding: 'utf8' });
		const fresh = inspect(clone);
		expect(fresh.stderr).not.toMatch(/not found|error/i);
		expect(fresh.status).toBe(0);
		expect(fresh.stdout).toBe(inspect(root).stdout);
		expect((JSON.parse(fresh.stdout) as { questions: unknown[] }).questions).toHaveLength(15);
	}, 120_000);
	it('starts as its first command: it gets as far as the settings, which are wrong here', () => {
		const clone = cloneOf(/^(?!e2e\/|docs\/|bench\/)/);
		const started = spawnSync(join(clone, 'start'), {
			cwd: tmpdir(),
			encoding: 'utf8',
			env: { ...process.env, PORT: 'abc' }
		});
		expect(`${started.stdout}${started.stderr}`).toContain('PORT has to be a number');
		expect(`${started.stdout}${started.stderr}`).not.toMatch(/Cannot find|MODULE/);
	}, 120_000);
});
