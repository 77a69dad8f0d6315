/** The chance of 0, 1, 2 … of something. */
export type Distribution = number[];

/** The distribution of the sum of two things that are independent of one another. */
export function summed(one: Distribution, other: Distribution): Distribution {
	const sum = new Array<number>(one.length + other.length - 1).fill(0);
	one.forEach((a, at) => {
		if (a) other.forEach((b, and) => (sum[at + and]! += a * b));
	});
	return sum;
}

/** What is less likely than that is nothing: all of it together does not reach the fifteenth figure of a chance. */
const nothing = 1e-18;

/** A distribution without holes: what was not set never comes. */
export const filled = (of: Distribution): Distribution => Array.from(of, (chance) => chance ?? 0);

/** Distributions by keys, as the state that a draw is in, or the two states that two are in, one behind the other in memory. */
export class Distributions {
	/** A state; of two, the smaller one times how many there are, and the greater one. */
	readonly keys: number[] = [];
	/** How many chances each has room for, and how many of them count. */
	readonly lengths: number[] = [];
	chances: Float64Array;

	constructor(readonly size: number) {
		this.chances = new Float64Array(64 * size);
	}

	/** Makes room for one more; gives where it stands. */
	place(key: number): number {
		const place = this.keys.push(key) - 1;
		if ((place + 1) * this.size > this.chances.length) {
			const more = new Float64Array(this.chances.length * 2);
			more.set(this.chances);
			this.chances = more;
		}
		return place;
	}

	/** How long the longest is. */
	get longest(): number {
		return this.lengths.reduce((most, own) => Math.max(most, own), 1);
	}

	/** Leaves out what is as good as nothing at the end of each. */
	trim(): void {
		for (let place = 0; place < this.keys.length; place += 1) {
			let length = this.size;
			while (length > 1 && this.chances[place * this.size + length - 1]! < nothing) length -= 1;
			this.lengths[place] = length;
		}
	}

	/** Adds one of others to the one at a place, shifted by a distribution and times a chance. */
	add(place: number, others: Distributions, at: number, by: ArrayLike<number>, chance: number): void {
		const { chances: target, size } = this;
		const { chances: source } = others;
		const length = others.lengths[at]!;
		const from = at * others.size;
		for (let shift = 0; shift < by.length; shift += 1) {
			const factor = by[shift]! * chance;
			if (factor === 0) continue;
			const to = place * size + shift;
			const end = Math.min(length, size - shift);
			for (let each = 0; each < end; each += 1) target[to + each]! += source[from + each]! * factor;
		}
	}
}

/** Where the distribution of each key stands. */
export type Places = Pick<Map<number, number>, 'get'> & { set: (key: number, place: number) => unknown };

/** The same in a table, which is faster than a map. */
export class DensePlaces implements Places {
	readonly #places: Int32Array;

	/** `size` is one more than the greatest key. */
	constructor(size: number) {
		this.#places = new Int32Array(size).fill(-1);
	}

	get(key: number): number | undefined {
		const place = this.#places[key]!;
		return place < 0 ? undefined : place;
	}

	set(key: number, place: number): void {
		this.#places[key] = place;
	}
}
