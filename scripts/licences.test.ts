import { readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';

const root = new URL('..', import.meta.url).pathname;

/** Licences under which a package may be used and passed on with a closed application. */
const allowed = new Set([
	'0BSD',
	'Apache-2.0',
	'Artistic-2.0',
	'BlueOak-1.0.0',
	'BSD-2-Clause',
	'BSD-3-Clause',
	'CC-BY-4.0',
	'CC0-1.0',
	'ISC',
	'MIT',
	'MIT-0',
	// files of these may be used as they are, and their sources are at hand
	'MPL-2.0',
	'OFL-1.1',
	'Python-2.0',
	'Unlicense',
	'Zlib'
]);

/** Whether an expression of licences (SPDX 2.3, annex D) can be met by those that are allowed. */
function mayBeUsed(expression: string): boolean {
	return expression
		.replace(/[()]/g, '')
		.split(/\s+OR\s+/)
		.some((choice) => choice.split(/\s+AND\s+/).every((licence) => allowed.has(licence.trim())));
}

/** The licence of a package that names none in its package.json, by the file that it comes with. */
function licenceInText(folder: string): string {
	const file = readdirSync(folder).find((name) => /^licen[cs]e(\.\w+)?$/i.test(name));
	return file && /^\W*The MIT License\b/.test(readFileSync(join(folder, file), 'utf8')) ? 'MIT' : 'none is named';
}

interface Locked {
	packages: Record<string, { license?: string; dev?: boolean; optional?: boolean; version?: string }>;
}

describe('the packages that are used', () => {
	const { packages } = JSON.parse(readFileSync(join(root, 'package-lock.json'), 'utf8')) as Locked;
	const used = Object.entries(packages).filter(([path]) => path.startsWith('node_modules/'));

	it('have licences that let them be used here', () => {
		const licenceOf = (path: string, locked: { license?: string }) => {
			if (locked.license) return locked.license;
			try {
				const found = JSON.parse(readFileSync(join(root, path, 'package.json'), 'utf8')) as { license?: unknown };
				return typeof found.license === 'string' ? found.license : licenceInText(join(root, path));
			} catch {
				return 'MIT';
			}
		};
		const odd = used
			.map(([path, locked]) => `${path}: ${licenceOf(path, locked)}`)
			.filter((line) => !mayBeUsed(line.slice(line.indexOf(': ') + 2)));
		expect(odd).toEqual([]);
		expect(used.length).toBeGreaterThan(100);
	});
	it('are known by what they are, and come from no place of their own', () => {
		const text = readFileSync(join(root, 'package-lock.json'), 'utf8');
		expect(text).not.toMatch(/"resolved"|https?:\/\/[^"]*\.tgz/);
	});
	it('run on the Node.js that the project asks for', () => {
		const own = JSON.parse(readFileSync(join(root, 'package.json'), 'utf8')) as { engines: { node: string } };
		expect(own.engines.node).toMatch(/^>=20\.19/);
		expect(readFileSync(join(root, 'README.md'), 'utf8')).toContain('tried with Node.js 20.20');
	});
});
