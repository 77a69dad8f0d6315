import * as fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { Decks } from './decks';
import { Generator } from './generator';

const other = new Generator('before');

describe('decks', () => {
	it('give what a shuffle gives, however many are taken at once and however large they are', () => {
		const deck = fc.record({
			values: fc.array(fc.nat(), { minLength: 1, maxLength: 400 }),
			takes: fc.array(fc.nat(40), { maxLength: 8 })
		});
		fc.assert(
			fc.property(fc.array(deck, { minLength: 1, maxLength: 4 }), fc.string(), (all, seed) => {
				const decks = new Decks(all.map(({ values }) => values));
				/** All that is drawn of each deck. */
				const drawn = (generator: Generator) =>
					all.map(({ values, takes }, which) => {
						const into = new Int32Array(values.length);
						let taken = 0;
						for (const wanted of takes) {
							const count = Math.min(wanted, values.length - taken);
							decks.take(which, generator, count, into, taken);
							taken += count;
						}
						return [...into.subarray(0, taken)];
					});
				// whatever was drawn before is gone once they are gathered
				drawn(other);
				for (const which of all.keys()) decks.gather(which);
				const generator = new Generator(seed);
				expect(drawn(new Generator(seed))).toEqual(
					all.map(({ values, takes }) => {
						const count = Math.min(
							values.length,
							takes.reduce((sum, wanted) => sum + wanted, 0)
						);
						return generator.shuffle(values, count).slice(0, count);
					})
				);
			})
		);
	});
});
