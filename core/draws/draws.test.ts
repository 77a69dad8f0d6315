import { describe, expect, it } from 'vitest';
import * as fc from 'fast-check';
import { feasibility } from './feasibility';
import { Generator } from '../numbers/generator';
import { drawSitting, optionOrder, wanted } from './sitting';
import type { DrawPart } from './part';

const pool = (from: number, count: number) => Array.from({ length: count }, (_, at) => from + at);
const part = (questions: number[], draw: number | null, shuffle = true): DrawPart => ({
	pool: questions,
	draw,
	shuffle
});

/** Chi-square of counts against equal shares. */
function chiSquare(counts: number[], expected: number): number {
	return counts.reduce((sum, count) => sum + (count - expected) ** 2 / expected, 0);
}

describe('the generator', () => {
	it('says that nothing is below nothing, instead of looking for ever', () => {
		expect(() => new Generator('x').below(0)).toThrow(RangeError);
	});
	it('gives the same numbers for the same seed, for ever', () => {
		const first = new Generator('harbour-1');
		expect(Array.from({ length: 5 }, () => first.next())).toEqual(
			Array.from(
				{ length: 5 },
				(
					(again) => () =>
						again.next()
				)(new Generator('harbour-1'))
			)
		);
		// written down once: sittings that were handed out depend on it
		const fixed = new Generator('gullhaven');
		expect([fixed.next(), fixed.next(), fixed.next()]).toEqual([2177238093, 3427903405, 3720030268]);
	});
	it('gives other numbers for another seed', () => {
		expect(new Generator('a').next()).not.toBe(new Generator('b').next());
	});
	it('gives each number below a limit as often as any other', () => {
		const generator = new Generator('fair');
		const counts = new Array<number>(7).fill(0);
		for (let n = 0; n < 70_000; n += 1) counts[generator.below(7)]! += 1;
		// six degrees of freedom: 22.46 is passed once in a thousand
		expect(chiSquare(counts, 10_000)).toBeLessThan(22.46);
	});
	it('puts things in each order as often as in any other', () => {
		const generator = new Generator('orders');
		const counts = new Map<string, number>();
		for (let n = 0; n < 24_000; n += 1) {
			const order = generator.shuffle(['a', 'b', 'c', 'd']).join('');
			counts.set(order, (counts.get(order) ?? 0) + 1);
		}
		expect(counts.size).toBe(24);
		// 23 degrees of freedom
		expect(chiSquare([...counts.values()], 1000)).toBeLessThan(49.73);
	});
});

describe('a sitting', () => {
	it('is the same for the same seed, in whatever order the pool comes', () => {
		const parts = [part(pool(1, 20), 5), part(pool(50, 8), 3, false)];
		const backwards = parts.map((one) => ({ ...one, pool: [...one.pool].reverse() }));
		const drawn = (list: DrawPart[]) => drawSitting(list, 's1')!.parts.map((one) => [...one].sort((a, b) => a - b));
		expect(drawn(parts)).toEqual(drawn(backwards));
		expect(drawSitting(parts, 's1')).toEqual(drawSitting(parts, 's1'));
		expect(drawSitting(parts, 's1')).not.toEqual(drawSitting(parts, 's2'));
	});
	it('sees each question with the exact probability', () => {
		const counts = new Array<number>(10).fill(0);
		const runs = 20_000;
		for (let n = 0; n < runs; n += 1)
			for (const question of drawSitting([part(pool(0, 10), 3)], `seed ${n}`)!.parts[0]!) counts[question]! += 1;
		const probability = 3 / 10;
		const deviation = Math.sqrt(runs * probability * (1 - probability));
		for (const count of counts) expect(Math.abs(count - runs * probability)).toBeLessThan(4.5 * deviation);
	});
	it('sees each pair with the exact probability', () => {
		const runs = 12_000;
		let both = 0;
		for (let n = 0; n < runs; n += 1) {
			const drawn = drawSitting([part(pool(0, 8), 4)], `pair ${n}`)!.parts[0]!;
			if (drawn.includes(2) && drawn.includes(5)) both += 1;
		}
		const probability = (4 * 3) / (8 * 7);
		expect(Math.abs(both - runs * probability)).toBeLessThan(4.5 * Math.sqrt(runs * probability * (1 - probability)));
	});
	it('puts questions in the order of their pool where they are not shuffled', () => {
		const list = [7, 3, 9, 1, 12, 4];
		expect(drawSitting([part(list, null, false)], 'x')!.parts[0]).toEqual(list);
		const drawn = drawSitting([part(list, 4, false)], 'x')!.parts[0]!;
		expect(drawn).toEqual(list.filter((one) => drawn.includes(one)));
	});
	it('never gives a question twice, fills each part from its own pool, and draws what is asked', () => {
		const parts = fc.array(fc.tuple(fc.uniqueArray(fc.nat(14), { maxLength: 10 }), fc.option(fc.nat(6))), {
			minLength: 1,
			maxLength: 4
		});
		fc.assert(
			fc.property(parts, fc.string(), (list, seed) => {
				const sheet = list.map(([questions, draw]) => part(questions, draw));
				const sitting = drawSitting(sheet, seed);
				const { refusals, filling } = feasibility(sheet);
				expect(sitting === null).toBe(refusals.length > 0);
				expect(filling === null).toBe(refusals.length > 0);
				if (!sitting) return;
				const all = sitting.parts.flat();
				expect(new Set(all).size).toBe(all.length);
				sitting.parts.forEach((drawn, at) => {
					expect(drawn).toHaveLength(wanted(sheet[at]!));
					for (const question of drawn) expect(sheet[at]!.pool).toContain(question);
				});
			}),
			{ numRuns: 400 }
		);
	});
});

