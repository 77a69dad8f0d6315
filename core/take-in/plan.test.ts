import { describe, expect, it } from 'vitest';
import * as fc from 'fast-check';
import { landing, pathKey, pathOfKey, planTakeIn, withAbove, type Decision, type FoundCategory } from './plan';

const decision: Decision = {
	bankId: 7,
	bankName: '',
	categories: 'keep',
	oneCategory: '',
	errors: 'aside',
	leftOut: []
};
const found: FoundCategory[] = [
	{ path: ['Tides', 'Springs'], questions: 10, broken: 2 },
	{ path: ['Tides'], questions: 3, broken: 0 },
	{ path: [], questions: 2, broken: 1 },
	{ path: ['Old stock'], questions: 4, broken: 4 }
];

describe('what taking in would do', () => {
	it('counts what is taken, set aside and left out', () => {
		expect(planTakeIn(found, decision, [])).toEqual({
			found: 19,
			taken: 12,
			aside: 7,
			left: 0,
			categories: 2,
			newCategories: 2,
			refusal: null
		});
	});
	it('knows which categories are there already', () => {
		expect(planTakeIn(found, decision, ['Tides'])).toMatchObject({ categories: 2, newCategories: 1 });
		expect(planTakeIn(found, decision, ['Tides', 'Tides\nSprings', 'Other'])).toMatchObject({ newCategories: 0 });
	});
	it('leaves out what is left out, broken or not', () => {
		expect(planTakeIn(found, { ...decision, leftOut: ['Tides\nSprings', 'Old stock'] }, [])).toMatchObject({
			taken: 4,
			aside: 1,
			left: 14
		});
	});
	it('puts all in one category', () => {
		const one = { ...decision, categories: 'one' as const, oneCategory: ' Spring intake ' };
		expect(planTakeIn(found, one, [])).toMatchObject({ taken: 12, categories: 1, newCategories: 1 });
		expect(landing(['Tides'], one)).toEqual(['Spring intake']);
		expect(landing(['Tides'], { ...one, oneCategory: '' })).toEqual([]);
	});
	it.each([
		['a new bank without a name', { ...decision, bankId: null, bankName: '  ' }, 'Give the new bank a name.'],
		[
			'broken questions where nothing is to be taken then',
			{ ...decision, errors: 'nothing' as const },
			'7 questions are broken'
		],
		[
			'everything left out',
			{ ...decision, leftOut: found.map((one) => pathKey(one.path)) },
			'Nothing would be taken in'
		]
	])('is refused for %s', (_, asked, words) => {
		expect(planTakeIn(found, asked, []).refusal).toContain(words);
	});
	it('is refused for a file without questions', () => {
		expect(planTakeIn([], decision, []).refusal).toBe('There is nothing to take in.');
	});
	it('is not refused for broken questions that are left out', () => {
		const good = { ...decision, errors: 'nothing' as const, leftOut: ['Tides\nSprings', '', 'Old stock'] };
		expect(planTakeIn(found, good, [])).toMatchObject({ refusal: null, taken: 3 });
	});
	it('adds up, whatever is decided', () => {
		const name = fc.constantFrom('A', 'B', 'C');
		const category = fc
			.tuple(fc.array(name, { maxLength: 3 }), fc.nat(20), fc.nat(20))
			.map(([path, questions, broken]) => ({ path, questions, broken: Math.min(questions, broken) }));
		fc.assert(
			fc.property(
				fc.uniqueArray(category, { selector: (one) => pathKey(one.path) }),
				fc.array(fc.array(name, { maxLength: 3 }).map(pathKey)),
				(categories, leftOut) => {
					const plan = planTakeIn(categories, { ...decision, leftOut }, []);
					expect(plan.taken + plan.aside + plan.left).toBe(plan.found);
					expect(plan.newCategories).toBe(plan.categories);
				}
			)
		);
	});
});

describe('paths', () => {
	it('come back from their strings', () => {
		fc.assert(
			fc.property(
				fc.array(fc.string({ unit: fc.constantFrom('a', '/', ' ', 'é'), minLength: 1 }), { maxLength: 4 }),
				(path) => {
					expect(pathOfKey(pathKey(path))).toEqual(path);
				}
			)
		);
	});
	it('bring all above them, the upper ones first', () => {
		expect(
			withAbove([
				['A', 'B', 'C'],
				['A', 'D']
			])
		).toEqual([['A'], ['A', 'B'], ['A', 'D'], ['A', 'B', 'C']]);
	});
});
