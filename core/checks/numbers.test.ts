import { expect } from 'vitest';
import type { CalculatedQuestion, NumericQuestion, Question, Variable } from '../kinds';
import { accepting, choiceOf, common } from '../test-support/checked';
import { numeric } from '../test-support/questions';
import { tryCheck } from '../test-support/tester';
import { answerBlanks } from './answer-blanks';
import { calculationFails } from './calculation-fails';
import { numberMarks } from './number-marks';
import { toleranceWide } from './tolerance-wide';
import { toleranceZero } from './tolerance-zero';
import { variableUnset } from './variable-unset';

type Given = Partial<CalculatedQuestion> & { values?: Record<string, Variable['values']> };
const range = (min: number, max: number, step: number | null = 1): Variable['values'] => ({
	form: 'range',
	min,
	max,
	step
});
const set = (...values: number[]): Variable['values'] => ({ form: 'set', values });
const calculated = (expression: string, { values = { a: range(1, 9) }, ...more }: Given = {}): Question => ({
	...common('How far is it?'),
	kind: 'calculated',
	variables: Object.entries(values).map(([name, given]) => ({ name, whole: false, decimals: null, values: given })),
	constraints: [],
	expression,
	tolerance: { mode: 'absolute', value: 0.1 },
	whole: false,
	...more
});
const whole = (values: Variable['values']) =>
	calculated('a', { variables: [{ name: 'a', whole: true, decimals: null, values }] });
const around = (value: number, tolerance: number, more: Partial<NumericQuestion> = {}) =>
	numeric([{ value, tolerance, credit: 1 }], more);
const tolerances = (question: Question) =>
	question.kind === 'numeric' ? question.accepted.map((entry) => ('tolerance' in entry ? entry.tolerance : null)) : [];

tryCheck(
	calculationFails,
	[
		{ name: 'a sum', question: calculated('a + 2') },
		{ name: 'a division by what is never nothing', question: calculated('10 / a') },
		{ name: 'a root of what is never below nothing', question: calculated('sqrt(a)') },
		{ name: 'known functions and constants', question: calculated('round(pi * a^2, 1) + log10(a)') },
		{ name: 'values that a constraint keeps away', question: calculated('1 / (a - 5)', { constraints: ['a > 5'] }) },
		{
			name: 'a variable out of another',
			question: calculated('b', { values: { a: range(1, 9), b: { form: 'expression', expression: 'a * 2' } } })
		},
		{ name: 'a variable without values, which is another trouble', question: calculated('a', { values: { a: set() } }) }
	],
	[
		{ name: 'what cannot be parsed', question: calculated('a +* 2'), says: 'cannot be worked out' },
		{ name: 'an unknown variable', question: calculated('a + b'), says: 'uses “b”, which is no variable' },
		{ name: 'an unknown function', question: calculated('haversine(a)'), says: 'haversine' },
		{
			name: 'a division by nothing for one value',
			question: calculated('1 / (a - 5)'),
			says: 'gives no number for a = 5'
		},
		{ name: 'the root of a negative', question: calculated('sqrt(a - 3)'), says: 'gives no number for a = 1' },
		{ name: 'a logarithm of nothing', question: calculated('log(a)', { values: { a: range(0, 4) } }), says: 'a = 0' },
		{
			name: 'one bad set of two variables',
			question: calculated('1 / (a - b)', { values: { a: range(1, 3), b: range(3, 5) } }),
			says: 'a = 3, b = 3'
		},
		{
			name: 'a constraint that nothing keeps',
			question: calculated('a', { constraints: ['a > 99'] }),
			says: 'constraints'
		},
		{ name: 'nothing', question: calculated(''), says: 'is empty' },
		{
			name: 'an unknown one in a variable',
			question: calculated('b', { values: { b: { form: 'expression', expression: 'z + 1' } } }),
			says: '“z”'
		}
	]
);

