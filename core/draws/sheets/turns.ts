import type { Generator } from '../../numbers/generator';
import { ratio } from './binomial';
import type { Network } from './network';

/** How many words of 32 bits a number takes. */
const wordsOf = (number: bigint) => Math.ceil(number.toString(16).length / 8);
/** The number that words of 32 bits make, the highest first. */
const numberOf = (words: readonly number[]) => words.reduce((sum, word) => (sum << 32n) | BigInt(word), 0n);

/** How far a share that is worked out with numbers of 53 bits may be off: its whole part takes 32 of them. */
const doubt = 1e-5;

/**
 * What comes next from a state of a network: its moves, each as likely as the fillings that it leads to are many. Each
 * filling is a whole number below the number of all of them, drawn with all its bits. Most
 * draws are decided by their first 96 bits; where these lie too near to where one move ends and the next begins, all of
 * them are looked at.
 */
export class Turn {
	/** The places of the moves in their step, and for each how many fillings there are by it and those before it. */
	readonly #moves: number[];
	readonly #ends: bigint[] = [];
	/** The same as shares of all, or as they are where all of them are small enough. */
	readonly #shares: Float64Array;
	readonly #limit: bigint;
	/** The number of all fillings where 32 bits hold it; else 0. */
	readonly #small: number;
	readonly #words: number;
	/** How often the limit goes into the range of its words, as it is and without the rest. */
	readonly #often: number;
	readonly #whole: number;

	constructor(network: Network, at: number, state: number, moves: number[]) {
		this.#limit = network.completions[at]![state]!;
		const { to, move } = network.moves[at]!;
		this.#moves = moves.filter((each) => network.completions[at + 1]![to[each]!]);
		let sum = 0n;
		for (const each of this.#moves)
			this.#ends.push((sum += network.ways(at, state, move[each]!) * network.completions[at + 1]![to[each]!]!));
		this.#small = this.#limit <= 2n ** 32n ? Number(this.#limit) : 0;
		this.#shares = Float64Array.from(this.#ends, (end) => (this.#small ? Number(end) : ratio(end, this.#limit)));
		this.#words = this.#small ? 1 : wordsOf(this.#limit);
		this.#often = this.#small ? 1 : ratio(1n << BigInt(32 * this.#words), this.#limit);
		this.#whole = Math.floor(this.#often);
	}

	/** Draws a move; gives its place in the step. */
	draw(generator: Generator): number {
		if (this.#moves.length === 1 && this.#small === 1) {
			generator.next();
			return this.#moves[0]!;
		}
		return this.#moves[this.#small ? this.#drawSmall(generator) : this.#drawLarge(generator)]!;
	}

	#drawSmall(generator: Generator): number {
		const rest = generator.below(this.#small);
		let at = 0;
		while (rest >= this.#shares[at]!) at += 1;
		return at;
	}

	#drawLarge(generator: Generator): number {
		for (;;) {
			const drawn = generator.ahead(this.#words);
			const high =
				((drawn[0]! * 2 ** 32 + drawn[1]!) / 2 ** 64 + (this.#words > 2 ? drawn[2]! / 2 ** 96 : 0)) * this.#often;
			// clearly in the uneven rest
			if (high > this.#whole + doubt) continue;
			const turns = Math.floor(high);
			const share = high - turns;
			const found = turns < this.#whole && share > doubt && share < 1 - doubt ? this.#clear(share) : -1;
			if (found >= 0) return found;
			const exact = this.#exact([...drawn.subarray(0, this.#words)]);
			if (exact >= 0) return exact;
		}
	}

	/** The move in which a share lies; -1 where it lies too near to its end or its beginning. */
	#clear(share: number): number {
		const shares = this.#shares;
		const last = shares.length - 1;
		let at = 0;
		while (at < last && share >= shares[at]!) at += 1;
		if (at < last && shares[at]! - share < doubt) return -1;
		return at > 0 && share - shares[at - 1]! < doubt ? -1 : at;
	}

	/** The same by all of the bits; -1 where they fall into the uneven rest, and are drawn anew. */
	#exact(drawn: readonly number[]): number {
		const range = 1n << BigInt(32 * this.#words);
		const value = numberOf(drawn);
		if (value >= range - (range % this.#limit)) return -1;
		const rest = value % this.#limit;
		return this.#ends.findIndex((end) => rest < end);
	}
}
