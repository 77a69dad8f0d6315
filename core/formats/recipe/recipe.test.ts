import { describe, expect, it } from 'vitest';
import { memorySource } from '../../container/container';
import { openContainer } from '../open';
import { plainText } from '../../markup/text';
import { isChoice, type Question } from '../../kinds';
import { readAll } from '../../test-support/packages';
import { guessRecipe } from './of-file';
import { follow } from './json';
import { parseRecipe, type Recipe } from './recipe';
import { sketchOf } from './sketch';

const open = (name: string, content: unknown) =>
	openContainer(
		name,
		memorySource(new TextEncoder().encode(typeof content === 'string' ? content : JSON.stringify(content)))
	);
const read = async (name: string, content: unknown, recipe?: Recipe) => readAll(await open(name, content), recipe);
const credits = (question: Question) =>
	isChoice(question) ? question.options.map((option) => [plainText(option.text), option.credit]) : [];

describe('a path in JSON', () => {
	const value = {
		set: {
			units: [
				{ name: 'Tides', items: [{ q: 'a' }, { q: 'b' }] },
				{ name: 'Knots', items: [{ q: 'c' }] }
			]
		}
	};
	it.each([
		['set.units[*].items[*].q', ['a', 'b', 'c']],
		['..q', ['a', 'b', 'c']],
		['set.units[1].items[0].q', ['c']],
		['set["units"][0].name', ['Tides']],
		["set.units[0]['name','missing']", ['Tides']],
		['nothing.here', []]
	])('%s leads where it should', (path, wanted) => {
		expect(follow({ value, around: [] }, path).map((found) => found.value)).toEqual(wanted);
	});
});

describe('JSON of no standard shape', () => {
	it('is guessed: options as objects that say whether they are right', async () => {
		const { questions } = await read('a.json', {
			quiz: {
				questions: [
					{
						prompt: 'Which holds?',
						choices: [
							{ text: 'Bowline', correct: true, comment: 'Yes.' },
							{ text: 'Reef', correct: false }
						],
						topic: 'Knots > Loops'
					}
				]
			}
		});
		expect(questions).toMatchObject([
			{
				kind: 'multiple-choice',
				category: ['Knots', 'Loops'],
				options: [{ credit: 1, feedback: 'Yes.' }, { credit: 0 }]
			}
		]);
	});
	it('is guessed: a number from 0 as the key', async () => {
		const { questions } = await read('a.json', [
			{ question: 'P?', options: ['x', 'y'], answer: 0 },
			{ question: 'Q?', options: ['x', 'y'], answer: 1 }
		]);
		expect(questions.map(credits)).toEqual([
			[
				['x', 1],
				['y', 0]
			],
			[
				['x', 0],
				['y', 1]
			]
		]);
	});
	it('takes categories from what stands around the questions', async () => {
		const { questions } = await read('a.json', {
			sections: [
				{ title: 'Tides', questions: [{ question: 'P?', answer: 'ebb' }] },
				{ title: 'Knots', questions: [{ question: 'Q?', answer: 'loop' }] }
			]
		});
		expect(questions.map((question) => question.category)).toEqual([['Tides'], ['Knots']]);
	});
	it('follows a recipe: credit in percent, pairs, ranges, an order and words for truth', async () => {
		const recipe = parseRecipe({
			record: 'list[*]',
			stem: ['ask', 'text'],
			kind: 'sort',
			kinds: { one: 'multiple-choice', link: 'matching', line: 'ordering' },
			options: 'alts[*]',
			optionText: 'is',
			credit: 'worth',
			creditScale: 'percent',
			pairs: 'links[*]',
			left: 'a',
			right: 'b',
			order: 'steps[*]',
			numericMin: 'from',
			numericMax: 'upto',
			truth: 'holds',
			truthWords: { aye: true, nay: false },
			shuffle: 'mix',
			shuffleWords: { yes: true }
		});
		const { questions } = await read(
			'a.json',
			{
				list: [
					{
						ask: 'P?',
						sort: 'one',
						alts: [
							{ is: 'x', worth: 100 },
							{ is: 'y', worth: -25 }
						],
						mix: 'yes'
					},
					{
						text: 'Q?',
						sort: 'link',
						links: [
							{ a: 'ebb', b: 'out' },
							{ a: 'flood', b: 'in' }
						]
					},
					{ ask: 'R?', from: 3.1, upto: 3.3 },
					{ ask: 'S?', holds: 'aye' },
					{ ask: 'T?', sort: 'line', steps: ['one', 'two', 'three'] }
				]
			},
			recipe
		);
		expect(questions).toMatchObject([
			{ kind: 'multiple-choice', shuffle: true, options: [{ credit: 1 }, { credit: -0.25 }] },
			{ kind: 'matching', pairs: [{}, {}] },
			{ kind: 'numeric', accepted: [{ min: 3.1, max: 3.3 }] },
			{ kind: 'true-false', options: [{ credit: 1 }, { credit: 0 }] },
			{ kind: 'ordering', items: [{ text: 'one' }, { text: 'two' }, { text: 'three' }] }
		]);
	});
	it('reads one object a line, and says what is wrong with what is no JSON', async () => {
		const { questions } = await read(
			'a.jsonl',
			'{"question":"P?","answer":"ebb"}\n{"question":"Q?","answer":"flood"}\n'
		);
		expect(questions).toHaveLength(2);
		const { reports } = await read('a.json', '[{"question": "P?", ');
		expect(reports[0]).toMatchObject({ rule: 'not-well-formed', severity: 'broken' });
	});
	it('says which line each question begins on', async () => {
		const { questions } = await read(
			'a.json',
			'[\n{"question":"P?","answer":"ebb"},\n\n{"question":"Q?","answer":"flood"}\n]'
		);
		expect(questions.map((question) => question.source!.line)).toEqual([2, 4]);
	});
});

