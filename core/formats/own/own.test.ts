import { describe, expect, it } from 'vitest';
import { differences } from '../../compare/canonical';
import { choice, essay, short } from '../../test-support/questions';
import { readBare, opened, readAll } from '../../test-support/packages';
import { attachment, back, written } from '../../test-support/written';
import { writtenFormat } from '..';
import type { QuizToWrite } from '../../model/quiz';

const questions = [
	choice({
		identifier: 'A-1',
		stem: `Which sign? <img src="media:${attachment.name.replace('&', '&amp;')}" alt="a sign"/>`,
		attachments: [attachment],
		stimulus: { identifier: 'S', title: 'Forecast', content: 'Rain.' },
		metadata: [{ name: 'shelf', value: ' two  spaces ' }]
	}),
	short([{ text: ' ebb\ttide', credit: 1, caseSensitive: true, match: 'contains' }], { title: 'Line\nbreak' }),
	essay()
];
const quiz: QuizToWrite = {
	identifier: 'QZ',
	title: 'Week 6',
	parts: [{ title: 'One', questions: [0, 1], draw: 1, pointsEach: 2, shuffle: true }]
};

describe.each(['json', 'xml', 'archive'] as const)('our own %s', (name) => {
	const format = writtenFormat(name)!;
	it('is known by its beginning, however long it is', async () => {
		const { container } = await back(await written(format, questions), `bank${format.ending}`);
		const long = { ...container, size: (path: string) => container.size(path) + 100 * 2 ** 20 };
		const short = await readAll(container);
		expect(await readAll(long)).toMatchObject({ questions: short.questions });
		expect(short.questions.map(({ kind, identifier }) => [kind, identifier])).toEqual(
			questions.map(({ kind, identifier }) => [kind, identifier])
		);
	});
	it('brings everything back: words, pictures, quizzes', async () => {
		const { container, found } = await back(await written(format, questions, [quiz]), `bank${format.ending}`);
		expect(found.questions.map((question, at) => differences(questions[at]!, question))).toEqual([[], [], []]);
		expect(found.quizzes).toMatchObject([
			{
				title: 'Week 6',
				parts: [{ title: 'One', draw: 1, pointsEach: 2, shuffle: true, questions: [{ identifier: 'A-1' }, {}] }]
			}
		]);
		const [picture] = found.questions[0]!.attachments;
		expect(picture).toMatchObject({ missing: false, hash: attachment.hash });
		expect((await container.bytes(picture!.name)).length).toBeGreaterThan(10);
	});
	it('keeps categories in which nothing stands, and what is no category is passed over', async () => {
		const categories = [['Tides'], ['Tides', ' Springs & neaps '], ['__proto__']];
		const bytes = await written(format, questions, [], undefined, categories);
		const { found } = await back(bytes, `bank${format.ending}`);
		expect(found.events.flatMap((event) => (event.type === 'category' ? [event.path] : []))).toEqual([
			['Tides'],
			['Tides', 'Springs & neaps'],
			['__proto__']
		]);
		const odd = await written(format, questions, [], undefined, [[], [''], ['A', 7]] as never);
		expect((await back(odd, `bank${format.ending}`)).found.events.some(({ type }) => type === 'category')).toBe(false);
	});
	it('is called by its name alone', async () => {
		const { found } = await back(await written(format, questions), `bank${format.ending}`);
		const [event] = found.events.filter((one) => one.type === 'format');
		expect(event).toMatchObject({ title: format.title });
	});
	it('keeps the identifiers', async () => {
		const { found } = await back(await written(format, questions), `bank${format.ending}`);
		expect(found.questions.map((question) => question.identifier)).toEqual(
			questions.map((question) => question.identifier)
		);
	});
});

