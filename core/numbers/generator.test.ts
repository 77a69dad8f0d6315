import * as fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { runsOf } from '../test-support/runs';
import { Generator, isUneven, rest, stepsIn } from './generator';

describe('a draw below a limit', () => {
	it('ends, and stays below it, however large it is', () => {
		fc.assert(
			fc.property(fc.string(), fc.double({ min: 1, max: 2 ** 53, noNaN: true }), (seed, wide) => {
				const limit = Math.floor(wide);
				const value = new Generator(seed).below(limit);
				expect(Number.isInteger(value) && value >= 0 && value < limit).toBe(true);
			}),
			runsOf('BELOW', 500)
		);
	});
	it('reaches the upper half of a range that 32 bits do not tell apart', () => {
		const generator = new Generator('wide');
		const values = Array.from({ length: 200 }, () => generator.below(1e10));
		expect(values.filter((value) => value > 5e9).length).toBeGreaterThan(60);
		expect(values.filter((value) => value < 5e9).length).toBeGreaterThan(60);
	});
	it.each([0, -1, Number.NaN, Number.POSITIVE_INFINITY, 2 ** 53 + 2])('is refused where it cannot be: %s', (limit) =>
		expect(() => new Generator('x').below(limit)).toThrow(RangeError)
	);
});

describe('the values of a range', () => {
	it.each([
		[0, 100, 1e-8, 1e10 + 1],
		[0, 1, 0.1, 11],
		[5, 1, 1, 1],
		[-1e308, 1e308, 1, 2 ** 53],
		[0, 10, Number.NaN, 1],
		[0, 10, 0, 2 ** 53]
	])('from %s to %s in steps of %s are as many as can be drawn from', (least, most, step, count) =>
		expect(stepsIn(least, most, step)).toBe(count)
	);
	it('gives many at once, the same that come one by one', () => {
		const [one, other] = [new Generator('tides'), new Generator('tides')];
		for (const count of [0, 1, 7, 40]) {
			const many = new Uint32Array(50);
			many.set(one.ahead(count).subarray(0, count));
			expect([...many.subarray(0, count)]).toEqual(Array.from({ length: count }, () => other.next()));
		}
		expect(one.next()).toBe(other.next());
	});
	it('has the rest of a division, and what is uneven, of every number of 32 bits', () => {
		const word = fc.oneof(fc.nat(2 ** 32 - 1), fc.nat(2 ** 10), fc.constantFrom(2 ** 32 - 1, 2 ** 31, 0));
		const limit = fc.oneof(fc.integer({ min: 1, max: 2 ** 32 }), fc.integer({ min: 1, max: 5000 }));
		fc.assert(
			fc.property(word, limit, fc.nat(2 ** 20), (value, below, times) => {
				expect(rest(value, below)).toBe(value % below);
				// what is just at a multiple, where a quotient could be rounded up
				const near = Math.min(2 ** 32 - 1, Math.floor((times * 4096) / below) * below + below - 1);
				expect(rest(near, below)).toBe(near % below);
				expect(isUneven(value, below)).toBe(value >= 2 ** 32 - (2 ** 32 % below));
			})
		);
	});
});
