import { describe, expect, it } from 'vitest';
import * as fc from 'fast-check';
import type { AcceptedNumber } from '../model/pieces';
import { accepts } from '../kinds/answers';
import { creditsByTrying } from '../formats/credits';
import { acceptedNumbers, parseNumber, tidy } from './numbers';

describe('numbers as people write them', () => {
	it.each([
		['3.2', 3.2],
		['3,2', 3.2],
		[' -4 ', -4],
		['−4', -4],
		['.5', 0.5],
		['1e3', 1000],
		['3.2.1', null],
		['1,000,000', null],
		['', null],
		['five', null],
		['Infinity', null]
	])('“%s” is %s', (text, value) => {
		expect(parseNumber(text)).toBe(value);
	});
	it('come without the dust of arithmetic', () => {
		expect(tidy(0.1 + 0.2)).toBe(0.3);
	});
});

describe('accepted numbers, found by trying', () => {
	const end = fc.integer({ min: -20, max: 20 });
	const accepted = fc
		.tuple(end, fc.nat(10), fc.boolean(), fc.boolean(), fc.constantFrom(0.25, 0.5, 1))
		.map(([min, width, includesMin, includesMax, credit]): AcceptedNumber => ({
			min,
			max: min + width,
			includesMin: includesMin || width === 0,
			includesMax: includesMax || width === 0,
			credit
		}));
	const mark = (list: AcceptedNumber[]) => (value: number) =>
		Math.max(0, ...list.filter((one) => accepts(one, value)).map((one) => one.credit));

	it('mark every number as the rule does', () => {
		fc.assert(
			fc.property(
				fc.array(accepted, { maxLength: 4 }),
				fc.array(
					fc.integer({ min: -120, max: 120 }).map((quarter) => quarter / 4),
					{ maxLength: 20 }
				),
				(rule, tries) => {
					const critical = rule.flatMap((one) => ('min' in one ? [one.min!, one.max!] : []));
					const found = acceptedNumbers(critical, mark(rule), []);
					for (const value of [...tries, ...critical]) expect(mark(found)(value)).toBe(mark(rule)(value));
				}
			),
			{ numRuns: 500 }
		);
	});
	it('are told as a value with its tolerance where the rule says so', () => {
		const rule: AcceptedNumber[] = [{ value: 5, tolerance: 0.25, credit: 1 }];
		expect(acceptedNumbers([4.75, 5, 5.25], mark(rule), [{ value: 5, tolerance: 0.25 }])).toEqual(rule);
	});
	it('are none where nothing is asked for', () => {
		expect(acceptedNumbers([], () => 1, [])).toEqual([]);
	});
});

describe('the credit of options, found by trying', () => {
	const credits = fc.array(
		fc.integer({ min: -4, max: 4 }).map((quarter) => quarter / 4),
		{ minLength: 1, maxLength: 6 }
	);

	it('is what each option earns alone where one may be chosen', () => {
		fc.assert(
			fc.property(credits, (list) => {
				expect(creditsByTrying(list.length, false, 1, ([at]) => list[at!] ?? 0, []).credits).toEqual(list);
			})
		);
	});
	it('is what each option adds where several may be chosen and no bound hides it', () => {
		fc.assert(
			fc.property(
				credits.filter((list) => list.filter((one) => one > 0).length > 1 && list.every((one) => one !== 0)),
				(list) => {
					const found = creditsByTrying(list.length, true, 1, (set) => set.reduce((sum, at) => sum + list[at]!, 0), []);
					expect(found).toMatchObject({ credits: list, combination: 'sum', exact: true });
				}
			)
		);
	});
	it('is believed from a mapping that trying bears out, and not from one that it contradicts', () => {
		const declared = { scores: [1, -1], lower: 0, upper: null };
		const bounded = (set: number[]) =>
			Math.max(
				0,
				set.reduce((sum, at) => sum + declared.scores[at]!, 0)
			);
		expect(creditsByTrying(2, true, 1, bounded, [0], declared)).toMatchObject({
			credits: [1, -1],
			bounds: { lower: 0, upper: null }
		});
		expect(
			creditsByTrying(2, true, 1, (set) => (set.length === 1 && set[0] === 1 ? 1 : 0), [1], declared)
		).toMatchObject({ credits: [0, 1], combination: 'all' });
	});
	it('is found for many options without trying every set', () => {
		let tried = 0;
		const right = [0, 3, 7];
		const found = creditsByTrying(
			40,
			true,
			3,
			(set) => ((tried += 1), set.length === 3 && right.every((at) => set.includes(at)) ? 3 : 0),
			right
		);
		expect(found.combination).toBe('all');
		expect(found.credits.filter((one) => one > 0)).toHaveLength(3);
		expect(tried).toBeLessThan(400);
	});
});