describe('a file that says that it is ours', () => {
	const head = '{"format":"yarn-barrow-questions","version":1,"questions":';
	it('and holds what is no question keeps it as it came, and reads the others', async () => {
		const found = await readBare('a.json', `${head}[${JSON.stringify(essay())},{"kind":"essay","title":"Half"},7]}`);
		expect(found.questions.map((question) => question.kind)).toEqual(['essay', 'unreadable', 'unreadable']);
		expect(found.questions[1]).toMatchObject({
			title: 'Half',
			reason: expect.stringContaining('Question 2 is not of the form') as string
		});
	});
	it('and carries active content has it cleaned', async () => {
		const evil = choice({ stem: 'Look <script>alert(1)</script><img src="x" onerror="alert(2)"/>' });
		const found = await readBare('a.json', `${head}[${JSON.stringify(evil)}]}`);
		expect(found.questions[0]!.stem).not.toMatch(/script|onerror/);
		expect(found.questions[0]!.removed.length).toBeGreaterThan(0);
	});
	it.each([
		['a part that is missing', { ...essay(), stem: undefined }, '“stem” is missing'],
		[
			'several parts that are missing',
			{ ...essay(), stem: undefined, hints: undefined },
			'“stem” and “hints” are missing'
		],
		['an unknown kind', { ...essay(), kind: 'riddle' }, '“kind” reads “riddle”'],
		['a text for a number', { ...essay(), points: 'two' }, '“points” has to be a number and reads “two”'],
		[
			'credit beyond its bounds',
			choice({ options: [{ ...choice().options[0]!, credit: 2 }] }),
			'“options[0].credit” is 2'
		]
	])('and holds %s names it', async (_, question, words) => {
		const found = await readBare('a.json', `${head}[${JSON.stringify(question)}]}`);
		expect(found.questions[0]).toMatchObject({
			kind: 'unreadable',
			reason: expect.stringContaining(words) as string
		});
	});
	const lines = (...titles: string[]) =>
		titles.map((title) => `\t\t${JSON.stringify(essay({ title }), null, '\t').replace(/\n/g, '\n\t\t')}`);
	const titlesOf = async (text: string) => {
		const { questions, reports } = await readBare('a.json', text);
		return { titles: questions.map((question) => question.title), reports, questions };
	};
	it('and was cut short has the questions before the cut, and says where it ends', async () => {
		const whole = `${head}[\n${lines('One', 'Two', 'Three').join(',\n')}\n]}`;
		const { titles, reports } = await titlesOf(whole.slice(0, whole.indexOf('Three') + 20));
		expect(titles).toEqual(['One', 'Two']);
		expect(reports[0]).toMatchObject({ rule: 'not-well-formed', severity: 'broken' });
		expect(reports[0]!.message).toContain('Question 3, “Three”,');
		expect(reports[0]!.place!.line).toBe(
			whole.slice(0, whole.indexOf('Three')).split('\n{').at(0)!.split('\n').length - 2
		);
	});
	it.each([
		['a quote that is lost', (text: string) => text.replace('"title": "Two"', '"title": "Two')],
		[
			'a bracket that is lost',
			(text: string) => text.replace('"category": [],\n\t\t\t"tags": [],', '"category": [,\n\t\t\t"tags": [],')
		],
		['a comma that is lost', (text: string) => text.replace('"title": "Two",', '"title": "Two"')]
	])('and has %s in one question keeps that as it came and reads the others', async (_, damage) => {
		const [one, two, three] = lines('One', 'Two', 'Three');
		const { titles, questions } = await titlesOf(`${head}[\n${[one, damage(two!), three].join(',\n')}\n]}`);
		expect([titles[0], titles[2], titles.length]).toEqual(['One', 'Three', 3]);
		expect(questions[1]).toMatchObject({
			kind: 'unreadable',
			reason: expect.stringContaining('Question 2') as string,
			fragment: expect.stringContaining('Two') as string
		});
	});
	it('as an archive reads every line but the one that is damaged', async () => {
		const found = await readAll(
			await opened({
				'barrow.json': '{"format":"yarn-barrow-questions","questions":3}',
				'questions.jsonl': `${JSON.stringify(essay())}\n{"kind":\n${JSON.stringify(essay({ title: 'Two' }))}\n`
			})
		);
		expect(found.questions.map((question) => question.kind)).toEqual(['essay', 'unreadable', 'essay']);
		expect(found.questions[1]).toMatchObject({ fragment: '{"kind":' });
		expect(found.reports).toEqual([]);
	});
});
