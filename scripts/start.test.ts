import { spawnSync } from 'node:child_process';
import { describe, expect, it } from 'vitest';
import { asDatabaseTrouble } from './database/given';
import { startSettings } from './settings';
import { asTrouble, Trouble } from './words';

const root = new URL('..', import.meta.url).pathname;
const begin = (environment: Record<string, string>) => {
	const { DATABASE_URL: _, ...others } = process.env;
	const done = spawnSync('node', ['--import', 'tsx', 'scripts/start.ts'], {
		cwd: root,
		env: { ...others, ...environment },
		encoding: 'utf8',
		// ends one that goes on by mistake; not a measure of the machine
		timeout: 150_000
	});
	return { status: done.status, words: `${done.stdout}${done.stderr}` };
};

describe('a start that cannot be', () => {
	it.each([
		[{ PORT: 'abc' }, 'PORT has to be a number'],
		[{ PORT: '70000' }, 'PORT has to be between 0 and 65535'],
		[{ DEMO: 'maybe' }, 'DEMO has to be 1 or 0'],
		[{ JOB_THREADS: 'x' }, 'JOB_THREADS has to be a whole number from 0 to 32'],
		[{ DATABASE_URL: 'x' }, 'DATABASE_URL is no address of a database'],
		[{ DATABASE_URL: 'postgres://a:b@127.0.0.1/x' }, 'a database of another kind'],
		[{ DATABASE_URL: 'mysql://a:b@127.0.0.1:1' }, 'its name is missing'],
		[{ DATABASE_URL: 'mysql://a:b@127.0.0.1:1/x' }, 'does not answer'],
		[{ DATABASE_URL: 'mysql://a:b@127.0.0.1/../x' }, 'DATABASE_URL']
	])('says what is wrong and what to do: %j', (environment, words) => {
		const done = begin(environment);
		expect(done.status).toBe(1);
		expect(done.words).toContain(words);
		expect(done.words, 'no trace of its insides').not.toMatch(/\n\s+at |node_modules/);
	});
	it.each([
		[{ code: 'ENOSPC', message: 'x' }, 'The disk is full'],
		[{ message: 'ERROR: write failed, No space left on device' }, 'The disk is full'],
		[{ code: 'EACCES', message: 'x', path: '/srv/var' }, 'no right to write while it starts (/srv/var)'],
		[{ code: 'EROFS', message: 'x' }, 'can only be read'],
		[{ code: 'ENOTDIR', message: 'x', path: '/srv/var' }, 'a file where a folder has to be']
	])('says what the system lacks: %j', (error, words) => {
		const trouble = asTrouble(error, 'it starts');
		expect(trouble).toBeInstanceOf(Trouble);
		expect(trouble.message).toContain(words);
	});
	it.each([
		['ER_OPTION_PREVENTS_STATEMENT', 'can only be read'],
		['ER_TABLEACCESS_DENIED_ERROR', 'may not make tables'],
		['ER_RECORD_FILE_FULL', 'disk of the database is full']
	])('says what the database does not do: %s', (code, words) => {
		expect(asDatabaseTrouble({ code, message: 'x' }).message).toContain(words);
	});
});

describe('the demo', () => {
	it('is filled in where only this machine is reached, and nowhere else unless it is asked for', () => {
		expect(startSettings({}).demo).toBe(true);
		expect(startSettings({ HOST: '::1' }).demo).toBe(true);
		expect(startSettings({ HOST: '0.0.0.0' }).demo).toBe(false);
		expect(startSettings({ HOST: '0.0.0.0', DEMO: '1' }).demo).toBe(true);
		expect(startSettings({ DEMO: '0' }).demo).toBe(false);
	});
});
