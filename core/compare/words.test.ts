import { describe, expect, it } from 'vitest';
import { choice } from '../test-support/questions';
import { wordDifferences } from './words';

describe('the differences of two questions in words', () => {
	it('are none for the same', () => {
		expect(wordDifferences(choice(), choice())).toEqual([]);
	});
	it('name the part, and show the words that went and came', () => {
		const before = choice();
		const after = choice({
			stem: before.stem.replace('warm', 'cold'),
			options: before.options.map((one, at) => (at === 1 ? { ...one, credit: 0.5 } : one)),
			points: 2
		});
		const found = wordDifferences(before, after);
		expect(found.map((one) => one.part)).toEqual(['stem', 'points', 'option 2']);
		expect(found[0]!.stretches.filter((one) => one.only).map((one) => [one.only, one.text])).toEqual([
			['before', 'warm'],
			['after', 'cold']
		]);
		expect(found[0]!.stretches.map((one) => (one.only === 'before' ? '' : one.text)).join('')).toBe(
			'Which cloud comes first as a cold front draws near?'
		);
	});
});
