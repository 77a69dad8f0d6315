import { describe, expect, it } from 'vitest';
import * as fc from 'fast-check';
import { emptyCommon } from '../model/question';
import type { Question } from '../kinds';
import { choice, essay, numeric, option, short } from '../test-support/questions';
import { acceptedNumberText } from '../kinds/answers';
import { bestCredit, rightResponse, score, wrongResponse } from './score';

const credit = (question: Question, response: Parameters<typeof score>[1]) => score(question, response).credit;

describe('marking a choice', () => {
	const question = choice({
		points: 4,
		options: [
			option('A', 'Cirrus', 1, { feedback: 'Ice clouds.' }),
			option('B', 'Stratus', 0.25),
			option('C', 'Fog', -0.5)
		],
		feedback: { correct: 'Well done.', incorrect: 'Look up.', partly: 'Nearly.', general: 'See page 3.' }
	});
	it.each([
		['A', 1, 4, ['Ice clouds.', 'Well done.', 'See page 3.']],
		['B', 0.25, 1, ['Nearly.', 'See page 3.']],
		['C', -0.5, -2, ['Look up.', 'See page 3.']]
	])('gives option %s its credit, its points and its feedback', (identifier, wanted, points, feedback) => {
		expect(score(question, { options: [identifier] })).toMatchObject({ credit: wanted, points, feedback });
	});
	it('gives nothing where nothing is chosen', () => {
		expect(score(question, { options: [] })).toMatchObject({ credit: 0, points: 0, reason: 'Nothing is chosen.' });
	});
	it('counts one option where one may be chosen', () => {
		expect(credit(question, { options: ['B', 'A'] })).toBe(0.25);
	});
	it('knows no points where there are none', () => {
		expect(score({ ...question, points: null }, { options: ['A'] })).toMatchObject({ credit: 1, points: null });
	});
});

describe('marking several options', () => {
	const options = [
		option('A', 'Ebb', 0.5),
		option('B', 'Flood', 0.5),
		option('C', 'Gale', -0.5),
		option('D', 'Fog', -0.5)
	];
	const sum = choice({ kind: 'multiple-response', options, bounds: { lower: 0, upper: 1 } });
	it.each([
		[['A', 'B'], 1],
		[['A'], 0.5],
		[['A', 'C'], 0],
		[['C', 'D'], 0],
		[['A', 'B', 'C'], 0.5]
	])('adds the credit of %s, within its bounds', (chosen, wanted) => {
		expect(credit(sum, { options: chosen })).toBe(wanted);
	});
	it('goes below nothing where no bound forbids it', () => {
		expect(credit({ ...sum, bounds: { lower: null, upper: null } }, { options: ['C', 'D'] })).toBe(-1);
	});
	const all = choice({
		kind: 'multiple-response',
		options: options.map((one) => ({ ...one, credit: Math.max(0, one.credit) })),
		combination: 'all'
	});
	it.each([
		[['B', 'A'], 1],
		[['A'], 0],
		[['A', 'B', 'C'], 0],
		[['C'], 0]
	])('gives %s all or nothing', (chosen, wanted) => {
		expect(credit(all, { options: chosen })).toBe(wanted);
	});
});

describe('marking words', () => {
	const question = short([
		{ text: 'chart datum', credit: 1, caseSensitive: false },
		{ text: 'CD', credit: 0.5, caseSensitive: true }
	]);
	it.each([
		['chart datum', 1],
		['  Chart   DATUM ', 1],
		['CD', 0.5],
		['cd', 0],
		['chart', 0],
		['   ', 0]
	])('gives “%s” %d', (text, wanted) => {
		expect(credit(question, { text })).toBe(wanted);
	});
	it('takes the best of several answers that fit', () => {
		const both = short([
			{ text: 'Fog', credit: 0.25, caseSensitive: true },
			{ text: 'fog', credit: 1, caseSensitive: false }
		]);
		expect(credit(both, { text: 'Fog' })).toBe(1);
	});
});

