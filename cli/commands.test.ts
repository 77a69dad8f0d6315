import { existsSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Jimp } from 'jimp';
import { afterAll, afterEach, beforeAll, describe, expect, it, vi } from 'vitest';
import { writtenFormats } from '../core/formats';
import { zipped } from '../core/test-support/packages';
import type { Options } from './command';
import { commands } from './commands';

const sample = (name: string) => new URL(`../core/test-support/samples/${name}`, import.meta.url).pathname;
let folder = '';
beforeAll(() => {
	folder = mkdtempSync(join(tmpdir(), 'barrow-commands-'));
});
afterAll(() => rmSync(folder, { recursive: true, force: true }));
afterEach(() => vi.restoreAllMocks());

/** Runs a command here, and gives its exit code with what it says. */
async function run(name: string, files: string[], options: Options = {}) {
	const said: string[] = [];
	const hear = (text: unknown) => {
		said.push(String(text));
		return true;
	};
	vi.spyOn(process.stdout, 'write').mockImplementation(hear);
	vi.spyOn(process.stderr, 'write').mockImplementation(hear);
	const status = await commands.get(name)!.run(files, options);
	vi.restoreAllMocks();
	return { status, words: said.join('') };
}
const counts = (words: string) => {
	const found =
		/(\d+) questions(?:, written as \d+)?: (\d+) identical, (\d+) changed as foretold, (\d+) changed otherwise, (\d+) missing, (\d+) left behind/.exec(
			words
		)!;
	const [all, identical, foretold, otherwise, missing, left] = found.slice(1).map(Number) as [
		number,
		number,
		number,
		number,
		number,
		number
	];
	return { all, identical, foretold, otherwise, missing, left };
};

