import { object } from 'yup';
import { describe, expect, it } from 'vitest';
import { key, requiredKey, wholeNumber } from './requests';

describe('a number that comes from outside', () => {
	const shape = object({ bankId: requiredKey('The bank'), categoryId: key('The category').nullable().default(null) });
	it.each([
		[{ bankId: 7 }, { bankId: 7, categoryId: null }],
		[
			{ bankId: '7', categoryId: null },
			{ bankId: 7, categoryId: null }
		],
		[
			{ bankId: 7, categoryId: 12 },
			{ bankId: 7, categoryId: 12 }
		]
	])('may be left out, or be nothing, where its schema says so: %j', (sent, taken) => {
		expect(shape.validateSync(sent)).toEqual(taken);
	});
	it.each([
		[{}, 'The bank is not named'],
		[{ bankId: null }, 'The bank is not named'],
		[{ bankId: '1e3' }, 'The bank has to be a whole number'],
		[{ bankId: '٣' }, 'The bank has to be a whole number'],
		[{ bankId: 0 }, 'The bank has to be a number from 1 on'],
		[{ bankId: 7, categoryId: 'x' }, 'The category has to be a whole number']
	])('is refused in words: %j', (sent, words) => {
		expect(() => shape.validateSync(sent)).toThrow(words);
	});
	it('is none where it is nothing', () => {
		expect(() => wholeNumber('The version').validateSync(null)).toThrow('whole number');
	});
});
