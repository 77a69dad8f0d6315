import { expect } from 'vitest';
import { bestCredit } from '../scoring/score';
import { choice, essay, numeric, option, short } from '../test-support/questions';
import { tryCheck } from '../test-support/tester';
import { creditShort } from './credit-short';

const thirds = [
	option('A', 'Red', 0.333333),
	option('B', 'Green', 0.333333),
	option('C', 'White', 0.333333),
	option('D', 'Blue', -0.5)
];

tryCheck(
	creditShort,
	[
		{ name: 'a key for everything', question: choice() },
		{ name: 'thirds that come to the whole', question: choice({ kind: 'multiple-response', options: thirds }) },
		{ name: 'no credit at all, which is another trouble', question: choice({ options: [option('A', 'Fog', 0)] }) },
		{ name: 'an essay', question: essay() }
	],
	[
		{
			name: 'options that come to half',
			question: choice({
				kind: 'multiple-response',
				options: [option('A', 'Ebb', 0.25), option('B', 'Flood', 0.25), option('C', 'Neap', -0.25)]
			}),
			says: '50 percent',
			mended: (question) => {
				expect(bestCredit(question)).toBe(1);
				expect('options' in question && question.options.map((one) => one.credit)).toEqual([0.5, 0.5, -0.25]);
			}
		},
		{
			name: 'an upper bound below the whole',
			question: choice({
				kind: 'multiple-response',
				options: [option('A', 'Ebb', 0.5), option('B', 'Flood', 0.5)],
				bounds: { lower: 0, upper: 0.8 }
			}),
			says: '80 percent',
			mended: (question) => expect(bestCredit(question)).toBe(1)
		},
		{
			name: 'a best word for three quarters',
			question: short([
				{ text: 'isobar', credit: 0.75, caseSensitive: false },
				{ text: 'isobars', credit: 0.375, caseSensitive: false }
			]),
			says: '75 percent',
			mended: (question) =>
				expect('accepted' in question && question.accepted.map((one) => one.credit)).toEqual([1, 0.5])
		},
		{
			name: 'a number for a tenth',
			question: numeric([{ value: 16, tolerance: 0, credit: 0.1 }]),
			says: '10 percent',
			mended: (question) => expect(bestCredit(question)).toBe(1)
		}
	]
);
