import { describe, expect, it } from 'vitest';
import { typedNumber, typedNumbers } from './typed-number';

describe('a number that is typed', () => {
	it.each([
		['2,5', 2.5],
		['2.5', 2.5],
		[' 12 ', 12],
		['-0,5', -0.5],
		['−3', -3],
		['.5', 0.5],
		['2.', 2],
		['+4', 4]
	])('%j is %d', (text, number) => expect(typedNumber(text)).toBe(number));
	it.each(['', 'x', '1,234.5', '2,5,1', '1e3', '5 %', '--1'])('%j is none', (text) =>
		expect(typedNumber(text)).toBeNaN()
	);
});

describe('numbers that are typed one after the other', () => {
	it.each([
		['50, 33.3, 25', [50, 33.3, 25]],
		['50 33.3 25', [50, 33.3, 25]],
		['33,3; 25', [33.3, 25]],
		['50 %; 25%', [50, 25]],
		['', []]
	])('%j', (text, numbers) => expect(typedNumbers(text.replace(' %', '%'))).toEqual(numbers));
	it('is told where a comma may part or belong to a number', () => {
		expect(typedNumbers('50,25')).toEqual([NaN]);
		expect(typedNumbers('1; x')).toEqual([1, NaN]);
	});
});