describe('whether a sheet can be filled', () => {
	it.each([
		['more than the pool holds', [part(pool(1, 8), 10)], 'wants 10 questions and its pool holds 8'],
		['an empty pool', [part([], 2)], 'Draw from another pool'],
		['nothing at all', [part([], null)], 'Its pool is empty'],
		['none', [part(pool(1, 5), 0)], 'draws no question'],
		['the same questions twice', [part(pool(1, 5), 3), part(pool(1, 5), 3)], 'shares its questions with part 1']
	])('is refused with the reason for %s', (_, parts, words) => {
		const { refusals } = feasibility(parts);
		expect(refusals.map((one) => one.message).join(' ')).toContain(words);
	});
	it('is found out exactly where parts overlap', () => {
		expect(feasibility([part(pool(1, 5), 3), part(pool(1, 5), 2)]).refusals).toEqual([]);
		expect(feasibility([part([1, 2, 3], 2), part([3, 4], 2)]).refusals).toEqual([]);
		expect(feasibility([part([1, 2], 2), part([2, 3], 2)]).refusals).toHaveLength(1);
	});
	it('agrees with trying every way', () => {
		const tiny = fc.array(
			fc.tuple(fc.uniqueArray(fc.nat(4), { minLength: 1, maxLength: 4 }), fc.integer({ min: 1, max: 2 })),
			{ minLength: 1, maxLength: 3 }
		);
		const possible = (parts: DrawPart[], used: Set<number>): boolean => {
			const [first, ...rest] = parts;
			if (!first) return true;
			const free = first.pool.filter((question) => !used.has(question));
			const choose = (from: number, left: number, taken: number[]): boolean =>
				left === 0
					? possible(rest, new Set([...used, ...taken]))
					: free.slice(from).some((question, at) => choose(from + at + 1, left - 1, [...taken, question]));
			return choose(0, first.draw!, []);
		};
		fc.assert(
			fc.property(tiny, (list) => {
				const parts = list.map(([questions, draw]) => part(questions, draw));
				expect(feasibility(parts).refusals.length === 0).toBe(possible(parts, new Set()));
			}),
			{ numRuns: 500 }
		);
	});
	it('fills even where chance would hardly find the way', () => {
		// every part has one question of its own and shares the rest, and all are needed
		const parts = Array.from({ length: 8 }, (_, at) => part([at, at + 1], 1));
		const tight = [...parts, part([8], 1)];
		expect(
			drawSitting(tight, 'tight')!
				.parts.flat()
				.sort((a, b) => a - b)
		).toEqual(pool(0, 9));
	});
});

describe('the order of options', () => {
	it('keeps pinned ones in their places, and is the same for the same seed', () => {
		fc.assert(
			fc.property(fc.array(fc.boolean(), { maxLength: 8 }), fc.string(), fc.nat(), (pinned, seed, question) => {
				const order = optionOrder(pinned, seed, question);
				expect([...order].sort((a, b) => a - b)).toEqual(pinned.map((_, at) => at));
				pinned.forEach((one, at) => {
					if (one) expect(order[at]).toBe(at);
				});
				expect(optionOrder(pinned, seed, question)).toEqual(order);
			})
		);
	});
	it('differs from question to question', () => {
		const orders = new Set(
			pool(1, 30).map((question) => optionOrder([false, false, false, false], 's', question).join(''))
		);
		expect(orders.size).toBeGreaterThan(8);
	});
});
