import type { Generator } from './generator';

/**
 * The places of so many values, drawn one after the other, each of those that are left as likely as any other (Fisher and
 * Yates, as far as it is needed). It is gathered again at the price of what was drawn, however large it is.
 */
export class Deck {
	readonly #places: Int32Array;
	/** Where in the deck each one was drawn from, and what stood there; only the first so many count. */
	readonly #from: number[] = [];
	readonly #drawn: number[] = [];
	#taken = 0;

	constructor(size: number) {
		this.#places = Int32Array.from({ length: size }, (_, at) => at);
	}

	/** How many were drawn since it was gathered. */
	get taken(): number {
		return this.#taken;
	}

	/** The one that was drawn at a place, from 0. */
	at(place: number): number {
		return this.#drawn[place]!;
	}

	/** Puts all that was drawn back where it was. */
	gather(): void {
		for (let at = this.#taken - 1; at >= 0; at -= 1) this.#places[this.#from[at]!] = this.#drawn[at]!;
		this.#taken = 0;
	}

	/** Draws one, and gives it; there has to be one left. */
	take(generator: Generator): number {
		const at = this.#taken;
		const left = this.#places.length - at;
		const other = left > 1 ? at + generator.below(left) : at;
		const value = this.#places[other]!;
		this.#places[other] = this.#places[at]!;
		this.#from[at] = other;
		this.#drawn[at] = value;
		this.#taken = at + 1;
		return value;
	}
}
