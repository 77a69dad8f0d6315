import * as fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { Generator } from '../numbers/generator';
import { exampleQuestions } from '../formats/examples';
import type { Question } from '../kinds';
import { choice } from '../test-support/questions';
import { likeness, NearIndex, wordSet, type WordSet } from './near';
import { wordingOf } from './wording';

describe('likeness', () => {
	it('is all for the same words in any order and case, and nothing for others', () => {
		expect(likeness(wordSet('High water, springs!'), wordSet('springs: HIGH water'))).toBe(1);
		expect(likeness(wordSet('high water'), wordSet('reef knot'))).toBe(0);
		expect(likeness(wordSet('a b c'), wordSet('b c d'))).toBeCloseTo(0.5);
	});
	it('looks at what is offered too, not only at what is asked', () => {
		expect(wordingOf(choice())).toContain('Cirrus');
	});
	it('tells questions of one stem apart by their labels, blanks, numbers, places and pictures', () => {
		const like = (a: Question, b: Question) => likeness(wordSet(wordingOf(a)), wordSet(wordingOf(b)));
		for (const question of exampleQuestions.filter(
			({ kind }) => !['essay', 'information', 'file-upload'].includes(kind)
		)) {
			// everything that is offered is another thing, and the stem the same
			const text = JSON.stringify({
				...question,
				stem: '',
				title: '',
				identifier: '',
				category: [],
				feedback: {},
				hints: [],
				source: null
			});
			const other = JSON.parse(
				text
					.replace(/"(text|expression|fragment|alt)":"/g, '"$1":"Otherwise ')
					.replace(/"(value|min|max)":\d/g, '"$1":77')
			) as Question;
			const changed = { ...other, stem: question.stem, feedback: question.feedback };
			expect([question.kind, like(question, question)]).toEqual([question.kind, 1]);
			expect(like(question, changed), question.kind).toBeLessThan(1);
		}
		const pictured = (hash: string) =>
			choice({ attachments: [{ name: 'a.png', mediaType: 'image/png', hash, missing: false }] });
		expect(like(pictured('aa'), pictured('bb'))).toBeLessThan(1);
	});
	it('holds no more words than a column does, whatever a question says', () => {
		const words = Array.from({ length: 60_000 }, (_, at) => `w${at}`).join(' ');
		expect(wordSet(words).byteLength).toBeLessThan(65_000);
		expect(likeness(wordSet(words), wordSet(words))).toBe(1);
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