describe('XML of no standard shape', () => {
	const bank =
		'<?xml version="1.0"?><bank xmlns="urn:x-quay"><unit name="Tides"><item points="2"><question>Which &lt;b&gt;tide&lt;/b&gt;?</question><option right="yes">neap</option><option right="no">spring</option></item></unit></bank>';
	it('is guessed', async () => {
		const { questions } = await read('a.xml', bank);
		expect(questions).toMatchObject([
			{ stem: 'Which <b>tide</b>?', points: 2, options: [{ credit: 1 }, { credit: 0 }] }
		]);
	});
	it('follows a recipe with prefixes, and takes labels from around', async () => {
		const recipe = parseRecipe({
			record: '//q:item',
			namespaces: { q: 'urn:x-quay' },
			stem: 'q:question',
			options: 'q:option',
			optionRight: '@right',
			categoryFrom: { ancestors: 'name' }
		});
		expect((await read('a.xml', bank, recipe)).questions).toMatchObject([
			{ category: ['Tides'], options: [{ credit: 1 }, {}] }
		]);
	});
	it('is refused where it declares a document type', async () => {
		const { questions, reports } = await read(
			'a.xml',
			'<!DOCTYPE b [<!ENTITY e SYSTEM "file:///x">]><b><q>&e;</q></b>'
		);
		expect(questions).toEqual([]);
		expect(reports[0]).toMatchObject({ rule: 'external-entity' });
	});
	it('says that a path cannot be followed, or leads nowhere', async () => {
		expect((await read('a.xml', bank, { record: '//item[' })).reports[0]).toMatchObject({ rule: 'bad-recipe' });
		expect((await read('a.xml', bank, { record: '//nothing' })).reports[0]).toMatchObject({ rule: 'empty-recipe' });
	});
});

