import { beginning, plainText } from '../markup/text';
import type { Question } from '../kinds';

const mostCompared = 2000;
const least = 0.6;
const shortest = 4;

const wordsOf = (question: Question) =>
	new Set(
		plainText(question.stem)
			.toLowerCase()
			.replace(/[^\p{L}\p{N}\s]/gu, ' ')
			.split(/\s+/)
			.filter(Boolean)
	);

function likeness(a: Set<string>, b: Set<string>): number {
	let both = 0;
	for (const word of a) if (b.has(word)) both += 1;
	return both / (a.size + b.size - both);
}

/**
 * Finds stems of one file that are almost the same, as its questions come. Likeness is that of Jaccard over words; stems
 * of fewer than four words are passed over, and so are the same ones. Only the first of a large file are compared, since
 * those of a load are all held against each other later.
 */
export class NearStems {
	readonly #seen: { words: Set<string>; stem: string }[] = [];

	/** A sentence for people about a stem that came before and is almost the same; null where there is none. */
	check(question: Question): string | null {
		if (this.#seen.length >= mostCompared) return null;
		const words = wordsOf(question);
		if (words.size < shortest) return null;
		for (const { words: others, stem } of this.#seen) {
			const value = likeness(words, others);
			if (value < least || value === 1) continue;
			this.#seen.push({ words, stem: question.stem });
			return `It reads almost like “${beginning(plainText(stem), 60)}” (${Math.round(value * 100)} percent of the words). Look whether both are wanted.`;
		}
		this.#seen.push({ words, stem: question.stem });
		return null;
	}
}
