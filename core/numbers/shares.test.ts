import * as fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { shares } from './shares';

describe('things that are dealt out in proportion', () => {
	it('are all dealt, each share the floor or the ceiling of what is due, and none over its size', () => {
		const any = fc
			.array(fc.integer({ min: 1, max: 50 }), { minLength: 1, maxLength: 8 })
			.chain((sizes) => fc.tuple(fc.constant(sizes), fc.nat({ max: sizes.reduce((sum, size) => sum + size, 0) })));
		fc.assert(
			fc.property(any, ([sizes, number]) => {
				const dealt = shares(sizes, number);
				const all = sizes.reduce((sum, size) => sum + size, 0);
				expect(dealt.reduce((sum, own) => sum + own, 0)).toBe(number);
				dealt.forEach((own, at) => {
					const due = (sizes[at]! * number) / all;
					expect(own).toBeLessThanOrEqual(Math.min(sizes[at]!, Math.ceil(due - 1e-9)));
					expect(own).toBeGreaterThanOrEqual(Math.floor(due + 1e-9));
				});
			})
		);
	});
	it('go to the greatest remainders', () => {
		expect(shares([6, 3, 1], 5)).toEqual([3, 2, 0]);
		expect(shares([], 0)).toEqual([]);
	});
});
