import * as fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { pointsRange, poolOf, type PoolPart, type PoolSource } from './pool';

const source: PoolSource = {
	tree: [
		{ id: 1, parentId: null },
		{ id: 2, parentId: 1 },
		{ id: 3, parentId: 2 },
		{ id: 4, parentId: null }
	],
	inCategory: { 1: [10, 11], 2: [20], 3: [30, 31], 4: [40] },
	points: { 10: 1, 11: 2, 20: null, 30: 0.1, 31: 0.2, 40: 5 },
	texts: [99]
};
const part = (more: Partial<PoolPart>): PoolPart => ({
	categories: [],
	withUnder: false,
	questions: [],
	draw: null,
	...more
});

describe('the pool of a part', () => {
	it('follows the tree and then the bank, in whatever order its categories were chosen', () => {
		expect(poolOf(part({ categories: [4, 1] }), source)).toEqual([10, 11, 40]);
	});
	it('has what is under a category only where the part says so', () => {
		expect(poolOf(part({ categories: [1], withUnder: true }), source)).toEqual([10, 11, 20, 30, 31]);
		expect(poolOf(part({ categories: [1] }), source)).toEqual([10, 11]);
	});
	it('has each question once, where a category is chosen beside the one that it stands in', () => {
		expect(poolOf(part({ categories: [1, 2, 3], withUnder: true }), source)).toEqual([10, 11, 20, 30, 31]);
	});
	it('keeps the order of a list, without what is gone', () => {
		expect(poolOf(part({ questions: [40, 77, 10, 40] }), source)).toEqual([40, 10]);
	});
	it('shows texts without an answer where all are given, and draws none of them', () => {
		expect(poolOf(part({ questions: [99, 10] }), source)).toEqual([99, 10]);
		expect(poolOf(part({ questions: [99, 10], draw: 1 }), source)).toEqual([10]);
	});
});

describe('the points of a part', () => {
	it('are between the least and the most that a draw can come to', () => {
		const drawn = { ...part({ categories: [1], withUnder: true, draw: 2 }), pointsEach: null };
		expect(pointsRange(drawn, poolOf(drawn, source), source)).toEqual([0.1, 3]);
	});
	it('are what the part gives each, where it does', () => {
		const each = { ...part({ categories: [1], draw: 2 }), pointsEach: 4 };
		expect(pointsRange(each, poolOf(each, source), source)).toEqual([8, 8]);
	});
	it('hold every draw between them', () => {
		fc.assert(
			fc.property(
				fc.array(fc.integer({ min: 0, max: 20 }), { minLength: 1, maxLength: 8 }),
				fc.nat(8),
				fc.nat(1000),
				(worth, draw, seed) => {
					const pool = worth.map((_, at) => at);
					const points = Object.fromEntries(worth.map((value, at) => [at, value]));
					const [least, most] = pointsRange({ ...part({ questions: pool, draw }), pointsEach: null }, pool, { points });
					const picked = pool.map((at) => pool[(at + seed) % pool.length]!).slice(0, draw);
					const sum = picked.reduce((all, at) => all + worth[at]!, 0);
					expect(least).toBeLessThanOrEqual(sum);
					expect(most).toBeGreaterThanOrEqual(sum);
				}
			)
		);
	});
});
