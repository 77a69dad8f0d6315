import { describe, expect, it } from 'vitest';
import { memorySource } from '../../container/container';
import { openContainer } from '../open';
import { readAll } from '../../test-support/packages';
import { short } from '../../test-support/short';
import type { Recipe } from './recipe';

const read = async (name: string, content: unknown, recipe?: Recipe) => {
	const text = typeof content === 'string' ? content : JSON.stringify(content);
	const { questions } = await readAll(await openContainer(name, memorySource(new TextEncoder().encode(text))), recipe);
	return questions.map(short);
};

const joins = ['multiple-choice', 'Which joins?', 'Bowline', '*Sheet bend'];
const sinks = ['multiple-choice', 'Which sinks?', '*Nylon', 'Cork'];

describe('the shapes that programs give questions, guessed', () => {
	it.each([
		[
			'a number counted from 0 beside a list under a name that says nothing',
			'a.json',
			[
				{ q: 'Which joins?', a: ['Bowline', 'Sheet bend'], correct: 1 },
				{ q: 'Which sinks?', a: ['Nylon', 'Cork'], correct: 0 }
			]
		],
		[
			'the names of options as the key',
			'a.json',
			[
				{
					prompt: 'Which joins?',
					options: [
						{ id: 'o1', label: 'Bowline' },
						{ id: 'o2', label: 'Sheet bend' }
					],
					correctOptionIds: ['o2']
				},
				{
					prompt: 'Which sinks?',
					options: [
						{ id: 'o1', label: 'Nylon' },
						{ id: 'o2', label: 'Cork' }
					],
					correctOptionIds: ['o1']
				}
			]
		],
		[
			'letters as the names of options',
			'a.json',
			[
				{ question: 'Which joins?', choices: { A: 'Bowline', B: 'Sheet bend' }, answer: 'B' },
				{ question: 'Which sinks?', choices: { A: 'Nylon', B: 'Cork' }, answer: 'A' }
			]
		],
		[
			'a list of answers, some with one alone',
			'a.xml',
			'<quiz><question><text>Which joins?</text><answers><answer>Bowline</answer><answer correct="true">Sheet bend</answer></answers></question><question><text>Which sinks?</text><answers><answer correct="true">Nylon</answer><answer>Cork</answer></answers></question><question type="short"><text>What rings in fog?</text><answers><answer correct="true">bell</answer></answers></question></quiz>'
		],
		[
			'German names',
			'a.xml',
			'<Fragen><Frage><Fragetext>Which joins?</Fragetext><Antwort richtig="0">Bowline</Antwort><Antwort richtig="1">Sheet bend</Antwort></Frage><Frage><Fragetext>Which sinks?</Fragetext><Antwort richtig="1">Nylon</Antwort><Antwort richtig="0">Cork</Antwort></Frage></Fragen>'
		]
	])('%s', async (_, name, content) => {
		const found = await read(name, content);
		expect(found.slice(0, 2)).toEqual([joins, sinks]);
		if (found.length > 2) expect(found[2]).toEqual(['short-answer', 'What rings in fog?', 'bell']);
	});

	it('the right answer apart from the wrong ones', async () => {
		expect(
			await read('a.json', [{ question: 'Which sinks?', correct_answer: 'Nylon', incorrect_answers: ['Cork'] }])
		).toEqual([sinks]);
	});

	it('pairs as an object, and an order whose key is not the list', async () => {
		expect(
			await read('a.json', [
				{ type: 'matching', question: 'Match', pairs: { Ebb: 'falling', Flood: 'rising' } },
				{ type: 'ordering', question: 'Order', items: ['flood', 'ebb'], answer: ['ebb', 'flood'] }
			])
		).toEqual([
			['matching', 'Match', 'Ebb=falling', 'Flood=rising'],
			['ordering', 'Order', 'ebb', 'flood']
		]);
	});

	it.each(['<a ok="x">Sheet bend</a>', '<a><ok/>Sheet bend</a>', '<a ok="1">Sheet bend</a>'])(
		'a mark at the right option: %s',
		async (option) => {
			const recipe: Recipe = {
				record: '//q',
				stem: 's',
				options: 'a',
				optionText: 'text()',
				optionRight: option.includes('ok=') ? '@ok' : 'ok'
			};
			expect(await read('a.xml', `<set><q><s>Which joins?</s><a>Bowline</a>${option}</q></set>`, recipe)).toEqual([
				joins
			]);
		}
	);

	it('pointed at by a recipe, under names of their own', async () => {
		const recipe: Recipe = {
			record: '[*]',
			stem: 'ask',
			key: 'yes',
			wrong: 'no[*]',
			pairs: 'map[*]',
			left: '~',
			right: '.'
		};
		expect(
			await read(
				'a.json',
				[
					{ ask: 'Which sinks?', yes: 'Nylon', no: ['Cork'] },
					{ ask: 'Match', map: { a: 'b' } }
				],
				recipe
			)
		).toEqual([sinks, ['matching', 'Match', 'a=b']]);
	});
});