describe('a recipe', () => {
	it.each([[{ colums: {} }], [{ columns: { stm: 'A' } }], [{ keyForms: ['guess'] }], [{ headerRow: -1 }], ['text']])(
		'%j is refused',
		(value) => {
			expect(() => parseRecipe(value)).toThrow();
		}
	);
	it('that was guessed gives the same when it is handed on', async () => {
		const content = 'Stem;Options;Key\nWhich?;x|y;2\nAnd?;x|y;1\n';
		const recipe = parseRecipe(JSON.parse(JSON.stringify(await guessRecipe(await open('a.csv', content)))));
		expect((await read('a.csv', content, recipe)).questions.map(credits)).toEqual(
			(await read('a.csv', content)).questions.map(credits)
		);
	});
	it('is made by pointing at a sketch of the file', async () => {
		expect(await sketchOf(await open('a.csv', 'Stem,A,B,Key\nWhich?,x,y,A\n'), null)).toMatchObject({
			form: 'table',
			tables: [
				{
					rows: [
						['Stem', 'A', 'B', 'Key'],
						['Which?', 'x', 'y', 'A']
					]
				}
			],
			recipe: { columns: { stem: 'Stem', options: ['A', 'B'], key: 'Key' } }
		});
		expect(await sketchOf(await open('a.json', [{ question: 'P?', answer: 'ebb' }]), null)).toMatchObject({
			form: 'json',
			records: 1,
			fields: [
				{ name: 'question', examples: ['P?'] },
				{ name: 'answer', examples: ['ebb'] }
			]
		});
		expect(
			await sketchOf(await open('a.xml', '<b><i t="x"><question>P?</question><answer>y</answer></i></b>'), null)
		).toMatchObject({
			form: 'xml',
			fields: [{ name: '@t' }, { name: 'question' }, { name: 'answer' }]
		});
	});
});

describe('a recipe that is guessed', () => {
	const credited = async (name: string, content: unknown) => (await read(name, content)).questions.map(credits);
	it('finds options that stand under a key each', async () => {
		expect(
			await credited('a.json', [
				{ question: 'Which light is red?', A: 'Port', B: 'Starboard', C: 'Stern', answer: 'A' }
			])
		).toEqual([
			[
				['Port', 1],
				['Starboard', 0],
				['Stern', 0]
			]
		]);
	});
	it('counts keys from 0 where one of them is 0, also within a list of several', async () => {
		const found = await read('a.json', {
			questions: [
				{ question: 'Which are ropes?', options: ['Nylon', 'Oak', 'Hemp'], correct: [0, 2] },
				{ question: 'The ebb is', options: ['rising', 'falling'], correct: 1 }
			]
		});
		expect(found.questions.map((one) => credits(one).filter(([, credit]) => Number(credit) > 0))).toEqual([
			[
				['Nylon', 0.5],
				['Hemp', 0.5]
			],
			[['falling', 1]]
		]);
	});
	it('takes a key under one name here, and under another there', async () => {
		const { questions } = await read('a.json', [
			{ question: 'A bight is a bend.', answer: true },
			{ question: 'Name an end.', answers: ['working', 'standing'] }
		]);
		expect(questions.map((one) => one.kind)).toEqual(['true-false', 'short-answer']);
		expect(questions[1]).toMatchObject({ accepted: [{ text: 'working' }, { text: 'standing' }] });
	});
	it('takes the options of XML out of their list, and the category from what stands around', async () => {
		const { questions } = await read(
			'a.xml',
			'<quiz><chapter title="Lights"><question><text>Which light is red?</text><answers><answer right="yes">Port</answer><answer right="no">Starboard</answer></answers></question><question><text>Name the green side.</text><accept>starboard</accept></question></chapter><chapter title="Ropes"><question><text>Nylon stretches.</text><answer>true</answer></question></chapter></quiz>'
		);
		expect(questions.map((one) => [one.kind, one.category])).toEqual([
			['multiple-choice', ['Lights']],
			['short-answer', ['Lights']],
			['true-false', ['Ropes']]
		]);
		expect(credits(questions[0]!)).toEqual([
			['Port', 1],
			['Starboard', 0]
		]);
	});
});

