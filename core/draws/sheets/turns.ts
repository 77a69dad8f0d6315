import type { Generator } from '../../numbers/generator';
import { ratio } from './binomial';
import type { Network } from './network';

/** How many words of 32 bits a number takes. */
const wordsOf = (number: bigint) => Math.ceil(number.toString(16).length / 8);
/** The number that words of 32 bits make, the highest first. */
const numberOf = (words: readonly number[]) => words.reduce((sum, word) => (sum << 32n) | BigInt(word), 0n);

/** How far a share that is worked out with numbers of 53 bits may be off: its whole part takes 32 of them. */
const doubt = 1e-5;

/** What is known of a turn, in the order in which it stands in the list of numbers; behind it the ends, then for each move what it is and where it leads. */
const [words, small, often, whole, moves, ends] = [0, 1, 2, 3, 4, 5] as const;

/**
 * What comes next from each state of a network: its moves, each as likely as the fillings that it leads to are many. Each
 * filling is a whole number below the number of all of them, drawn with all its bits. Most draws are decided by their
 * first 96 bits; where these lie too near to where one move ends and the next begins, all of them are looked at. All that
 * is known of the turns that were come to stands in one list of numbers.
 */
export class Turns {
	/** Move by move, what it is and the state that it leads to, at the places that `draw` gives. */
	numbers = new Float64Array(256);
	#length = 0;
	/** Where the states of each step begin, and where in the list each of them stands; -1 where it was not come to yet. */
	readonly #begins: number[] = [];
	readonly #places: Int32Array;
	/** For each state, how many fillings there are by each move and those before it. */
	readonly #ends = new Map<number, bigint[]>();
	/** The moves of each step by the state that they begin in. */
	readonly #moves: number[][][];

	constructor(readonly network: Network) {
		let states = 0;
		for (const layer of network.layers) this.#begins.push((states += layer.states.length) - layer.states.length);
		this.#places = new Int32Array(states).fill(-1);
		this.#moves = network.moves.map(({ from }, at) => {
			const lists: number[][] = network.layers[at]!.states.map(() => []);
			from.forEach((state, each) => lists[state]!.push(each));
			return lists;
		});
	}

	/** Draws a move from a state before a step; gives its place in `numbers`, behind which stands the state that it leads to. */
	draw(at: number, state: number, generator: Generator): number {
		const node = this.#begins[at]! + state;
		let place = this.#places[node]!;
		if (place < 0) place = this.#places[node] = this.#add(at, state);
		const { numbers } = this;
		const count = numbers[place + moves]!;
		const first = place + ends + count;
		if (count === 1 && numbers[place + small] === 1) {
			generator.next();
			return first;
		}
		const chosen =
			numbers[place + small]! > 0 ? this.#drawSmall(place, generator) : this.#drawLarge(node, place, generator);
		return first + 2 * chosen;
	}

	/** Writes down a turn; gives its place. */
	#add(at: number, state: number): number {
		const { completions } = this.network;
		const limit = completions[at]![state]!;
		const { to, move } = this.network.moves[at]!;
		const open = this.#moves[at]![state]!.filter((each) => completions[at + 1]![to[each]!]);
		let sum = 0n;
		const sums = open.map(
			(each) => (sum += this.network.ways(at, state, move[each]!) * completions[at + 1]![to[each]!]!)
		);
		this.#ends.set(this.#begins[at]! + state, sums);
		const isSmall = limit <= 2n ** 32n;
		const size = isSmall ? 1 : wordsOf(limit);
		const times = isSmall ? 1 : ratio(1n << BigInt(32 * size), limit);
		const known = [
			...[size, isSmall ? Number(limit) : 0, times, Math.floor(times), open.length],
			...sums.map((end) => (isSmall ? Number(end) : ratio(end, limit))),
			...open.flatMap((each) => [move[each]!, to[each]!])
		];
		const place = this.#length;
		this.#length += known.length;
		if (this.#length > this.numbers.length) {
			const more = new Float64Array(2 * this.#length);
			more.set(this.numbers);
			this.numbers = more;
		}
		this.numbers.set(known, place);
		return place;
	}

	#drawSmall(place: number, generator: Generator): number {
		const { numbers } = this;
		const drawn = generator.below(numbers[place + small]!);
		let at = 0;
		while (drawn >= numbers[place + ends + at]!) at += 1;
		return at;
	}

	#drawLarge(node: number, place: number, generator: Generator): number {
		const { numbers } = this;
		const size = numbers[place + words]!;
		for (;;) {
			const drawn = generator.ahead(size);
			const high =
				((drawn[0]! * 2 ** 32 + drawn[1]!) / 2 ** 64 + (size > 2 ? drawn[2]! / 2 ** 96 : 0)) * numbers[place + often]!;
			// clearly in the uneven rest
			if (high > numbers[place + whole]! + doubt) continue;
			const turns = Math.floor(high);
			const share = high - turns;
			const found =
				turns < numbers[place + whole]! && share > doubt && share < 1 - doubt ? this.#clear(place, share) : -1;
			if (found >= 0) return found;
			const exact = this.#exact(node, [...drawn.subarray(0, size)]);
			if (exact >= 0) return exact;
		}
	}

	/** The move in which a share lies; -1 where it lies too near to its end or its beginning. */
	#clear(place: number, share: number): number {
		const { numbers } = this;
		const first = place + ends;
		const last = first + numbers[place + moves]! - 1;
		let at = first;
		while (at < last && share >= numbers[at]!) at += 1;
		if (at < last && numbers[at]! - share < doubt) return -1;
		return at > first && share - numbers[at - 1]! < doubt ? -1 : at - first;
	}

	/** The same by all of the bits; -1 where they fall into the uneven rest, and are drawn anew. */
	#exact(node: number, drawn: readonly number[]): number {
		const sums = this.#ends.get(node)!;
		const limit = sums.at(-1)!;
		const range = 1n << BigInt(32 * drawn.length);
		const value = numberOf(drawn);
		if (value >= range - (range % limit)) return -1;
		return sums.findIndex((end) => value % limit < end);
	}
}