describe('convert', () => {
	for (const { name, ending } of writtenFormats)
		it(`writes every kind of question as ${name}, and finds each of them again or has said what becomes of it`, async () => {
			const out = join(folder, `kinds-${name}${ending}`);
			const { status, words } = await run('convert', [sample('harbour-kinds.zip'), out], { to: name });
			const found = counts(words);
			expect(found).toMatchObject({ all: 21, otherwise: 0, missing: 0 });
			expect(found.identical + found.foretold + found.left).toBeGreaterThanOrEqual(21);
			expect(status).toBe(0);
			expect(existsSync(`${out}.part`)).toBe(false);
			for (const line of words.split('\n').filter((one) => /^(changed-as-foretold|left behind)/.test(one)))
				expect(line).toMatch(/: \S/);
		});
	it.each(writtenFormats.map(({ name }) => name))(
		'keeps as %s what it has said, also where pictures share their content, blanks stand in a table, and an item was not read',
		async (name) => {
			const space = 'xmlns="http://www.imsglobal.org/xsd/imsqti_v2p1"';
			const item = (id: string, inner: string) =>
				`<assessmentItem ${space} identifier="${id}" title="${id}" adaptive="false" timeDependent="false">${inner}</assessmentItem>`;
			const response = (id: string, cardinality: string, keys: string[]) =>
				`<responseDeclaration identifier="${id}" cardinality="${cardinality}" baseType="${cardinality === 'single' ? 'string' : 'identifier'}"><correctResponse>${keys.map((key) => `<value>${key}</value>`).join('')}</correctResponse></responseDeclaration>`;
			const same = new TextEncoder().encode('<svg xmlns="http://www.w3.org/2000/svg"/>');
			const path = join(folder, 'odd.zip');
			writeFileSync(
				path,
				zipped({
					'drawn.xml': item(
						'drawn',
						`<itemBody><drawingInteraction responseIdentifier="R"><object data="plan.svg" type="image/svg+xml"/></drawingInteraction><p><img src="chart.svg" alt=""/></p></itemBody>`
					),
					'table.xml': item(
						'table',
						`${response('A', 'single', ['N'])}${response('B', 'single', ['S'])}<itemBody><table><tbody><tr><td>Up</td><td><textEntryInteraction responseIdentifier="A"/></td></tr><tr><td>Down</td><td><textEntryInteraction responseIdentifier="B"/></td></tr></tbody></table></itemBody>`
					),
					'some.xml': item(
						'some',
						`${response('R', 'ordered', ['b', 'a'])}<itemBody><orderInteraction responseIdentifier="R" shuffle="true"><prompt>The first two.</prompt>${['a', 'b', 'c'].map((id) => `<simpleChoice identifier="${id}">${id} it</simpleChoice>`).join('')}</orderInteraction></itemBody>`
					),
					'plan.svg': same,
					'chart.svg': same
				})
			);
			const out = join(folder, `odd-${name}`);
			const { status, words } = await run('convert', [path, out], { to: name });
			expect(words).not.toMatch(/^(changed-otherwise|missing)/m);
			expect(status).toBe(0);
		}
	);
	it.each(['qti21', 'json', 'xlsx', 'archive'])('gives the same bytes as %s each time', async (name) => {
		const [first, second] = ['a', 'b'].map((mark) => join(folder, `${mark}-${name}`));
		await run('convert', [sample('chart-library.zip'), first!], { to: name });
		await run('convert', [sample('chart-library.zip'), second!], { to: name });
		expect(readFileSync(first!).equals(readFileSync(second!))).toBe(true);
	});
	it('takes a quiz along with its draws where the standard has them', async () => {
		const out = join(folder, 'paper.zip');
		await run('convert', [sample('seamanship-paper.zip'), out], { to: 'qti30' });
		const quizzes = async (file: string) =>
			(
				JSON.parse((await run('inspect', [file], { plain: true })).words) as {
					quizzes: { title: string; parts: { draw?: number }[] }[];
				}
			).quizzes.map((quiz) => [quiz.title, quiz.parts.map((part) => part.draw ?? null)]);
		// one part draws four of the three that it holds, and more than there are cannot be delivered
		const [[title, draws]] = (await quizzes(sample('seamanship-paper.zip'))) as [[string, (number | null)[]]];
		expect(await quizzes(out)).toEqual([[title, draws.map((draw) => (draw === 4 ? 3 : draw))]]);
	});
	it.each([
		['qti12', 'The part “Knots” does not give its 2 points each: the questions keep their own.'],
		['cc13', 'The part “Knots” gives all of its 4 questions instead of drawing 2.'],
		['csv', '1 quiz: 0 written, 1 left behind'],
		['qti21', 'The part “Rules of the road” draws 4 of 3; 3 is written']
	])('says what becomes of a quiz as %s', async (to, words) => {
		const { words: said } = await run('convert', [sample('seamanship-paper.zip'), join(folder, `paper.${to}`)], { to });
		expect(said).toContain(words);
	});
	it('writes as many numeric questions for a calculated one as are asked for', async () => {
		const out = join(folder, 'sums.csv');
		const once = counts((await run('convert', [sample('tide-marking.zip'), out], { to: 'csv' })).words);
		const more = counts(
			(await run('convert', [sample('tide-marking.zip'), out], { to: 'csv', 'worked-out': '3' })).words
		);
		const { words: said } = await run('convert', [sample('tide-marking.zip'), out], { to: 'csv', 'worked-out': '3' });
		const written = Number(/, written as (\d+):/.exec(said)?.[1]);
		// the numbers of the last line add up
		expect(more.identical + more.foretold + more.otherwise + more.missing).toBe(written);
		expect(more).toMatchObject({ otherwise: 0, missing: 0, left: once.left });
		expect(more.foretold - once.foretold).toBe(4);
	});
	it('writes questions for paper, as a page with its pictures in it and as a Word document, and their keys', async () => {
		const page = join(folder, 'kinds.html');
		const { status, words } = await run('convert', [sample('harbour-kinds.zip'), page], { to: 'paper' });
		expect(status).toBe(0);
		const said = Number(/(\d+) questions written for paper/.exec(words)?.[1]);
		const html = readFileSync(page, 'utf8');
		expect(html.match(/<section>/g)).toHaveLength(said);
		expect(html).toContain('Name ____');
		expect(html).not.toContain('src=""');
		const keys = join(folder, 'keys.html');
		await run('convert', [sample('harbour-kinds.zip'), keys], { to: 'paper', keys: true, paper: 'letter' });
		expect(readFileSync(keys, 'utf8')).toMatch(/size:letter[\s\S]*: the key/);
		const document = join(folder, 'kinds.docx');
		await run('convert', [sample('harbour-kinds.zip'), document], { to: 'paper-docx' });
		expect(readFileSync(document).subarray(0, 2).toString()).toBe('PK');
	});
	it.each([
		[{ to: 'stone' }, '--to qti21'],
		[{}, '--to qti21'],
		[{ to: 'qti21', 'worked-out': '0' }, '--worked-out 5'],
		[{ to: 'qti21', 'worked-out': 'many' }, '--worked-out 5']
	])('called with %j says what it wants, and writes nothing', async (options, said) => {
		const out = join(folder, 'nothing.zip');
		const { status, words } = await run('convert', [sample('anchor-item.xml'), out], options);
		expect(status).toBe(2);
		expect(words).toContain(said);
		expect(existsSync(out)).toBe(false);
	});
	it('leaves nothing behind where the file cannot be read', async () => {
		const cut = join(folder, 'cut.zip');
		writeFileSync(cut, readFileSync(sample('chart-library.zip')).subarray(0, 500));
		const out = join(folder, 'from-cut.zip');
		await expect(run('convert', [cut, out], { to: 'qti21' })).rejects.toThrow('The zip file is damaged');
		expect(existsSync(out)).toBe(false);
		expect(existsSync(`${out}.part`)).toBe(false);
	});
});

