import { isUneven, rest, type Generator } from './generator';

/**
 * The places of so many values, drawn one after the other, each of those that are left as likely as any other (Fisher and
 * Yates, as far as it is needed). It is gathered again at the price of what was drawn, however large it is.
 */
export class Deck {
	readonly #places: Int32Array;
	/** Where in the deck each one was drawn from, and what stood there; only the first so many count. */
	readonly #from: Int32Array;
	readonly #drawn: Int32Array;
	#taken = 0;

	constructor(size: number) {
		this.#places = Int32Array.from({ length: size }, (_, at) => at);
		this.#from = new Int32Array(size);
		this.#drawn = new Int32Array(size);
	}

	/** How many were drawn since it was gathered. */
	get taken(): number {
		return this.#taken;
	}

	/** Puts all that was drawn back where it was. */
	gather(): void {
		for (let at = this.#taken - 1; at >= 0; at -= 1) this.#places[this.#from[at]!] = this.#drawn[at]!;
		this.#taken = 0;
	}

	/** Draws so many, of which there have to be as many left, to the end of a list; with `names`, what stands at each place there. */
	take(generator: Generator, count: number, into: number[], names: Int32Array | null = null): void {
		const places = this.#places;
		const from = this.#from;
		const drawn = this.#drawn;
		const size = places.length;
		const first = this.#taken;
		const end = first + count;
		// the only one that is left is not drawn for
		const sure = end === size ? count - 1 : count;
		const words = generator.ahead(sure);
		let read = 0;
		for (let at = first; at < end; at += 1) {
			const left = size - at;
			let other = at;
			if (left > 1) {
				let word = read < sure ? words[read]! : generator.next();
				for (read += 1; isUneven(word, left); read += 1) word = read < sure ? words[read]! : generator.next();
				other = at + rest(word, left);
			}
			const value = places[other]!;
			places[other] = places[at]!;
			from[at] = other;
			drawn[at] = value;
			into.push(names ? names[value]! : value);
		}
		this.#taken = end;
	}
}
