/** How many values a range with a step has: at least one, and no more than can be drawn from (2^53). */
export function stepsIn(least: number, most: number, step: number): number {
	const count = Math.floor((most - least) / step + 1e-9) + 1;
	return count >= 1 ? Math.min(count, 2 ** 53) : 1;
}

/** Whether a number from 0 to 2^32 - 1 is one of the uneven rest that a limit of at most 2^32 leaves, and is not taken. */
export const isUneven = (word: number, limit: number): boolean =>
	word >= 2 ** 32 - limit && word >= 2 ** 32 - (2 ** 32 % limit);

/** One through each of the limits that are asked again and again. */
const inverses = Float64Array.from({ length: 4096 }, (_, limit) => 1 / limit);

/**
 * What is left of a whole number of at most 32 bits by another one: the same as `%`, for limits below 4,096 far sooner.
 * The quotient by the inverse is off by one at the most.
 */
export function rest(word: number, limit: number): number {
	if (limit >= inverses.length) return word % limit;
	const quotient = (word * inverses[limit]!) >>> 0;
	const left = ((word | 0) - Math.imul(quotient, limit)) | 0;
	return left < 0 ? left + limit : left >= limit ? left - limit : left;
}

/** What was drawn ahead last. */
let drawnAhead = new Uint32Array(64);

/**
 * A stream of random 32-bit numbers from a seed: xoshiro128** 1.1 (Blackman and Vigna, 2018), whose state is filled
 * by splitmix32 from the 32-bit FNV-1a hash of the seed's UTF-16 units. The same seed gives the same stream for ever:
 * sittings that were handed out depend on it, so neither may be changed.
 */
export class Generator {
	readonly #state = new Uint32Array(4);

	constructor(seed: string) {
		let hash = 0x811c9dc5;
		for (let at = 0; at < seed.length; at += 1) {
			hash = Math.imul(hash ^ (seed.charCodeAt(at) & 0xff), 0x01000193);
			hash = Math.imul(hash ^ (seed.charCodeAt(at) >>> 8), 0x01000193);
		}
		for (let at = 0; at < 4; at += 1) {
			hash = (hash + 0x9e3779b9) | 0;
			let mixed = hash ^ (hash >>> 16);
			mixed = Math.imul(mixed, 0x21f0aaad);
			mixed ^= mixed >>> 15;
			mixed = Math.imul(mixed, 0x735a2d97);
			this.#state[at] = mixed ^ (mixed >>> 15);
		}
	}

	/** The next whole number from 0 to 2^32 - 1. */
	next(): number {
		const s = this.#state;
		const times5 = Math.imul(s[1]!, 5);
		const result = Math.imul((times5 << 7) | (times5 >>> 25), 9) >>> 0;
		const shifted = s[1]! << 9;
		s[2]! ^= s[0]!;
		s[3]! ^= s[1]!;
		s[1]! ^= s[2]!;
		s[0]! ^= s[3]!;
		s[2]! ^= shifted;
		s[3] = (s[3]! << 11) | (s[3]! >>> 21);
		return result;
	}

	/** The next so many of them, the same that as many calls of `next` give, and faster. They stand until some are drawn ahead again, by whichever generator. */
	ahead(count: number): Uint32Array {
		if (drawnAhead.length < count) drawnAhead = new Uint32Array(count * 2);
		const into = drawnAhead;
		const state = this.#state;
		let a = state[0]! | 0;
		let b = state[1]! | 0;
		let c = state[2]! | 0;
		let d = state[3]! | 0;
		for (let at = 0; at < count; at += 1) {
			const times5 = Math.imul(b, 5);
			into[at] = Math.imul((times5 << 7) | (times5 >>> 25), 9);
			const shifted = b << 9;
			c ^= a;
			d ^= b;
			b ^= c;
			a ^= d;
			c ^= shifted;
			d = (d << 11) | (d >>> 21);
		}
		state[0] = a;
		state[1] = b;
		state[2] = c;
		state[3] = d;
		return into;
	}

	/** A whole number from 0 to `limit` - 1, each as likely as any other (rejection of the uneven rest). Throws a RangeError where there is none, or `limit` is above 2^53. */
	below(limit: number): number {
		if (!(limit >= 1) || limit > 2 ** 53) throw new RangeError(`no whole number can be drawn below ${limit}`);
		if (limit <= 2 ** 32) {
			const fair = 2 ** 32 - (2 ** 32 % limit);
			for (;;) {
				const value = this.next();
				if (value < fair) return value % limit;
			}
		}
		// more than one draw of 32 bits can tell apart takes two, of which 53 bits are a whole number
		const fair = 2 ** 53 - (2 ** 53 % limit);
		for (;;) {
			const value = this.next() * 2 ** 21 + (this.next() >>> 11);
			if (value < fair) return value % limit;
		}
	}

	/** Puts the values from a place to another one of a list into a random order where they are, the same as `shuffle` gives. */
	mix(values: Int32Array, begin: number, end: number): void {
		const count = end - begin - 1;
		const words = this.ahead(count);
		let read = 0;
		for (let at = begin; at < end - 1; at += 1) {
			const left = end - at;
			let word = read < count ? words[read]! : this.next();
			for (read += 1; isUneven(word, left); read += 1) word = read < count ? words[read]! : this.next();
			const other = at + rest(word, left);
			const held = values[at]!;
			values[at] = values[other]!;
			values[other] = held;
		}
	}

	/** The values in a random order (Fisher and Yates); with `count`, the first so many of it. */
	shuffle<T>(values: readonly T[], count = values.length): T[] {
		const copy = [...values];
		for (let at = 0; at < count && at < copy.length - 1; at += 1) {
			const other = at + this.below(copy.length - at);
			const held = copy[at]!;
			copy[at] = copy[other]!;
			copy[other] = held;
		}
		return count < copy.length ? copy.slice(0, count) : copy;
	}
}
