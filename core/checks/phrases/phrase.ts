/** What letters stand for in patterns, as `\p{L}`: not letters themselves. */
const property = /\\p\{\w+\}/gu;

/** The same letters in small, each in its place: one that is two in small stays as it is. */
function inSmall(text: string): string {
	const small = text.toLowerCase();
	return small.length === text.length
		? small
		: text.replace(/\p{Lu}/gu, (letter) => {
				const lower = letter.toLowerCase();
				return lower.length === letter.length ? lower : letter;
			});
}

/**
 * A pattern that is looked for in any case. It is written in small letters and held against a text in small letters: a
 * pattern for letters of either case takes three times as long to be made ready, which each thread does anew.
 */
export class Phrase {
	readonly #pattern: RegExp;

	/** Throws where the pattern has a capital, which is never found. */
	constructor(source: string) {
		const [capital] = /\p{Lu}/u.exec(source.replace(property, '')) ?? [];
		if (capital)
			throw new Error(`A phrase is written in small letters, and “${capital}” is none: ${source.slice(0, 80)}`);
		this.#pattern = new RegExp(source, 'u');
	}

	/** The words of a text that fit, as they stand there, and from which letter on; null where none do. */
	in(text: string): { words: string; at: number } | null {
		const found = this.#pattern.exec(inSmall(text));
		return found && { words: text.slice(found.index, found.index + found[0].length), at: found.index };
	}

	/** Whether a text has it. */
	isIn(text: string): boolean {
		return this.#pattern.test(inSmall(text));
	}
}

/** Any of some patterns as whole words: `\b` of regular expressions knows letters of English alone. */
export const phrase = (...alternatives: string[]): Phrase =>
	new Phrase(`(?<![\\p{L}\\p{N}])(?:${alternatives.join('|')})(?![\\p{L}\\p{N}])`);

/** The same where a sentence, or what stands in brackets or behind a comma, begins with it: something that one is told to do. */
export const told = (...alternatives: string[]): Phrase =>
	new Phrase(
		`(?:^|[.?!:;,(\\[–—-]\\s*|(?<![\\p{L}\\p{N}])(?:please|now|bitte|veuillez|por favor|per favore|graag)\\s+)(?:${alternatives.join('|')})(?![\\p{L}\\p{N}-])`
	);

/** A sentence or a part of one, whole. */
export const wholly = (...alternatives: string[]): Phrase => new Phrase(`^(?:${alternatives.join('|')})$`);
