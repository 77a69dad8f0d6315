import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { tryQuizCheck } from '../test-support/tester';
import type { CheckedQuiz } from './check';
import { leastLacking } from './quiz-flow';
import { quizLostPool } from './quiz-lost-pool';
import { quizShufflesPlace } from './quiz-shuffles-place';
import { quizTotals } from './quiz-totals';
import { quizUnfillable } from './quiz-unfillable';

type Part = CheckedQuiz['parts'][number];
const part = (numbers: number[], draw: number | null, more: Partial<Part> = {}): Part => ({
	title: '',
	draw,
	pointsEach: null,
	pool: numbers.map((number) => ({ number, points: 1 })),
	shufflesOptions: false,
	lost: [],
	...more
});
const quiz = (...parts: Part[]): CheckedQuiz => ({ title: 'Harbour check', parts });
const upTo = (count: number, from = 1) => Array.from({ length: count }, (_, at) => from + at);
const worth = (...points: (number | null)[]) => points.map((own, at) => ({ number: at + 1, points: own }));
const bound = (name?: string) => ({ number: 1, points: 1, ...(name ? { bound: name } : {}) });

tryQuizCheck(
	quizUnfillable,
	[
		{ name: 'as many as there are', quiz: quiz(part(upTo(8), 8)) },
		{ name: 'two parts of one pool', quiz: quiz(part(upTo(8), 4), part(upTo(8), 4)) },
		{ name: 'a list', quiz: quiz(part(upTo(3), null)) },
		{ name: 'a list beside its pool', quiz: quiz(part([1], null), part(upTo(3), 2)) },
		{ name: 'pools that overlap with room', quiz: quiz(part([1, 2, 3], 2), part([3, 4], 2)) },
		{ name: 'three in a ring', quiz: quiz(part([1, 2], 1), part([2, 3], 1), part([3, 1], 1)) },
		{ name: 'no parts', quiz: quiz() }
	],
	[
		{ name: 'ten of eight', quiz: quiz(part(upTo(8), 10, { title: 'Tides' })), says: 'the part “Tides” draws 10 of 8' },
		{ name: 'one of none', quiz: quiz(part([], 1)), says: 'number 1 draws 1 of 0' },
		{
			name: 'two parts that need the same',
			quiz: quiz(part(upTo(4), 3), part(upTo(4), 3)),
			says: 'draw 6 different questions together, and have 4'
		},
		{
			name: 'a list and a pool of it',
			quiz: quiz(part([1, 2], null), part([1, 2, 3], 2)),
			says: 'number 1 and number 2 draw 4 different questions together, and have 3'
		},
		{
			name: 'three of two',
			quiz: quiz(part([1, 2], 1), part([1, 2], 1), part([1, 2], 1), part([5, 6], 1)),
			says: 'number 1 and number 2 and number 3'
		},
		{
			name: 'a chain',
			quiz: quiz(part([1], 1), part([1, 2], 1), part([2], 1)),
			says: 'draw 3 different questions together, and have 2'
		},
		{ name: 'a list of one twice', quiz: quiz(part([7], null), part([7], null)), says: 'have 1' }
	]
);

tryQuizCheck(
	quizTotals,
	[
		{ name: 'one point each', quiz: quiz(part(upTo(8), 4)) },
		{ name: 'points of the part', quiz: quiz(part([], 1, { pool: worth(1, 5), pointsEach: 2 })) },
		{ name: 'all of different ones', quiz: quiz(part([], null, { pool: worth(1, 5) })) },
		{ name: 'as many as there are', quiz: quiz(part([], 2, { pool: worth(1, 5) })) },
		{ name: 'nothing', quiz: quiz() },
		{ name: 'none said', quiz: quiz(part([], 1, { pool: worth(null, null) })) }
	],
	[
		{
			name: 'one of two',
			quiz: quiz(part([], 1, { pool: worth(1, 5), title: 'Lights' })),
			says: 'one student can get 1 points in all and another 5, by “Lights”'
		},
		{ name: 'two of three', quiz: quiz(part([], 2, { pool: worth(1, 1, 2) })), says: '2 points in all and another 3' },
		{
			name: 'one part of two',
			quiz: quiz(part(upTo(4), 2), part([], 1, { pool: worth(1, 3) })),
			says: '3 points in all and another 5, by number 2'
		},
		{
			name: 'two parts',
			quiz: quiz(part([], 1, { pool: worth(1, 2) }), part([], 1, { pool: worth(1, 2) })),
			says: 'number 1 and number 2'
		},
		{ name: 'half points', quiz: quiz(part([], 1, { pool: worth(0.5, 1) })), says: '0.5 points in all and another 1' },
		{
			name: 'one that says nothing',
			quiz: quiz(part([], 1, { pool: worth(null, 1) })),
			says: '0 points in all and another 1'
		}
	]
);

