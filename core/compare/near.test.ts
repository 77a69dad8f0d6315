import * as fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { Generator } from '../draws/generator';
import { choice } from '../test-support/questions';
import { likeness, NearIndex, wordingOf, wordSet, type WordSet } from './near';

describe('likeness', () => {
	it('is all for the same words in any order and case, and nothing for others', () => {
		expect(likeness(wordSet('High water, springs!'), wordSet('springs: HIGH water'))).toBe(1);
		expect(likeness(wordSet('high water'), wordSet('reef knot'))).toBe(0);
		expect(likeness(wordSet('a b c'), wordSet('b c d'))).toBeCloseTo(0.5);
	});
	it('looks at what is offered too, not only at what is asked', () => {
		expect(wordingOf(choice())).toContain('Cirrus');
	});
});

function bruteForce(sets: WordSet[], set: WordSet, least: number): number {
	return Math.max(0, ...sets.map((other) => likeness(set, other)).filter((value) => value >= least));
}

describe('the index of near ones', () => {
	it('finds just what looking at all of them finds', () => {
		const words = fc.array(fc.nat(60), { minLength: 0, maxLength: 14 });
		fc.assert(
			fc.property(fc.array(words, { maxLength: 40 }), words, fc.constantFrom(0.5, 0.7, 0.9), (lists, asked, least) => {
				const sets = lists.map((list) => wordSet(list.join(' ')));
				const set = wordSet(asked.join(' '));
				const found = new NearIndex(sets, least).nearest(set);
				// two empty texts are the same, and are no near duplicates that anybody wants to hear of
				expect(set.length ? (found?.likeness ?? 0) : 0).toBe(set.length ? bruteForce(sets, set, least) : 0);
			}),
			{ numRuns: 300 }
		);
	});
	it('finds every one that was changed by a word or two among thousands', () => {
		const random = new Generator('near');
		const sentence = () => Array.from({ length: 24 }, () => `w${random.below(3000)}`);
		const lists = Array.from({ length: 2000 }, sentence);
		const index = new NearIndex(
			lists.map((list) => wordSet(list.join(' '))),
			0.75
		);
		for (let at = 0; at < 200; at += 1) {
			const list = [...lists[at * 7]!];
			list[random.below(24)] = 'otherwise';
			expect(index.nearest(wordSet(list.join(' ')))?.at).toBe(at * 7);
		}
	});
});
