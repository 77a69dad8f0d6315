import { describe, expect, it } from 'vitest';
import { emptyCommon } from '../../model/question';
import type { CalculatedQuestion } from '..';
import { datasetOf, faultOf, workedOut } from './datasets';
import { evaluate, ExpressionError, parseExpression, variablesOf, writeExpression } from './expression';

const come = (text: string, values: Record<string, number> = {}) =>
	evaluate(parseExpression(text), new Map(Object.entries(values)));

describe('an expression', () => {
	it.each([
		['2 + 3 * 4', 14],
		['(2 + 3) * 4', 20],
		['-2 ^ 2', -4],
		['2 ^ 3 ^ 2', 512],
		['sqrt(16) + abs(-3)', 7],
		['log10(1000) + log(8, 2)', 6],
		['round(3.14159, 2)', 3.14],
		['round(-2.5)', -2],
		['mod(-7, 3)', 2],
		['max(1, 5, 3) - min(4, 2)', 3],
		['cos(pi)', -1]
	])('%s comes to %d', (text, value) => {
		expect(come(text)).toBeCloseTo(value, 9);
	});
	it('takes the values of variables', () => {
		expect(come('d / t', { d: 21, t: 3.5 })).toBe(6);
		expect(variablesOf(parseExpression('a * b + pi - a'))).toEqual(['a', 'b']);
	});
	it.each(['2 +', 'import("x")', 'x = 3', 'a.b', '[1, 2]', '"text"', 'f(2)', 'eval(1)', 'createUnit("foo")'])(
		'%s is refused in plain words',
		(text) => {
			expect(() => come(text, { x: 1, a: 1 })).toThrow(ExpressionError);
		}
	);
	it.each([
		'a + b * c',
		'(a + b) * c',
		'a - (b - c)',
		'a / (b * c)',
		'pow(a, -b)',
		'a > b and not(b < 2)',
		'-a + sqrt(b)'
	])('%s is written so that it reads the same', (text) => {
		const again = writeExpression(parseExpression(text));
		const values = { a: 5, b: 3, c: 2 };
		expect(come(again, values)).toEqual(come(text, values));
		expect(writeExpression(parseExpression(again))).toBe(again);
	});
});

const question: CalculatedQuestion = {
	...emptyCommon('Q', 'Run'),
	points: 1,
	stem: 'At <var class="variable">S</var> knots for <var class="variable">T</var> hours?',
	kind: 'calculated',
	variables: [
		{ name: 'S', whole: false, decimals: 1, values: { form: 'range', min: 4, max: 8, step: 0.5 } },
		{ name: 'T', whole: true, decimals: null, values: { form: 'set', values: [2, 3] } }
	],
	constraints: ['S * T > 10'],
	expression: 'S * T',
	tolerance: { mode: 'absolute', value: 0.2 },
	whole: false
};

describe('the numbers of a calculated question', () => {
	it('are the same for the same seed, keep the constraints, and lie on their steps', () => {
		for (let seed = 0; seed < 50; seed += 1) {
			const { values, answer } = datasetOf(question, String(seed));
			expect(datasetOf(question, String(seed))).toEqual({ values, answer });
			expect(answer).toBeGreaterThan(10);
			expect((values.get('S')! * 2) % 1).toBe(0);
			expect([2, 3]).toContain(values.get('T'));
		}
		expect(
			new Set(Array.from({ length: 50 }, (_, seed) => datasetOf(question, String(seed)).answer)).size
		).toBeGreaterThan(3);
	});
	it('are put into the text of one that is worked out', () => {
		const { values, answer } = datasetOf(question, '7');
		expect(workedOut(question, '7')).toMatchObject({
			kind: 'numeric',
			stem: `At ${values.get('S')!.toFixed(1)} knots for ${values.get('T')} hours?`,
			accepted: [{ value: answer, tolerance: 0.2, credit: 1 }]
		});
	});
	it.each([
		['an answer that uses what is no variable', { expression: 'S * X' }, 'no variable'],
		['constraints that nothing keeps', { constraints: ['S > 100'] }, 'constraints'],
		['what is no calculation', { expression: 'S *' }, '']
	])('cannot be found for %s', (_, more, words) => {
		expect(faultOf({ ...question, ...more })).toContain(words);
		expect(faultOf({ ...question, ...more })).not.toBeNull();
	});
});
