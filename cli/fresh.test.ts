import { execFileSync, spawnSync } from 'node:child_process';
import { cpSync, mkdirSync, mkdtempSync, rmSync, symlinkSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { afterAll, describe, expect, it } from 'vitest';

const root = new URL('..', import.meta.url).pathname.replace(/\/$/, '');
const clone = mkdtempSync(join(tmpdir(), 'barrow-clone-'));
afterAll(() => rmSync(clone, { recursive: true, force: true }));

describe('a fresh clone', () => {
	it('runs the command line as its first command, and reads what the project itself reads', () => {
		// what a clone holds: the files of the project, and nothing that was built; its packages are those of npm ci
		const files = execFileSync('git', ['ls-files', '--cached', '--others', '--exclude-standard', '-z'], { cwd: root })
			.toString()
			.split('\0')
			.filter((path) =>
				/^(barrow$|cli\/|core\/|src\/app|src\/lib\/server\/files\/(?:codec|digest)|package|svelte\.config|tsconfig|vite)/.test(
					path
				)
			);
		for (const path of files) {
			mkdirSync(dirname(join(clone, path)), { recursive: true });
			cpSync(join(root, path), join(clone, path));
		}
		symlinkSync(join(root, 'node_modules'), join(clone, 'node_modules'));
		const sample = join(root, 'core/test-support/samples/tides-and-charts.zip');
		const inspect = (at: string) =>
			spawnSync(join(at, 'barrow'), ['inspect', sample, '--plain'], { cwd: tmpdir(), encoding: 'utf8' });
		const fresh = inspect(clone);
		expect(fresh.stderr).not.toMatch(/not found|error/i);
		expect(fresh.status).toBe(0);
		expect(fresh.stdout).toBe(inspect(root).stdout);
		expect((JSON.parse(fresh.stdout) as { questions: unknown[] }).questions).toHaveLength(15);
	}, 120_000);
});