tryQuizCheck(
	quizShufflesPlace,
	[
		{ name: 'free questions', quiz: quiz(part([1], 1, { shufflesOptions: true })) },
		{ name: 'options that stand', quiz: quiz(part([], 1, { pool: [bound('All above')] })) },
		{ name: 'no questions', quiz: quiz(part([], null, { shufflesOptions: true })) },
		{ name: 'no parts', quiz: quiz() },
		{
			name: 'a bound one in a part that does not shuffle',
			quiz: quiz(part([2], 1, { shufflesOptions: true }), part([], 1, { pool: [bound('x')] }))
		},
		{ name: 'many free ones', quiz: quiz(part(upTo(40), 5, { shufflesOptions: true })) }
	],
	['All of the above', 'A and C', 'None of these', 'Both of the first', 'x', 'The last two'].map((name) => ({
		name,
		quiz: quiz(part([2], 1), part([], 1, { shufflesOptions: true, pool: [bound(), bound(name)] })),
		says: `“Harbour check” shuffles the options of “${name}”`
	}))
);

tryQuizCheck(
	quizLostPool,
	[
		{ name: 'all there', quiz: quiz(part(upTo(3), 1)) },
		{ name: 'an empty pool', quiz: quiz(part([], 1)) },
		{ name: 'no parts', quiz: quiz() },
		{ name: 'a list', quiz: quiz(part([1, 2], null)) },
		{ name: 'two parts', quiz: quiz(part([1], 1), part([2], 1)) },
		{ name: 'many', quiz: quiz(...upTo(20).map((at) => part([at], 1))) }
	],
	[
		['the category Tides'],
		['the bank Autumn'],
		['q-17'],
		['a', 'b'],
		['Tides › Springs'],
		['the question “Neaps”']
	].map((lost) => ({
		name: lost.join(),
		quiz: quiz(part([1], 1), part([], 1, { lost })),
		says: lost.map((one) => `“${one}”`).join(', ')
	}))
);

describe('whether parts can be filled together', () => {
	const small = fc.array(
		fc.record({
			wanted: fc.integer({ min: 0, max: 3 }),
			pool: fc.uniqueArray(fc.integer({ min: 1, max: 6 }), { maxLength: 6 })
		}),
		{ maxLength: 4 }
	);
	/** Tries every way. */
	const canFill = (drawings: { wanted: number; pool: number[] }[], used: number[] = []): boolean => {
		const [first, ...rest] = drawings;
		if (!first) return true;
		if (!first.wanted) return canFill(rest, used);
		return first.pool.some(
			(number, at) =>
				!used.includes(number) &&
				canFill([{ wanted: first.wanted - 1, pool: first.pool.slice(at + 1) }, ...rest], [...used, number])
		);
	};
	it('is found as by trying every way, with parts that want more than they have', () => {
		fc.assert(
			fc.property(small, (drawings) => {
				const lacking = leastLacking(drawings);
				expect(lacking === null).toBe(canFill(drawings));
				if (!lacking) return;
				const there = new Set(lacking.parts.flatMap((at) => drawings[at]!.pool));
				expect(lacking.there).toBe(there.size);
				expect(lacking.wanted).toBeGreaterThan(there.size);
			}),
			{ numRuns: 500 }
		);
	});
});
