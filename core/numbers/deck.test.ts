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
					for (const count of takes)
						for (let at = 0; at < Math.min(count, size - deck.taken); at += 1) deck.take(other);
					deck.gather();
					const generator = new Generator(seed);
					const drawn: number[] = [];
					for (const count of takes)
						for (let left = Math.min(count, size - drawn.length); left > 0; left -= 1) drawn.push(deck.take(generator));
					expect(drawn).toEqual(new Generator(seed).shuffle(values).slice(0, drawn.length));
					expect(drawn).toEqual(drawn.map((_, at) => deck.at(at)));
					expect(new Set(drawn).size).toBe(drawn.length);
				}
			)
		);
	});
});
