import { describe, expect, it } from 'vitest';
import { choice, essay, numeric, option, short } from '../test-support/questions';
import { parseQuestion } from './schema';
import { emptyCommon } from '../model/question';
import { kindName, kinds, mapMarkup, markupOf } from '.';

const json = (value: unknown) => JSON.parse(JSON.stringify(value)) as Record<string, unknown>;

describe('a question out of JSON', () => {
	it.each([
		['a choice', choice({ feedback: { correct: 'Yes.' }, hints: ['Look up.'] })],
		['words', short([{ text: 'isobar', credit: 1, caseSensitive: false }])],
		[
			'numbers',
			numeric([
				{ value: 3, tolerance: 0, credit: 1 },
				{ min: null, max: 4, includesMin: false, includesMax: true, credit: 0.5 }
			])
		],
		['an essay', essay()],
		['what could not be read', { ...emptyCommon('U', 'x'), kind: 'unreadable', reason: 'why', fragment: '<item/>' }]
	])('is the question that went in: %s', (_, question) => {
		expect(parseQuestion(json(question))).toEqual(question);
	});
	it.each([
		['no kind', {}],
		['nothing', null],
		['an unknown kind', { ...json(choice()), kind: 'riddle' }],
		['credit beyond the whole', { ...json(choice()), options: [json(option('A', 'x', 2))] }],
		['a text that is a number', { ...json(choice()), title: 5 }],
		['options that are missing', (({ options: _options, ...rest }) => rest)(json(choice()) as { options: unknown })],
		['a number that is neither value nor range', { ...json(numeric([])), accepted: [{ credit: 1 }] }],
		['a tolerance below nothing', { ...json(numeric([])), accepted: [{ value: 1, tolerance: -1, credit: 1 }] }]
	])('is refused for %s', (_, value) => {
		expect(() => parseQuestion(value)).toThrow();
	});
});

describe('the parts of a question', () => {
	it('have a name for every kind', () => {
		expect(new Set(kinds.map(kindName)).size).toBe(kinds.length);
	});
	it('give each rich text with its field, and can change all of them', () => {
		const question = choice({
			options: [option('A', 'Cirrus', 1, { feedback: 'Ice.' })],
			feedback: { general: 'See page 3.' },
			hints: ['Look up.']
		});
		expect(markupOf(question).map((one) => one.field)).toEqual([
			'stem',
			'option 1',
			'feedback of option 1',
			'general feedback',
			'hint 1'
		]);
		const loud = mapMarkup(question, (markup) => markup.toUpperCase());
		expect(markupOf(loud).every((one) => one.markup === one.markup.toUpperCase())).toBe(true);
		expect(question.stem).toContain('cloud');
	});
});
