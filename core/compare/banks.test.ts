import { describe, expect, it } from 'vitest';
import { choice, essay, numeric } from '../test-support/questions';
import { compareBanks } from './banks';

describe('two banks', () => {
	const first = choice();
	const second = numeric([{ value: 16, tolerance: 0, credit: 1 }]);
	const third = essay();
	it('are the same in any order', () => {
		expect(compareBanks([first, second, third], [third, first, second])).toEqual({
			same: 3,
			changed: [],
			onlyBefore: [],
			onlyAfter: []
		});
	});
	it('differ in what changed, what is only here, and what is only there', () => {
		const changed = { ...first, stem: 'Which cloud comes last?' };
		const other = essay({ identifier: 'GH-9', title: 'Anchoring', stem: 'Describe how you anchor.' });
		expect(compareBanks([first, second, third], [changed, second, other])).toMatchObject({
			same: 1,
			changed: [{ before: first, after: changed, differences: [{ field: 'stem' }] }],
			onlyBefore: [third],
			onlyAfter: [other]
		});
	});
	it('know a question again by its title where its identifier is new', () => {
		const moved = { ...first, identifier: 'X', category: ['Clouds'], points: 3 };
		const { changed } = compareBanks([first], [moved]);
		expect(changed[0]!.differences.map((one) => one.field)).toEqual(['points', 'category']);
	});
	it('hold the same question twice as two', () => {
		expect(compareBanks([first, first], [first])).toMatchObject({ same: 1, onlyBefore: [first] });
	});
});