describe('what a recipe does not speak of', () => {
	const about = async (name: string, content: unknown, recipe?: Recipe) =>
		(await read(name, content, recipe)).reports.find((report) => report.rule === 'unused-field')?.message ?? '';
	const records = [
		{
			id: 'r1',
			question: 'Which holds?',
			options: [{ text: 'Bowline', hue: 'red' }, { text: 'Reef' }],
			answer: 'A',
			boat: 'Tern'
		},
		{ id: 'r2', question: 'Which slips?', options: [{ text: 'Bowline' }, { text: 'Reef' }], answer: 'B', boat: null }
	];
	it('is named with how often it stands there, and nothing is said of what only counts the records', async () => {
		const message = await about('a.json', records);
		expect(message).toContain('“boat” (in 1 of 2 questions)');
		expect(message).toContain('“hue” of the options (1 times)');
		expect(message).not.toContain('“id”');
	});
	it('is nothing where every part has its meaning', async () => {
		const whole = records.map(({ id, question, answer }) => ({ id, question, options: ['Bowline', 'Reef'], answer }));
		expect(await about('a.json', whole)).toBe('');
	});
	it('is named in XML too, with its attributes', async () => {
		const xml =
			'<set><entry boat="Tern"><ask>Which holds?</ask><answer>Bowline</answer><margin-note>look</margin-note></entry></set>';
		const message = await about('a.xml', xml);
		expect(message).toContain('“@boat” (in 1 of 1 questions)');
		expect(message).toContain('“margin-note”');
	});
});

describe('records without the usual names', () => {
	it('have as options what stands several times in a question, and the right ones by an attribute', async () => {
		const { questions } = await read(
			'a.xml',
			'<set><entry><ask>Which is a loop?</ask><pick sure="yes">Bowline</pick><pick sure="no">Reef</pick></entry><entry><ask>Strands of a rope?</ask><answer>3</answer></entry></set>'
		);
		expect(questions.map((question) => question.kind)).toEqual(['multiple-choice', 'numeric']);
		expect(credits(questions[0]!)).toEqual([
			['Bowline', 1],
			['Reef', 0]
		]);
	});
	it('have a number with its tolerance in an object, and a category in steps', async () => {
		const { questions } = await read('a.json', [
			{ prompt: 'Depth?', answer: { value: 3.2, tolerance: 0.1 }, topic: ['Tides', 'Heights'] },
			{ prompt: 'Last word?', answers: ['out', 'over'], topic: ['Radio'] }
		]);
		expect(questions[0]).toMatchObject({
			kind: 'numeric',
			category: ['Tides', 'Heights'],
			accepted: [{ value: 3.2, tolerance: 0.1 }]
		});
		expect(questions[1]).toMatchObject({ kind: 'short-answer', accepted: [{ text: 'out' }, { text: 'over' }] });
	});

	const several = [
		{ value: 3.5, tolerance: 0.1, credit: 1 },
		{ value: 4, tolerance: 0, credit: 0.5 },
		{ min: 5, max: 6, includesMin: true, includesMax: true, credit: 1 },
		{ min: 7, max: null, includesMin: true, includesMax: false, credit: 1 }
	];

	it('have several numbers, each with a tolerance and a credit of its own, and several ranges', async () => {
		const json = [
			{
				ask: 'Depth?',
				n: [
					{ v: '3,5', within: '0,1' },
					{ v: 4, worth: 50 },
					{ v: null, within: 9 }
				],
				spans: [{ low: 5, high: 6 }, { low: 7 }]
			}
		];
		const ofJson: Recipe = {
			record: '[*]',
			stem: 'ask',
			numeric: 'n[*].v',
			tolerance: 'n[*].within',
			credit: 'worth',
			creditScale: 'percent',
			numericMin: 'spans[*].low',
			numericMax: 'spans[*].high'
		};
		const xml =
			'<set><q><ask>Depth?</ask><n is="3.5" within="0.1"/><n is="4" worth="50"/><s low="5" high="6"/><s low="7"/></q></set>';
		const ofXml: Recipe = {
			...ofJson,
			record: '//q',
			numeric: 'n/@is',
			tolerance: 'n/@within',
			credit: '@worth',
			numericMin: 's/@low',
			numericMax: 's/@high'
		};
		const first = async (name: string, content: unknown, recipe: Recipe) =>
			(await read(name, content, recipe)).questions[0];
		expect(await first('a.json', json, ofJson)).toMatchObject({ kind: 'numeric', accepted: several });
		expect(await first('a.xml', xml, ofXml)).toMatchObject({ kind: 'numeric', accepted: several });
	});
});
