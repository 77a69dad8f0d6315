import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { memorySource } from '../../container/container';
import { openContainer } from '../open';
import { runsOf } from '../../test-support/runs';
import { readAll } from '../../test-support/packages';
import { anyShapeHabits, shaped } from '../../test-support/shaped-data';
import { short } from '../../test-support/short';
import { anyMeant, shortOf } from '../../test-support/typed-lists';
import type { Recipe } from './recipe';

const runs = runsOf('SHAPED', 250);

const read = async (name: string, text: string, recipe?: Recipe) =>
	readAll(await openContainer(name, memorySource(new TextEncoder().encode(text))), recipe);

describe('JSON and XML of any shape, kept with any mixture of habits', () => {
	it('are read as they were meant, by a recipe that is guessed', () =>
		fc.assert(
			fc.asyncProperty(anyMeant, anyShapeHabits, async (meant, habits) => {
				const { name, text } = shaped(meant, habits);
				const { questions } = await read(name, text);
				expect({ text, read: questions.map(short) }).toEqual({ text, read: meant.map(shortOf) });
				const half = Math.ceil(meant.length / 2);
				questions.forEach(({ title, category, points, feedback }, at) => {
					const group = at < half ? 'Tides' : 'Ropes';
					expect({ text, title, category, points, feedback }).toEqual({
						text,
						title: habits.title ? `Harbour ${at + 1}` : '',
						category: habits.holder === 'groups' ? [group] : habits.category ? ['Seamanship'] : [],
						points: habits.points ? 2 : null,
						feedback: habits.feedback ? { general: 'See the handbook of the school.' } : {}
					});
				});
			}),
			runs
		));
});

describe('a file whose root element has the name of ours, and is not of our namespace', () => {
	const text = '<questions><question><ask>What floats?</ask><a>Cork</a></question></questions>';
	it('is read by a guess', async () => {
		const { questions } = await read('a.xml', text.replace(/ask>/g, 'prompt>').replace(/a>/g, 'answer>'));
		expect(questions.map(short)).toEqual([['short-answer', 'What floats?', 'Cork']]);
	});
	it('is read by the recipe that was made for it', async () => {
		const { questions } = await read('a.xml', text, { record: '//question', stem: 'ask', key: 'a' });
		expect(questions.map(short)).toEqual([['short-answer', 'What floats?', 'Cork']]);
	});
});

describe('keys that are numbers', () => {
	const file = (...keys: number[]) =>
		JSON.stringify(keys.map((answer, at) => ({ question: `Which ${at}?`, options: ['Cork', 'Lead', 'Iron'], answer })));
	it('are reported where nothing shows from where they count', async () => {
		const { reports } = await read('a.json', file(1, 2, 1));
		expect(reports.map((report) => report.rule)).toEqual(['guessed-key']);
	});
	it.each([
		['a 0', file(0, 1), 'Cork'],
		['the number of the last one', file(1, 3), 'Cork'],
		['a name that says so', file(1, 2).replace(/answer/g, 'correctIndex'), 'Lead']
	])('show it by %s', async (_, text, first) => {
		const { questions, reports } = await read('a.json', text);
		expect(reports).toEqual([]);
		expect(short(questions[0]!)).toContain(`*${first}`);
	});
});

describe('a word for a kind', () => {
	const file = (one: string) =>
		JSON.stringify([
			{ question: 'Which floats?', type: one, options: ['Cork', 'Lead'], answer: 'A' },
			{ question: 'Which sink?', type: 'multiple_choice', options: ['Cork', 'Lead', 'Iron'], answer: ['B', 'C'] }
		]);
	it('that means one of several is understood beside a word for a single choice', async () => {
		const { questions, about } = await read('a.json', file('single_choice'));
		expect(questions.map((question) => question.kind)).toEqual(['multiple-choice', 'multiple-response']);
		expect([...about.values()].flat()).toEqual([]);
	});
	it('is taken at its word elsewhere, and two keys are reported', async () => {
		const { about } = await read('a.json', file('multiple_choice'));
		expect([...about.values()].flat().map((report) => report.rule)).toEqual(['several-keys']);
	});
});

describe('two answers in one record', () => {
	it('are the key and the reason for it, where one is a sentence', async () => {
		const record = {
			question: 'Which sinks?',
			options: ['Lead', 'Cork'],
			answer: 'A',
			solution: 'It is denser than water.'
		};
		const { questions, reports } = await read('a.json', JSON.stringify([record]));
		expect(short(questions[0]!)).toEqual(['multiple-choice', 'Which sinks?', '*Lead', 'Cork']);
		expect(questions[0]!.feedback).toEqual({ general: 'It is denser than water.' });
		expect(reports).toEqual([]);
	});
	it('are not both taken otherwise, and what was left out is named', async () => {
		const record = { question: 'Which sinks?', options: ['Lead', 'Cork'], answer: 'A', solution: 'B' };
		const { reports } = await read('a.json', JSON.stringify([record]));
		expect(reports.map((report) => report.message).join()).toContain('“solution”');
	});
});