describe('marking numbers', () => {
	const question = numeric([
		{ value: 4.85, tolerance: 0.02, credit: 1 },
		{ min: 4, max: 5, includesMin: true, includesMax: false, credit: 0.5 },
		{ min: null, max: -10, includesMin: false, includesMax: true, credit: 0.25 }
	]);
	it.each([
		['4.85', 1],
		['4,87', 1],
		['4.83', 1],
		['4.88', 0.5],
		['4', 0.5],
		['5', 0],
		['−10', 0.25],
		['-11e1', 0.25],
		['about five', 0],
		['4.85 m', 0]
	])('gives “%s” %d', (text, wanted) => {
		expect(credit(question, { text })).toBe(wanted);
	});
	it('wants a whole number where one is asked for', () => {
		const whole = numeric([{ value: 16, tolerance: 1, credit: 1 }], { whole: true });
		expect(credit(whole, { text: '16.5' })).toBe(0);
		expect(credit(whole, { text: '17' })).toBe(1);
	});
	it.each([
		[{ value: 3, tolerance: 0, credit: 1 }, '3'],
		[{ value: 3, tolerance: 0.5, credit: 1 }, '3 ± 0.5'],
		[{ min: 3, max: 4, includesMin: true, includesMax: true, credit: 1 }, '3 to 4'],
		[{ min: 3, max: 4, includesMin: false, includesMax: false, credit: 1 }, 'above 3 to below 4'],
		[{ min: null, max: 4, includesMin: false, includesMax: false, credit: 1 }, 'below 4'],
		[{ min: 3, max: null, includesMin: true, includesMax: false, credit: 1 }, 'from 3']
	])('says which numbers are accepted: %o is %s', (accepted, words) => {
		expect(acceptedNumberText(accepted)).toBe(words);
	});
});

describe('what a machine cannot mark', () => {
	it.each([
		['an essay', essay()],
		['information', { ...emptyCommon('I', 'Before you start'), kind: 'information' as const }],
		['what could not be read', { ...emptyCommon('U', 'Plot'), kind: 'unreadable' as const, reason: '', fragment: '' }]
	])('is left without a mark: %s', (_, question) => {
		expect(score(question, { text: 'anything' })).toMatchObject({ credit: null, points: null });
		expect(bestCredit(question)).toBeNull();
		expect(rightResponse(question)).toBeNull();
	});
});

describe('a right and a wrong answer at a click', () => {
	const credits = fc.array(
		fc.integer({ min: -4, max: 4 }).map((quarter) => quarter / 4),
		{ minLength: 1, maxLength: 5 }
	);
	it('are marked as the best and as less than everything', () => {
		fc.assert(
			fc.property(credits, fc.boolean(), fc.boolean(), (list, several, all) => {
				const question = choice({
					kind: several ? 'multiple-response' : 'multiple-choice',
					combination: several && all ? 'all' : 'sum',
					options: list.map((one, at) => option(`O${at}`, `Option ${at}`, one))
				});
				const right = rightResponse(question);
				if (right) expect(credit(question, right)).toBeCloseTo(bestCredit(question)!, 5);
				else expect(bestCredit(question)).toBe(0);
				const wrong = wrongResponse(question);
				if (wrong && right) expect(credit(question, wrong)!).toBeLessThanOrEqual(credit(question, right)!);
			})
		);
	});
	it.each([
		['a word', short([{ text: 'isobar', credit: 1, caseSensitive: true }])],
		['a number', numeric([{ value: -3, tolerance: 0.5, credit: 1 }])],
		['a range', numeric([{ min: 3, max: 4, includesMin: false, includesMax: false, credit: 1 }])],
		['a range without an end', numeric([{ min: null, max: 4, includesMin: false, includesMax: false, credit: 1 }])]
	])('fit %s', (_, question) => {
		expect(credit(question, rightResponse(question)!)).toBe(1);
		expect(credit(question, wrongResponse(question)!)).toBe(0);
	});
});
