import * as fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { emptyCommon } from '../model/question';
import type { Question } from '.';
import { anyQuestion } from '../test-support/arbitrary';
import { bestCredit, rightResponse, score, wrongResponse } from '../scoring/score';
import type { Response } from './kind';
import { inShape, middleOf } from './areas';

const none = { lower: null, upper: null };
const common = { ...emptyCommon('Q', 'Q'), points: 4 };
const credit = (question: Question, response: Response) => score(question, response).credit;

describe('blanks', () => {
	const blanks = (combination: 'sum' | 'all'): Question => ({
		...common,
		kind: 'fill-blanks',
		stem: '',
		combination,
		shuffle: null,
		bank: [],
		blanks: [
			{
				identifier: 'A',
				share: 0.5,
				form: 'text',
				accepted: [
					{ text: 'ebb', credit: 1, caseSensitive: false },
					{ text: 'out', credit: 0.5, caseSensitive: false }
				]
			},
			{ identifier: 'B', share: 0.5, form: 'number', whole: false, accepted: [{ value: 3, tolerance: 0.5, credit: 1 }] }
		]
	});
	it.each([
		[{ A: ['EBB'], B: ['3.4'] }, 1, 1],
		[{ A: ['out'], B: ['3'] }, 0.75, 0],
		[{ A: ['ebb'] }, 0.5, 0],
		[{ A: ['x'], B: ['9'] }, 0, 0]
	])('%j earn their shares, or all or nothing', (given, sum, all) => {
		expect(credit(blanks('sum'), { blanks: given })).toBe(sum);
		expect(credit(blanks('all'), { blanks: given })).toBe(all);
	});
	it('that are open are left to a person', () => {
		const question = blanks('sum');
		if (question.kind === 'fill-blanks') question.blanks[1] = { identifier: 'B', share: 0.5, form: 'open' };
		expect(credit(question, { blanks: { A: ['ebb'], B: ['a long text'] } })).toBeNull();
	});
});

describe('blanks whose names every object has', () => {
	it.each(['constructor', '__proto__', 'toString'])('are empty until they are filled: %s', (identifier) => {
		const question: Question = {
			...emptyCommon('Q1', 'Knots'),
			kind: 'fill-blanks',
			blanks: [{ identifier, share: 1, form: 'text', accepted: [{ text: 'reef', credit: 1, caseSensitive: false }] }],
			bank: [],
			combination: 'sum',
			shuffle: null
		};
		expect(score(question, { blanks: {} }).credit).toBe(0);
		expect(score(question, rightResponse(question)!).credit).toBe(1);
	});
});

describe('pairs', () => {
	const matching = (combination: 'sum' | 'all'): Question => ({
		...common,
		kind: 'matching',
		stem: '',
		left: ['a', 'b'].map((identifier) => ({ identifier, text: identifier, uses: 1 })),
		right: ['x', 'y', 'z'].map((identifier) => ({ identifier, text: identifier, uses: null })),
		pairs: [
			{ left: 'a', right: 'x', credit: 0.5 },
			{ left: 'b', right: 'y', credit: 0.5 },
			{ left: 'a', right: 'z', credit: -0.25 }
		],
		combination,
		bounds: { lower: 0, upper: null },
		shuffle: null
	});
	it.each<[[string, string][], number, number]>([
		[
			[
				['a', 'x'],
				['b', 'y']
			],
			1,
			1
		],
		[
			[
				['a', 'x'],
				['b', 'z']
			],
			0.5,
			0
		],
		[
			[
				['a', 'z'],
				['b', 'y']
			],
			0.25,
			0
		],
		[[['a', 'z']], 0, 0],
		[
			[
				['a', 'x'],
				['b', 'y'],
				['a', 'y']
			],
			1,
			0
		]
	])('%j earn what they are worth', (pairs, sum, all) => {
		expect(credit(matching('sum'), { pairs })).toBe(sum);
		expect(credit(matching('all'), { pairs })).toBe(all);
	});
});

