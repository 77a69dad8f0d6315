import { describe, expect, it } from 'vitest';
import { bounds } from '../model/bounds';
import { recipeLimits } from './recipe/limits';
import { opened, readAll, readBare } from '../test-support/packages';

const letters = (count: number, of = 'a') => of.repeat(count);
const item12 = (body: string, title = 'Tides') =>
	`<?xml version="1.0"?><questestinterop><item ident="t1" title="${title}">${body}</item></questestinterop>`;
const choices12 = (count: number) =>
	item12(
		`<presentation><material><mattext>Which is right?</mattext></material><response_lid ident="r"><render_choice>${Array.from(
			{ length: count },
			(_, at) => `<response_label ident="o${at}"><material><mattext>Answer ${at}</mattext></material></response_label>`
		).join('')}</render_choice></response_lid></presentation>`
	);

describe('what is too large to be worked with', () => {
	it('is kept with the reason where a question has thousands of options', async () => {
		const { questions } = await readBare('options.xml', choices12(bounds.options + 5));
		expect(questions).toHaveLength(1);
		expect(questions[0]).toMatchObject({ kind: 'unreadable', title: 'Tides' });
		expect((questions[0] as { reason: string }).reason).toContain('1,005 options');
	});
	it('is read as it is up to the bound', async () => {
		const { questions } = await readBare('options.xml', choices12(bounds.options));
		expect(questions[0]!.kind).not.toBe('unreadable');
	});
	it('is kept with the reason where a title is a book, and says what to do', async () => {
		const long = await readBare('title.xml', choices12(3).replace('Tides', letters(bounds.title + 1)));
		expect(long.questions).toHaveLength(1);
		expect((long.questions[0] as { reason: string }).reason).toMatch(/2,001 letters[\s\S]*Make several of it/);
		expect(long.questions[0]!.title.length).toBeLessThan(300);
	});
	it('does not end the reading of what stands beside it', async () => {
		const { questions } = await readBare(
			'two.json',
			JSON.stringify([
				{ question: letters(bounds.markup + 10), answer: 'ebb' },
				{ question: 'What is falling water called?', answer: 'ebb' }
			])
		);
		expect(questions.map(({ kind }) => kind)).toEqual(['unreadable', 'short-answer']);
	});
	it('is a table of thousands of columns or cells of a book, which ends with words and not with the memory', async () => {
		const wide = await readBare(
			'wide.csv',
			`question,answer\nWhat falls?,ebb${letters(bounds.columns + 500, ',')}\nWhat rises?,tide\n`
		);
		expect(wide.questions.map(({ stem }) => stem).join()).toBe('What falls?,What rises?');
		expect(wide.about.get('What falls?')!.length).toBeGreaterThan(0);
		const cell = await readBare('cell.csv', `question,answer\n"${letters(bounds.cell + 5)}",ebb\nWhat rises?,tide\n`);
		expect(cell.questions.map(({ stem }) => stem).join()).toContain('What rises?');
	});
});

describe('signs that nobody sees', () => {
	it('are out of every text, and are said', async () => {
		const { questions, about } = await readBare(
			'signs.json',
			JSON.stringify([{ question: 'What ri\u0001ses?', answer: 'ti\ud800de' }])
		);
		expect(JSON.stringify(questions)).not.toMatch(/\\u0001|\\ud800/);
		expect(JSON.stringify(questions)).toContain('\ufffd');
		expect([...about.values()].flat().map(({ rule }) => rule)).toContain('odd-signs');
	});
	it('are said of the stem and the options alone as well', async () => {
		const { questions, about } = await readBare(
			'signs.json',
			JSON.stringify([{ question: 'half \ud83d of it?', options: ['a\u0007', 'b'], answer: 'b' }])
		);
		expect(questions[0]!.stem).toContain('\ufffd');
		expect([...about.values()].flat().map(({ rule }) => rule)).toContain('odd-signs');
	});
	it('do not turn the words of a message round', async () => {
		const { reports } = await readAll(await opened({ 'a\u202egnp.xml': '<questestinterop><item' }));
		expect(reports.map(({ message, place }) => message + (place?.file ?? '')).join()).not.toContain('\u202e');
	});
	it('do not hide a list of questions, where a text has NULs in it', async () => {
		const { questions } = await readBare('nul.txt', '1. What rises?\u0000\na) tide\nb) stone\nAnswer: a\n');
		expect(questions).toHaveLength(1);
	});
});

describe('a zip with nothing in it', () => {
	it('says so', async () => {
		const { questions, reports } = await readAll(await opened({}));
		expect(questions).toEqual([]);
		expect(reports.map(({ message }) => message).join()).toMatch(/nothing|empty|no files/i);
	});
});

describe('a file that is read by a recipe', () => {
	it('is read in time that grows with its size and no faster, in its own order', async () => {
		const list = Array.from(
			{ length: 12_000 },
			(_, at) => `<question><text>Which buoy is number ${at}?</text><answer>b${at}</answer></question>`
		).join('');
		const { questions } = await readBare('list.xml', `<list>${list}</list>`);
		expect(questions).toHaveLength(12_000);
		expect(questions[11_999]!.stem).toContain('11999');
	});
	it.each([
		['XML', 'many.xml', `<list>${letters(recipeLimits.elements + 1, '<q/>')}</list>`],
		['JSON', 'many.json', `[${letters(recipeLimits.values, '{},')}{}]`]
	])('is not read where it has too many parts of %s, and says how many are', async (_, name, content) => {
		const { questions, reports } = await readBare(name, content);
		expect(questions).toEqual([]);
		expect(reports.map(({ message }) => message).join()).toMatch(/more than [\d,]+ (?:elements|values)[\s\S]*apart/);
	});
});

describe('nesting without end', () => {
	it.each([
		['JSON', 'deep.json', letters(200_000, '[')],
		['XML', 'deep.xml', `<?xml version="1.0"?>${letters(100_000, '<q>')}`],
		['HTML', 'deep.xml', choices12(3).replace('Which is right?', `<![CDATA[${letters(50_000, '<b>')}?]]>`)]
	])('of %s is answered in words', async (_, name, content) => {
		const { questions, reports } = await readBare(name, content);
		expect(reports.length + questions.length).toBeGreaterThan(0);
	});
});
