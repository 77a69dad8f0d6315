import { isUneven, rest, type Generator } from './generator';

/**
 * Decks of values, from each of which one after the other is drawn, each of those that are left as likely as any other
 * (Fisher and Yates, as far as it is needed). A deck is gathered again at the price of what was drawn, however large it is.
 * All of them lie close together in memory.
 */
export class Decks {
	/** Where the values of each deck begin, and how many were drawn of it. */
	readonly #begins: Int32Array;
	readonly #taken: Int32Array;
	readonly #sizes: Int32Array;
	/** The values of each deck in the order that they stand in now, and in which they stood at first. */
	readonly #values: Int32Array;
	readonly #first: Int32Array;
	/** Where in the deck each one was drawn from; only the first so many count. */
	readonly #from: Int32Array;

	constructor(decks: readonly (readonly number[])[]) {
		let all = 0;
		this.#begins = Int32Array.from(decks, ({ length }) => (all += length) - length);
		this.#sizes = Int32Array.from(decks, ({ length }) => length);
		this.#taken = new Int32Array(decks.length);
		this.#from = new Int32Array(all);
		this.#values = new Int32Array(all);
		decks.forEach((values, deck) => this.#values.set(values, this.#begins[deck]));
		this.#first = this.#values.slice();
	}

	/** Puts all that was drawn of a deck back where it was. */
	gather(deck: number): void {
		const values = this.#values;
		const first = this.#first;
		const from = this.#from;
		const begin = this.#begins[deck]!;
		const end = begin + this.#taken[deck]!;
		for (let at = begin; at < end; at += 1) {
			values[at] = first[at]!;
			values[from[at]!] = first[from[at]!]!;
		}
		this.#taken[deck] = 0;
	}

	/** Draws so many of a deck, of which there have to be as many left, into a list from a place on. */
	take(deck: number, generator: Generator, count: number, into: Int32Array, place: number): void {
		const values = this.#values;
		const from = this.#from;
		const first = this.#begins[deck]! + this.#taken[deck]!;
		const end = this.#begins[deck]! + this.#sizes[deck]!;
		// the only one that is left is not drawn for
		const sure = first + count === end ? count - 1 : count;
		const words = generator.ahead(sure);
		let read = 0;
		for (let at = first; at < first + count; at += 1) {
			const left = end - at;
			let other = at;
			if (left > 1) {
				let word = read < sure ? words[read]! : generator.next();
				for (read += 1; isUneven(word, left); read += 1) word = read < sure ? words[read]! : generator.next();
				other = at + rest(word, left);
			}
			const value = values[other]!;
			values[other] = values[at]!;
			values[at] = value;
			from[at] = other;
			into[place + at - first] = value;
		}
		this.#taken[deck]! += count;
	}
}