tryCheck(
	variableUnset,
	[
		{ name: 'a range', question: calculated('a') },
		{ name: 'a single value', question: calculated('a', { values: { a: range(4, 4, null) } }) },
		{ name: 'a single value with a step', question: calculated('a', { values: { a: range(4, 4, 1) } }) },
		{ name: 'a set of one', question: calculated('a', { values: { a: set(7) } }) },
		{ name: 'a step that does not come out', question: calculated('a', { values: { a: range(1, 2, 0.3) } }) },
		{ name: 'whole numbers', question: whole(range(1.5, 2.5)) },
		{ name: 'a range without a step', question: calculated('a', { values: { a: range(0, 1, null) } }) }
	],
	[
		{
			name: 'an empty set',
			question: calculated('a', { values: { a: set() } }),
			says: '“a” has no values',
			words: ['a']
		},
		{
			name: 'the least over the most',
			question: calculated('a', { values: { a: range(9, 1) } }),
			says: 'goes from 9 to 1'
		},
		{ name: 'a step of nothing', question: calculated('a', { values: { a: range(1, 9, 0) } }), says: 'in steps of 0' },
		{
			name: 'a step beyond the range',
			question: calculated('a', { values: { a: range(1, 2, 5) } }),
			says: 'in steps of 5'
		},
		{ name: 'whole numbers where there are none', question: whole(range(1.2, 1.8, null)), says: 'no whole number' },
		{
			name: 'two of them',
			question: calculated('a + b', { values: { a: set(), b: range(3, 2) } }),
			says: '; “b”',
			words: ['a', 'b']
		}
	]
);

tryCheck(
	toleranceZero,
	[
		{ name: 'a tolerance', question: around(2.5, 0.1) },
		{ name: 'a whole number without a unit', question: around(16, 0) },
		{ name: 'a range', question: numeric([{ min: 2.4, max: 2.6, includesMin: true, includesMax: true, credit: 1 }]) },
		{ name: 'a count', question: around(16, 0, { whole: true, unit: 'buoys' }) },
		{
			name: 'one exactly, and what is near for less',
			question: numeric([
				{ value: 2.5, tolerance: 0, credit: 1 },
				{ value: 2.5, tolerance: 0.5, credit: 0.5 }
			])
		},
		{
			name: 'an exact one that earns nothing',
			question: numeric([
				{ value: 16, tolerance: 0, credit: 1 },
				{ value: 2.5, tolerance: 0, credit: 0 }
			])
		},
		{ name: 'nothing accepted', question: numeric([]) }
	],
	[
		{
			name: 'a decimal',
			question: around(2.5, 0),
			says: '2.5 is accepted exactly',
			words: ['2.5'],
			mended: (question) => expect(tolerances(question)).toEqual([0.05])
		},
		{
			name: 'two decimals',
			question: around(0.25, 0),
			says: '0.25',
			mended: (question) => expect(tolerances(question)).toEqual([0.005])
		},
		{
			name: 'a whole number with a unit',
			question: around(12, 0, { unit: 'knots' }),
			says: '12',
			mended: (question) => expect(tolerances(question)).toEqual([0.5])
		},
		{
			name: 'one below nothing',
			question: around(-1.5, 0),
			says: '-1.5',
			mended: (question) => expect(tolerances(question)).toEqual([0.05])
		},
		{
			name: 'several',
			question: numeric([
				{ value: 2.5, tolerance: 0, credit: 1 },
				{ value: 7.25, tolerance: 0, credit: 0.5 }
			]),
			says: '2.5, 7.25 are'
		},
		{
			name: 'a blank',
			question: {
				...common('It is <span class="blank" id="B"></span> m.'),
				kind: 'fill-blanks',
				blanks: [
					{
						identifier: 'B',
						share: 1,
						form: 'number',
						whole: false,
						accepted: [{ value: 3.5, tolerance: 0, credit: 1 }]
					}
				],
				bank: [],
				combination: 'sum',
				shuffle: null
			},
			says: '3.5'
		}
	]
);

