import { describe, expect, it } from 'vitest';
import type { Question } from '../kinds';
import { emptyCommon } from '../model/question';
import { choice, essay, numeric, option, short } from '../test-support/questions';
import { hasKey, withKeyMarked } from './keys';

const noKey = choice({ options: [option('A', 'Cirrus', 0), option('B', 'Stratus', 0)], lostKeys: ['Q'] });

describe('a key', () => {
	it('is there where some answer earns points', () => {
		expect(hasKey(choice())).toBe(true);
		expect(hasKey(short([{ text: 'isobar', credit: 1, caseSensitive: false }]))).toBe(true);
	});
	it('is not there where none does, or a person marks', () => {
		expect(hasKey(noKey)).toBe(false);
		expect(hasKey(short([]))).toBe(false);
		expect(hasKey(numeric([]))).toBe(false);
		expect(hasKey(essay())).toBe(false);
	});
});

describe('a key that the source named in vain', () => {
	const marked = { ...noKey, options: [option('A', 'Cirrus', 1), option('B', 'Stratus', 0)] };
	it('is settled once somebody marks the right option', () => {
		expect(withKeyMarked(noKey, marked)).toMatchObject({ lostKeys: [] });
	});
	it('stands while other things are changed', () => {
		expect(withKeyMarked(noKey, { ...noKey, stem: 'Which?' })).toMatchObject({ lostKeys: ['Q'] });
		const half = { ...marked, lostKeys: ['Q'] };
		expect(withKeyMarked(half, { ...half, stem: 'Which?' })).toMatchObject({ lostKeys: ['Q'] });
	});
	it('is settled in every kind, and stands where only words are written anew', () => {
		const item = (identifier: string, text = identifier) => ({ identifier, text });
		const order: Question = {
			...emptyCommon('GH-1', 'Mooring'),
			kind: 'ordering',
			lostKeys: ['q'],
			items: [item('a'), item('b')],
			presented: ['a', 'b'],
			rule: 'all',
			shuffle: true
		};
		expect(withKeyMarked(order, { ...order, items: [item('b'), item('a')] })).toMatchObject({ lostKeys: [] });
		expect(withKeyMarked(order, { ...order, items: [item('a', 'Bow'), item('b')] })).toMatchObject({ lostKeys: ['q'] });
	});
});
