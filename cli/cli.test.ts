import { execFile, spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, statSync, utimesSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { promisify } from 'node:util';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { parseQuestion } from '../core/kinds/schema';
import { essay } from '../core/test-support/questions';

const root = new URL('..', import.meta.url).pathname;
const sample = (name: string) => join(root, 'core/test-support/samples', name);
let folder = '';
beforeAll(() => {
	folder = mkdtempSync(join(tmpdir(), 'barrow-cli-'));
});
afterAll(() => rmSync(folder, { recursive: true, force: true }));

function barrow(...words: string[]) {
	const { status, stdout, stderr } = spawnSync(join(root, 'barrow'), words, { encoding: 'utf8', cwd: folder });
	return { status, stdout, stderr };
}

describe('./barrow', () => {
	it('says what is in a file, in the plain form', () => {
		const { status, stdout } = barrow('inspect', sample('anchor-item.xml'), '--plain');
		const found = JSON.parse(stdout) as { file: string; questions: { title: string; points: number }[] };
		expect(status).toBe(0);
		expect(found).toMatchObject({ file: 'anchor-item.xml', questions: [{ title: 'Holding ground', points: 4 }] });
	});
	it('gives the same in full as questions of the published form', () => {
		const { stdout } = barrow('inspect', sample('tides-and-charts.zip'), '--json');
		const found = JSON.parse(stdout) as { format: string; questions: unknown[]; reports: { message: string }[] };
		expect(found.format).toBe('QTI 1.2 package');
		expect(found.questions.map(parseQuestion)).toHaveLength(15);
		expect(found.reports.length).toBeGreaterThan(0);
	});
	it('is built anew where its sources are newer, also for several that start at once', async () => {
		const built = join(root, 'build/cli/main.js');
		utimesSync(built, 1, 1);
		const start = () => promisify(execFile)(join(root, 'barrow'), ['inspect', sample('anchor-item.xml'), '--plain']);
		const outputs = await Promise.all([start(), start(), start()]);
		expect(new Set(outputs.map((one) => one.stdout)).size).toBe(1);
		expect(outputs[0].stdout).toContain('Holding ground');
		expect(outputs.map((one) => one.stderr).join('')).toBe('');
		expect(statSync(built).mtimeMs).toBeGreaterThan(2000);
	});
	it('ends with 1 where something is broken, and names the question, the place and what to do', () => {
		const { status, stdout } = barrow('check', sample('weather-damaged.zip'));
		expect(status).toBe(1);
		expect(stdout).toMatch(
			/broken\s+“Falling glass” \(data\/weather\.xml:3\): No option is marked as right\. Mark the key\./
		);
		expect(stdout).toMatch(/14 questions, \d+ broken, \d+ doubtful, \d+ untidy/);
	});
	it('finds categories in which nothing stands, in each of our own forms', () => {
		const bank = join(folder, 'empty.json');
		const question = essay({ category: ['Bridge'] });
		const categories = [['Bridge'], ['Deck'], ['Deck', 'Aft'], ['Bridge', 'Night']];
		writeFileSync(
			bank,
			JSON.stringify({ format: 'yarn-barrow-questions', version: 1, title: 'Watch', questions: [question], categories })
		);
		for (const form of ['json', 'xml', 'archive']) {
			const out = join(folder, `empty.${form}`);
			if (form !== 'json') expect(barrow('convert', bank, out, '--to', form).status).toBe(0);
			const { stdout } = barrow('check', out, '--json', '--only', 'category-empty');
			const { snags } = JSON.parse(stdout) as { snags: { subject: string }[] };
			expect(snags.map(({ subject }) => subject).sort()).toEqual(['Bridge/Night', 'Deck']);
		}
	});
	it('ends without a word where whoever reads it has had enough', () => {
		const file = join(folder, 'many.json');
		const questions = Array.from({ length: 9000 }, (_, at) => ({ id: `question-with-a-long-name-${at}` }));
		writeFileSync(file, JSON.stringify({ questions, parts: [{ draw: 3, pool: {} }] }));
		const { stdout, stderr } = spawnSync('sh', ['-c', '"$0" chances "$1" | head -1', join(root, 'barrow'), file], {
			encoding: 'utf8'
		});
		expect(stdout).toMatch(/different sittings/);
		expect(stderr).toBe('');
	});
	it('ends with 0 where nothing is', () => {
		expect(barrow('check', sample('logbook-folders.zip')).status).toBe(0);
	});
	it('writes a file anew and proves it', () => {
		const out = join(folder, 'out.zip');
		const { status, stdout } = barrow('convert', sample('knots-cartridge.imscc'), out, '--to', 'qti21');
		expect(status).toBe(0);
		expect(stdout).toContain(
			'9 questions: 9 identical, 0 changed as foretold, 0 changed otherwise, 0 missing, 0 left behind'
		);
		expect(readFileSync(out).subarray(0, 2).toString()).toBe('PK');
	});
	it.each([
		[['frobnicate'], 2, 'question banks on the command line'],
		[['inspect', '--nonsense'], 2, 'nonsense'],
		[['inspect', 'not-there.zip'], 3, 'There is no file'],
		[['inspect', '.'], 3, 'a folder']
	])('says in plain words what is wrong with %j', (words, code, said) => {
		const { status, stderr } = barrow(...words);
		expect(status).toBe(code);
		expect(stderr).toContain(said);
		expect(stderr).not.toMatch(/\bat .*\.ts:\d+/);
	});
	it('says that a zip is damaged', () => {
		const path = join(folder, 'cut.zip');
		writeFileSync(path, readFileSync(sample('tides-and-charts.zip')).subarray(0, 900));
		const { status, stderr } = barrow('inspect', path, '--plain');
		expect(status).toBe(3);
		expect(stderr).toContain('The zip file is damaged');
	});
});

describe('./barrow with recipes', () => {
	it('guesses a recipe, and reads the file by it', () => {
		const { status, stdout } = barrow('recipe', 'guess', sample('weather-watch.csv'));
		expect(status).toBe(0);
		const path = join(folder, 'recipe.json');
		writeFileSync(path, stdout);
		const found = JSON.parse(barrow('inspect', sample('weather-watch.csv'), '--plain', '--mapping', path).stdout) as {
			questions: unknown[];
		};
		expect(found.questions).toHaveLength(8);
	});
	it('says what is wrong with a recipe', () => {
		const path = join(folder, 'bad.json');
		writeFileSync(path, '{"colums":{}}');
		const { status, stderr } = barrow('inspect', sample('weather-watch.csv'), '--plain', '--mapping', path);
		expect(status).toBe(3);
		expect(stderr).toContain('cannot be used');
	});

	describe('draw and chances', () => {
		const sheet = (parts: object[]) => {
			const file = join(folder, 'sheet.json');
			const questions = ['a', 'b', 'c'].map((id) => ({ id, category: ['Tides', 'High/low'], points: 1 }));
			writeFileSync(file, JSON.stringify({ questions, parts }));
			return file;
		};
		it('give sittings by seeds that follow, and what students get', () => {
			const file = sheet([{ draw: 2, pool: {} }]);
			const drawn = barrow('draw', file, '--seed', 't-09', '--count', '2', '--json');
			expect(drawn.status).toBe(0);
			const { sittings } = JSON.parse(drawn.stdout) as { sittings: { seed: string; parts: string[][] }[] };
			expect(sittings.map(({ seed }) => seed)).toEqual(['t-09', 't-10']);
			expect(sittings[0]!.parts[0]).toHaveLength(2);
			expect(JSON.parse(barrow('chances', file, '--json').stdout)).toMatchObject({
				feasible: true,
				exact: true,
				sittings: '3',
				questions: { a: { error: 0 } },
				overlap: { expected: expect.closeTo(4 / 3, 6) as number, atLeast: [1, 1, expect.closeTo(1 / 3, 6) as number] },
				points: { least: 2, most: 2, equal: true },
				categories: { 'Tides/High~1low': [0, 0, 1] }
			});
		});
		it('end with 1 where a sheet cannot be filled, with 2 where it is wrong, and with 3 where it cannot be read', () => {
			const short = sheet([{ title: 'Warm-up', draw: 4, pool: {} }]);
			const { status, stdout } = barrow('chances', short, '--json');
			expect(status).toBe(1);
			expect(JSON.parse(stdout)).toMatchObject({
				feasible: false,
				parts: [0],
				message: expect.stringContaining('wants 4') as string
			});
			expect(barrow('draw', short, '--seed', 's')).toMatchObject({ status: 1, stdout: '' });
			const wrong = barrow('chances', sheet([{ draw: -1, pool: {} }]));
			expect(wrong).toMatchObject({ status: 2, stderr: expect.stringContaining('parts[0].draw') as string });
			expect(barrow('draw', sheet([]), '--count', '3').status).toBe(2);
			const broken = join(folder, 'broken.json');
			writeFileSync(broken, '{"questions":');
			expect(barrow('chances', broken).status).toBe(3);
			expect(barrow('chances', join(folder, 'gone.json')).status).toBe(3);
		});
		it('know the quiz of a package', () => {
			const { status, stdout } = barrow('chances', sample('buoyage-draws.zip'), '--json');
			expect(status).toBe(0);
			expect(JSON.parse(stdout)).toMatchObject({ feasible: true, exact: true });
		});
	});
});
