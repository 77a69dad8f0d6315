import * as fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { weigh, type WeighedPart } from './weigh';

const part = (identifier: string, more: Partial<WeighedPart> = {}): WeighedPart => ({
	identifier,
	open: false,
	right: [`right ${identifier}`],
	...more
});
/** What earns so much for each part that is answered right. */
const sumOf =
	(worth: Record<string, number>) =>
	(responses: Map<string, string[] | null>): number =>
		[...responses].reduce((sum, [name, value]) => sum + (value?.[0] === `right ${name}` ? (worth[name] ?? 0) : 0), 0);
const isRight = (responses: Map<string, string[] | null>, ...names: string[]) =>
	names.every((name) => responses.get(name)?.[0] === `right ${name}`);

describe('what each of several answers is worth', () => {
	it('is what it adds to the score, as a share of all of them', () => {
		fc.assert(
			fc.property(fc.array(fc.integer({ min: 1, max: 20 }), { minLength: 2, maxLength: 8 }), (worths) => {
				const names = worths.map((_, at) => `P${at}`);
				const found = weigh(
					names.map((name) => part(name)),
					sumOf(Object.fromEntries(names.map((name, at) => [name, worths[at]!]))),
					null
				);
				const all = worths.reduce((a, b) => a + b, 0);
				expect(found).toMatchObject({ top: all, all: false, exact: true });
				found.shares.forEach((share, at) => expect(share).toBeCloseTo(worths[at]! / all, 5));
				for (const name of names) {
					expect(found.credit(name, [`right ${name}`])).toBe(1);
					expect(found.credit(name, ['wrong'])).toBe(0);
					expect(found.credit(name, null)).toBe(0);
				}
			})
		);
	});
	it('is a part of the points that are declared, where those are more than can be reached', () => {
		const found = weigh([part('A'), part('B')], sumOf({ A: 1, B: 1 }), 4);
		expect(found.shares).toEqual([0.25, 0.25]);
	});
	it('is the same for each where only all of them together earn anything', () => {
		const found = weigh([part('A'), part('B'), part('C')], (one) => (isRight(one, 'A', 'B', 'C') ? 6 : 0), null);
		expect(found).toMatchObject({ top: 6, all: true, exact: true });
		expect(found.shares.reduce((a, b) => a + b, 0)).toBeCloseTo(1, 5);
		expect(found.credit('A', ['right A'])).toBe(1);
		expect(found.credit('A', ['wrong'])).toBe(0);
	});
	it('is what is left of the points for an answer that a person marks', () => {
		const found = weigh([part('A'), part('B', { open: true, right: null })], sumOf({ A: 1 }), 4);
		expect(found.shares).toEqual([0.25, 0.75]);
	});
	it('is said not to be exact where answers weigh against each other', () => {
		const found = weigh(
			[part('A'), part('B')],
			(one) => (isRight(one, 'A', 'B') ? 5 : isRight(one, 'A') || isRight(one, 'B') ? 1 : 0),
			null
		);
		expect(found.exact).toBe(false);
	});
	it('is its part of what a response earns as a whole, where the answers in it earn only together', () => {
		const parts = [part('A'), part('B', { group: 'R' }), part('C', { group: 'R' })];
		const found = weigh(parts, (one) => (isRight(one, 'A') ? 2 : 0) + (isRight(one, 'B', 'C') ? 4 : 0), null);
		expect(found).toMatchObject({ top: 6, all: false, exact: false });
		found.shares.forEach((share) => expect(share).toBeCloseTo(1 / 3, 5));
		expect(found.credit('B', ['wrong'])).toBe(0);
	});
	it('stays its own where the answers of a response earn each for itself', () => {
		const parts = [part('A', { group: 'R' }), part('B', { group: 'R' })];
		expect(weigh(parts, sumOf({ A: 1, B: 3 }), null)).toMatchObject({ shares: [0.25, 0.75], exact: true });
	});
	it('is shared out evenly where nothing earns anything', () => {
		const found = weigh([part('A', { right: null }), part('B', { right: null })], () => 0, null);
		expect(found.shares).toEqual([0.5, 0.5]);
		expect(found.credit('A', ['anything'])).toBe(0);
	});
	it('may be a part of it for an answer that is half right', () => {
		const found = weigh(
			[part('A'), part('B')],
			(one) => (isRight(one, 'A') ? 2 : one.get('A')?.[0] === 'nearly' ? 1 : 0) + (isRight(one, 'B') ? 2 : 0),
			null
		);
		expect(found.credit('A', ['nearly'])).toBe(0.5);
	});
});
