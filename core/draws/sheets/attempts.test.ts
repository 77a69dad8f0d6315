import { describe, expect, it } from 'vitest';
import { attemptsOf } from './attempts';
import { figuresOf, lookInto, planOf } from '.';

const after = (size: number, draw: number, most: number) => {
	const looked = lookInto(
		planOf({ questions: Array.from({ length: size }, (_, at) => ({ id: `q${at}` })), parts: [{ draw, pool: {} }] })
	);
	if (!('sampler' in looked)) throw new Error('It cannot be filled.');
	return attemptsOf(looked.plan, looked.sampler, figuresOf(looked.plan, looked.sampler), most);
};

describe('another attempt', () => {
	it('has seen a share of the pool, and meets again what chance has it, counted where it can be', () => {
		const [first, second] = after(10, 2, 2);
		expect(first).toMatchObject({ after: 1, error: 0 });
		expect(first!.seen).toBeCloseTo(0.2);
		expect(first!.again).toBeCloseTo(0.4);
		// both of the next are among the eight others: 28 of 45 ways
		expect(first!.anyAgain).toBeCloseTo(1 - 28 / 45);
		expect(second!.seen).toBeCloseTo(1 - 0.8 ** 2);
		expect(second!.again).toBeCloseTo(2 * (1 - 0.8 ** 2));
		// given the next, each of the two before it misses it with that chance, by itself
		expect(Math.abs(second!.anyAgain - (1 - (28 / 45) ** 2))).toBeLessThan(second!.error);
	});
	it('is sure to meet something where the pool is small, without drawing for it', () => {
		const attempts = after(10, 6, 4);
		for (const { anyAgain, error } of attempts) {
			expect(anyAgain).toBeCloseTo(1);
			expect(error).toBeLessThan(1e-9);
		}
		expect(attempts.at(-1)!.seen).toBeCloseTo(1 - 0.4 ** 4);
	});
});
