/** A set of words as sorted distinct 32-bit numbers: the FNV-1a hashes of the words of a question. */
export type WordSet = Uint32Array;

function hashOf(word: string): number {
	let hash = 0x811c9dc5;
	for (let at = 0; at < word.length; at += 1) hash = Math.imul(hash ^ word.charCodeAt(at), 0x01000193);
	return hash >>> 0;
}

/** Of more words than any question has, so many stand for all: those with the lowest hashes, as in a sketch (Broder, 1997). */
const mostWords = 10_000;

/** The words of a text, without regard to case and signs. */
export function wordSet(text: string): WordSet {
	const words = text.toLowerCase().match(/[\p{L}\p{N}]+/gu) ?? [];
	return Uint32Array.from(new Set(words.map(hashOf)))
		.sort()
		.slice(0, mostWords);
}

/** How much two sets have in common: 1 for the same, 0 for nothing (Jaccard). */
export function likeness(a: WordSet, b: WordSet): number {
	if (!a.length && !b.length) return 1;
	let both = 0;
	for (let x = 0, y = 0; x < a.length && y < b.length;)
		if (a[x] === b[y]) {
			both += 1;
			x += 1;
			y += 1;
		} else if (a[x]! < b[y]!) x += 1;
		else y += 1;
	return both / (a.length + b.length - both);
}

/** The nearest question to one, by its place in the index. */
export interface Near {
	at: number;
	likeness: number;
}

/** How many of a set, the rarest first, have to be looked up so that nothing as like as `least` can be missed. */
const prefixOf = (size: number, least: number) => size - Math.ceil(least * size) + 1;

/**
 * Finds for a set of words the most like one among many, where it is at least `least` like it. It misses none: two
 * sets that are so like each other share one of their rarest words (prefix filter; Bayardo, Ma and Srikant, 2007).
 */
export class NearIndex {
	readonly #sets: WordSet[];
	readonly #least: number;
	readonly #frequency = new Map<number, number>();
	readonly #byWord = new Map<number, number[]>();

	constructor(sets: WordSet[], least: number) {
		this.#sets = sets;
		this.#least = least;
		for (const set of sets) for (const word of set) this.#frequency.set(word, (this.#frequency.get(word) ?? 0) + 1);
		sets.forEach((set, at) => {
			for (const word of this.#rarest(set)) {
				const known = this.#byWord.get(word);
				if (known) known.push(at);
				else this.#byWord.set(word, [at]);
			}
		});
	}

	#rarest(set: WordSet): number[] {
		if (!set.length) return [];
		return [...set]
			.sort((a, b) => (this.#frequency.get(a) ?? 0) - (this.#frequency.get(b) ?? 0) || a - b)
			.slice(0, prefixOf(set.length, this.#least));
	}

	/** The most like of all, the first of several that are; null where none is like enough. */
	nearest(set: WordSet): Near | null {
		let best: Near | null = null;
		const seen = new Set<number>();
		for (const word of this.#rarest(set))
			for (const at of this.#byWord.get(word) ?? []) {
				if (seen.has(at)) continue;
				seen.add(at);
				const other = this.#sets[at]!;
				if (Math.min(other.length, set.length) < this.#least * Math.max(other.length, set.length)) continue;
				const value = likeness(set, other);
				if (value >= this.#least && (!best || value > best.likeness || (value === best.likeness && at < best.at)))
					best = { at, likeness: value };
			}
		return best;
	}
}
