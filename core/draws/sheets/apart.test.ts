import * as fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { apart, leastShared } from './apart';
import { lookInto, planOf } from './index';

const sheet = (count: number, parts: object[], more: object = {}) => ({
	questions: Array.from({ length: count }, (_, at) => ({ id: `q${at}`, category: [at % 2 ? 'Lights' : 'Sounds'] })),
	parts,
	...more
});
const ids = (from: number, to: number) => Array.from({ length: to - from }, (_, at) => `q${from + at}`);
function sampled(form: object) {
	const looked = lookInto(planOf(form));
	if (!('sampler' in looked)) throw new Error('It cannot be filled.');
	return looked;
}

describe('sittings that are kept apart', () => {
	it('share nothing where the pool is large enough, and as little as can be where it is not', () => {
		const { plan, sampler } = sampled(sheet(20, [{ draw: 5, pool: {} }]));
		expect(apart(plan, sampler, 4, 'watch')).toMatchObject({ reached: 0, least: 0 });
		const five = apart(plan, sampler, 5, 'watch');
		expect(five.reached).toBe(five.least);
		expect(five.least).toBe(5);
	});
	it('reach the bound for any plain sheet, and no sitting has a question twice', () => {
		fc.assert(
			fc.property(
				fc.integer({ min: 1, max: 12 }),
				fc.integer({ min: 1, max: 12 }),
				fc.integer({ min: 1, max: 9 }),
				fc.string(),
				(size, wanted, count, seed) => {
					const draw = Math.min(size, wanted);
					const form = sheet(size + 3, [
						{ draw, pool: { include: ids(0, size), exclude: ids(size, size + 3) } },
						{ questions: ids(size, size + 3) }
					]);
					const { plan, sampler } = sampled(form);
					const made = apart(plan, sampler, count, seed);
					expect(made.reached).toBe(made.least);
					for (const { parts } of made.sittings) {
						expect(parts.map((part) => new Set(part).size)).toEqual([draw, 3]);
						expect(parts[1]).toEqual([size, size + 1, size + 2]);
					}
				}
			),
			{ numRuns: 150 }
		);
	});
	it('keep quotas, pairs and groups, and never share less than the bound says', () => {
		const form = sheet(
			14,
			[{ draw: 5, pool: {}, quotas: [{ by: 'category', value: ['Lights'], least: 2, most: 3 }] }],
			{ never: [['q0', 'q1']], together: [['q2', 'q3']] }
		);
		const { plan, sampler } = sampled(form);
		const made = apart(plan, sampler, 4, 'watch');
		expect(made.reached).toBeGreaterThanOrEqual(made.least);
		// drawn without a care, four sittings share 5 × 5 / 14 of each pair, 10.7 in all
		expect(made.reached).toBeLessThan(10);
		for (const { parts } of made.sittings) {
			const [given] = parts;
			const lights = given!.filter((place) => place % 2).length;
			expect([2, 3]).toContain(lights);
			expect(given!.includes(0) && given!.includes(1)).toBe(false);
			expect(given!.includes(2)).toBe(given!.includes(3));
		}
		expect(apart(plan, sampler, 4, 'watch')).toEqual(made);
	});
	it('are told of the least by hand: three of two out of three share three in all', () => {
		expect(leastShared(planOf(sheet(3, [{ draw: 2, pool: {} }])), 3)).toBe(3);
		expect(leastShared(planOf(sheet(3, [{ draw: 3, pool: {} }])), 2)).toBe(3);
	});
});