describe('compare', () => {
	const text = (name: string, words: string) => {
		const path = join(folder, name);
		writeFileSync(path, words);
		return path;
	};
	const knots =
		'1. Which knot makes a loop?\n*A. Bowline\nB. Reef knot\n\n2. Which knot joins two ropes?\n*A. Sheet bend\nB. Clove hitch\n';
	it('finds a file the same as itself', async () => {
		const path = text('a.txt', knots);
		expect(await run('compare', [path, path])).toMatchObject({
			status: 0,
			words: expect.stringContaining('2 the same, 0 changed')
		});
	});
	it('says what was changed, and what is only here or only there', async () => {
		const here = text('here.txt', knots);
		const there = text(
			'there.txt',
			knots
				.replace('B. Reef knot', 'B. Granny knot')
				.replace(/2\. [\s\S]*$/, '2. Name the end you hold.\nAnswer: working end\n')
		);
		const { status, words } = await run('compare', [here, there]);
		expect(status).toBe(1);
		expect(words).toContain('Reef knot');
		expect(words).toContain('Granny knot');
		expect(words).toMatch(/only in .*here\.txt {2}“Which knot joins two ropes\?”/);
		expect(words).toMatch(/only in .*there\.txt {2}“Name the end you hold\.”/);
	});
	it('gives the same as JSON', async () => {
		const path = text('b.txt', knots);
		const { words } = await run('compare', [path, sample('anchor-item.xml')], { json: true });
		const found = JSON.parse(words) as { same: number; onlyBefore: unknown[]; onlyAfter: unknown[] };
		expect([found.same, found.onlyBefore.length, found.onlyAfter.length]).toEqual([0, 2, 1]);
	});
});

describe('recipe', () => {
	it('is guessed for JSON, and reads the file', async () => {
		const { status, words } = await run('recipe', ['guess', sample('moorings.json')]);
		expect(status).toBe(0);
		expect(JSON.parse(words)).toMatchObject({ record: expect.any(String), stem: expect.anything() });
	});
	it('says so where nothing reads like questions', async () => {
		const path = join(folder, 'log.json');
		writeFileSync(path, '[{"wind":5},{"wind":6}]');
		expect(await run('recipe', ['guess', path])).toMatchObject({
			status: 1,
			words: expect.stringContaining('no recipe could be guessed')
		});
	});
	it('wants to be told what to do', async () => {
		expect((await run('recipe', ['make', 'x.json'])).status).toBe(2);
	});
});

