import { describe, expect, it } from 'vitest';
import { fits, noConditions, restricts, type PoolConditions, type PoolFacts } from './conditions';

const question: PoolFacts = {
	kind: 'numeric',
	tags: ['night'],
	difficulty: 0.5,
	isVerified: false,
	isDisputed: false,
	isBroken: false,
	made: '2026-11-29'
};
const asking = (more: Partial<PoolConditions>) => ({ ...noConditions, ...more });

describe('what a pool asks of its questions', () => {
	it('restricts nothing where nothing is said, and something as soon as anything is', () => {
		expect(restricts(noConditions)).toBe(false);
		expect(fits(noConditions, { ...question, difficulty: null, isBroken: true })).toBe(true);
		for (const more of [
			{ kinds: ['essay'] },
			{ key: 'verified' as const },
			{ unbroken: true },
			{ since: '2026-01-01' },
			{ difficulty: [0, 1] },
			{ tags: { any: [], all: [], none: ['old'] } }
		])
			expect(restricts(asking(more)), JSON.stringify(more)).toBe(true);
	});
	it('has both ends of a difficulty, and no question without one', () => {
		for (const [range, isIn] of [
			[[0.5, 1], true],
			[[0, 0.5], true],
			[[0.51, 1], false]
		] as const)
			expect(fits(asking({ difficulty: range }), question)).toBe(isIn);
		expect(fits(asking({ difficulty: [0, 1] }), { ...question, difficulty: null })).toBe(false);
	});
});