describe('an order', () => {
	const ordering = (rule: 'all' | 'position'): Question => ({
		...common,
		kind: 'ordering',
		stem: '',
		items: ['a', 'b', 'c', 'd'].map((identifier) => ({ identifier, text: identifier })),
		presented: ['d', 'c', 'b', 'a'],
		rule,
		shuffle: true
	});
	it.each([
		['abcd', 1, 1],
		['abdc', 0, 0.5],
		['dcba', 0, 0],
		['', 0, 0]
	])('%s earns all or nothing, or a part for each place', (order, all, position) => {
		expect(credit(ordering('all'), { order: [...order] })).toBe(all);
		expect(credit(ordering('position'), { order: [...order] })).toBe(position);
	});
});

describe('places in a picture', () => {
	it.each<['rect' | 'circle' | 'ellipse' | 'poly', number[], [number, number], boolean]>([
		['rect', [10, 10, 20, 30], [20, 30], true],
		['rect', [20, 30, 10, 10], [15, 15], true],
		['rect', [10, 10, 20, 30], [21, 15], false],
		['circle', [10, 10, 5], [13, 14], true],
		['circle', [10, 10, 5], [14, 14], false],
		['ellipse', [10, 10, 8, 4], [17, 10], true],
		['ellipse', [10, 10, 8, 4], [10, 15], false],
		['poly', [0, 0, 10, 0, 0, 10], [3, 3], true],
		['poly', [0, 0, 10, 0, 0, 10], [5, 5], true],
		['poly', [0, 0, 10, 0, 0, 10], [6, 6], false]
	])('a %s %j holds %j: %s', (shape, coordinates, point, held) => {
		expect(inShape({ identifier: 'S', shape, coordinates }, point)).toBe(held);
	});
	it('have a middle that lies within them, bent ones too', () => {
		const bent = { identifier: 'S', shape: 'poly' as const, coordinates: [0, 0, 30, 0, 30, 5, 5, 5, 5, 30, 0, 30] };
		expect(inShape(bent, middleOf(bent))).toBe(true);
	});
	it('count once, and points outside take off', () => {
		const question: Question = {
			...common,
			kind: 'hotspot',
			stem: '',
			picture: { name: 'a.png', width: 50, height: 50, alt: '' },
			shapes: [
				{ identifier: 'A', shape: 'circle', coordinates: [10, 10, 5], credit: 0.5 },
				{ identifier: 'B', shape: 'rect', coordinates: [30, 30, 40, 40], credit: 0.5 }
			],
			mode: 'points',
			picks: 3,
			outside: -0.25,
			combination: 'sum',
			bounds: none
		};
		expect(
			credit(question, {
				points: [
					[10, 10],
					[35, 35]
				]
			})
		).toBe(1);
		expect(
			credit(question, {
				points: [
					[10, 10],
					[11, 11]
				]
			})
		).toBe(0.5);
		expect(
			credit(question, {
				points: [
					[10, 10],
					[1, 49]
				]
			})
		).toBe(0.25);
	});
});

describe('a calculated answer', () => {
	const question: Question = {
		...common,
		kind: 'calculated',
		stem: '',
		variables: [
			{ name: 'S', whole: true, decimals: null, values: { form: 'range', min: 4, max: 12, step: 2 } },
			{ name: 'D', whole: true, decimals: null, values: { form: 'expression', expression: 'S * 3' } }
		],
		constraints: ['S > 4'],
		expression: 'D / 2',
		tolerance: { mode: 'relative', value: 0.1 },
		whole: false
	};
	it('is held against the numbers of its seed', () => {
		for (const seed of ['1', '2', 'another']) {
			const answer = Number(/are (\d+(\.\d+)?)|is (\d+(\.\d+)?)/.exec(score(question, { text: '0', seed }).reason)![3]);
			expect(answer).toBeGreaterThan(6);
			expect(credit(question, { text: String(answer * 1.09), seed })).toBe(1);
			expect(credit(question, { text: String(answer * 1.2), seed })).toBe(0);
		}
	});
});

describe('any question', () => {
	it('earns its best with a right response, and less with a wrong one', () => {
		fc.assert(
			fc.property(anyQuestion, (question) => {
				const [right, wrong, best] = [rightResponse(question), wrongResponse(question), bestCredit(question)];
				if (right && best !== null) expect(score(question, right).credit).toBeCloseTo(best, 4);
				if (wrong && right) {
					const earned = score(question, wrong).credit;
					if (earned !== null) expect(earned).toBeLessThanOrEqual(score(question, right).credit ?? 1);
				}
			}),
			{ numRuns: 300 }
		);
	});
});
