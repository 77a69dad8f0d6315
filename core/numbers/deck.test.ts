import * as fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { Deck } from './deck';
import { Generator } from './generator';

const other = new Generator('before');

describe('a deck', () => {
	it('gives what a shuffle gives, however many are taken at once and however large it is', () => {
		fc.assert(
			fc.property(
				fc.integer({ min: 1, max: 400 }),
				fc.array(fc.nat(40), { maxLength: 8 }),
				fc.string(),
				(size, takes, seed) => {
					const values = Array.from({ length: size }, (_, at) => at);
					const deck = new Deck(size);
					// whatever was drawn before is gone once it is gathered
					for (const count of takes) deck.take(other, Math.min(count, size - deck.taken), []);
					deck.gather();
					const generator = new Generator(seed);
					const drawn: number[] = [];
					for (const count of takes) deck.take(generator, Math.min(count, size - deck.taken), drawn);
					expect(drawn).toEqual(new Generator(seed).shuffle(values).slice(0, drawn.length));
					expect(new Set(drawn).size).toBe(drawn.length);
				}
			)
		);
	});
});