tryCheck(
	toleranceWide,
	[
		{ name: 'a narrow one', question: around(10, 1) },
		{ name: 'half of the value', question: around(10, 5) },
		{ name: 'a value of nothing', question: around(0, 3) },
		{
			name: 'a range as such',
			question: numeric([{ min: 1, max: 100, includesMin: true, includesMax: true, credit: 1 }])
		},
		{
			name: 'a wide one that earns nothing',
			question: numeric([
				{ value: 10, tolerance: 1, credit: 1 },
				{ value: 10, tolerance: 9, credit: 0 }
			])
		},
		{ name: 'a relative one of a tenth', question: calculated('a', { tolerance: { mode: 'relative', value: 0.1 } }) },
		{
			name: 'an absolute one beside large answers',
			question: calculated('a * 100', { tolerance: { mode: 'absolute', value: 5 } })
		}
	],
	[
		{ name: 'more than half', question: around(10, 6), says: '10 ± 6' },
		{ name: 'as much as the value', question: around(4, 4), says: '4 ± 4' },
		{ name: 'a percentage as a number', question: around(0.5, 5), says: '0.5 ± 5' },
		{ name: 'below nothing', question: around(-10, 7), says: '-10 ± 7' },
		{
			name: 'a relative one of the whole',
			question: calculated('a', { tolerance: { mode: 'relative', value: 1 } }),
			says: '100 percent'
		},
		{
			name: 'an absolute one beside small answers',
			question: calculated('a / 100', { tolerance: { mode: 'absolute', value: 5 } }),
			says: '± 5'
		}
	]
);

const choiceBetween = (...options: string[]) =>
	choiceOf(
		'How much?',
		options.map((text, at) => (at ? text : `${text}|1`))
	);
tryCheck(
	numberMarks,
	[
		{ name: 'points', question: choiceBetween('2.5 m', '3.5 m', '4 m') },
		{ name: 'commas', question: choiceBetween('2,5 m', '3,5 m') },
		{ name: 'thousands used one way', question: choiceBetween('1,000.5', '2,500.25', '3.5') },
		{ name: 'what may be a thousand', question: choiceBetween('1,000', '2.5') },
		{ name: 'two spellings of one number', question: accepting(['2.5', '2,5']) },
		{ name: 'figures with several points', question: choiceBetween('Rule 3.2.1', '2,5 m') },
		{ name: 'a list of two', question: choiceBetween('3, 5', '2.5') }
	],
	[
		{
			name: 'options',
			question: choiceBetween('2.5 m', '3,5 m'),
			says: '“3,5” has a comma and “2.5” a point',
			words: ['3,5', '2.5']
		},
		{ name: 'one among many', question: choiceBetween('2.5', '3.5', '4,5'), says: '“4,5”' },
		{ name: 'thousands the other way round', question: choiceBetween('1.000,5', '2,000.5'), says: 'one sign' },
		{ name: 'nothing before it', question: choiceBetween('0,250', '0.5'), says: '“0,250”' },
		{ name: 'accepted texts of two numbers', question: accepting(['2.5', '3,5']), says: '“3,5”' },
		{ name: 'words around', question: choiceBetween('about 1.5 knots', 'about 2,75 knots'), says: '“2,75”' }
	]
);

tryCheck(
	answerBlanks,
	[
		{ name: 'plain texts', question: accepting(['port', 'larboard']) },
		{ name: 'capitals that count', question: accepting(['Port', 'port'], { caseSensitive: true }) },
		{ name: 'a pattern', question: accepting([' port ?'], { match: 'pattern' }) },
		{ name: 'two words', question: accepting(['port side']) },
		{ name: 'texts that differ in a stop', question: accepting(['port', 'port.']) },
		{ name: 'none', question: accepting([]) }
	],
	[
		{
			name: 'a blank at the end',
			question: accepting(['port ']),
			says: '“port ” has blanks',
			mended: (question) => expect(textsOf(question)).toEqual(['port'])
		},
		{
			name: 'a blank at the beginning',
			question: accepting([' port']),
			says: 'blanks',
			mended: (question) => expect(textsOf(question)).toEqual(['port'])
		},
		{
			name: 'a double blank',
			question: accepting(['port  side']),
			says: 'blanks',
			mended: (question) => expect(textsOf(question)).toEqual(['port side'])
		},
		{
			name: 'a blank where capitals count',
			question: accepting(['Port '], { caseSensitive: true }),
			says: 'blanks',
			mended: (question) => expect(textsOf(question)).toEqual(['Port'])
		},
		{
			name: 'capitals that do not count',
			question: accepting(['Port', 'port', 'PORT']),
			says: 'capitals alone',
			words: ['port', 'PORT'],
			mended: (question) => expect(textsOf(question)).toEqual(['Port'])
		},
		{
			name: 'both',
			question: accepting(['Port', 'port ', 'left']),
			says: 'blanks',
			mended: (question) => expect(textsOf(question)).toEqual(['Port', 'left'])
		}
	]
);
const textsOf = (question: Question) =>
	question.kind === 'short-answer' ? question.accepted.map(({ text }) => text) : [];