describe('check', () => {
	it('tells what is broken first, and counts', async () => {
		const { status, words } = await run('check', [sample('radio-damaged.zip')]);
		expect(status).toBe(1);
		const kinds = words
			.trim()
			.split('\n')
			.slice(0, -1)
			.map((line) => /^\w+/.exec(line)![0]);
		const rank = ['broken', 'doubtful', 'untidy'];
		expect(kinds).toEqual([...kinds].sort((a, b) => rank.indexOf(a) - rank.indexOf(b)));
		expect(words).toContain(`${kinds.filter((kind) => kind === 'broken').length} broken`);
	});
	it('prints each finding as JSON, with its question, its place and its mend', async () => {
		const { status, words } = await run('check', [sample('radio-damaged.zip')], { json: true });
		expect(status).toBe(1);
		const { snags, questions } = JSON.parse(words) as { snags: Record<string, unknown>[]; questions: number };
		expect(questions).toBe(13);
		expect(snags.map((snag) => Object.keys(snag).join()).filter((keys, at, all) => all.indexOf(keys) === at)).toEqual([
			'check,severity,question,message,words,file,line,mend'
		]);
		const broken = snags.find((snag) => snag.check === 'unreadable')!;
		expect(broken).toMatchObject({ severity: 'broken', question: 'RD-05', line: expect.any(Number) });
		expect(broken.mend).toMatch(/right/);
		expect(snags.filter((snag) => snag.check === 'no-key').every((snag) => snag.mend === null)).toBe(true);
	});
	it('runs only the checks that are named, and says which there are where one is not', async () => {
		const { words } = await run('check', [sample('radio-damaged.zip')], {
			json: true,
			only: 'unreadable, picture-missing'
		});
		const { snags } = JSON.parse(words) as { snags: { check: string }[] };
		expect(new Set(snags.map((snag) => snag.check))).toEqual(new Set(['unreadable', 'picture-missing']));
		for (const only of ['no-such-check', 'constructor', ','])
			expect(await run('check', [sample('radio-damaged.zip')], { only })).toMatchObject({ status: 2 });
		const none = await run('check', [sample('radio-damaged.zip')], { only: 'typed-numbering' });
		expect(none).toMatchObject({ status: 0, words: expect.stringContaining('13 questions, 0 broken') });
	});
	it('mends pictures: a huge one becomes smaller, and one that is not there is found where it stands', async () => {
		const png = await new Jimp({ width: 3000, height: 30, color: 0x3366ffff }).getBuffer('image/png');
		const item = (ident: string, picture: string) =>
			`<item ident="${ident}" title="${ident}"><presentation><material><mattext texttype="text/html">Which? &lt;img src="${picture}" alt="A chart"/&gt;</mattext></material><response_str ident="R" rcardinality="Single"><render_fib/></response_str></presentation></item>`;
		const file = join(folder, 'pictures.zip');
		writeFileSync(
			file,
			zipped({
				'bank.xml': `<questestinterop>${item('huge', 'a/huge.png')}${item('moved', 'b/plan.png')}</questestinterop>`,
				'a/huge.png': png,
				'c/Plan.png': png
			})
		);
		const to = join(folder, 'mended.zip');
		const found = async (of: string) =>
			(
				JSON.parse((await run('check', [of], { json: true, only: 'picture-huge,picture-missing' })).words) as {
					snags: { check: string; question: string; mend: string | null }[];
				}
			).snags.map(({ check, question, mend }) => [check, question, mend !== null]);
		expect(await found(file)).toEqual([
			['picture-huge', 'huge', true],
			['picture-missing', 'moved', true]
		]);
		const done = await run('check', [file, to], { mend: 'picture-missing,picture-huge', to: 'qti21' });
		expect(done.words).toContain('picture-missing: 1 question mended');
		expect(done.words).toContain('picture-huge: 1 question mended');
		expect(done.status).toBe(0);
		// what was found where it stands is as large as it was
		expect(await found(to)).toEqual([['picture-huge', 'moved', true]]);
	});
});
