import type { Question } from '../kinds';
import type { FoundPart } from '../model/quiz';

/** The questions of a package in the order in which they are read, to be found again by what a quiz says of them. */
export class QuestionPlaces {
	#count = 0;
	/** The first and the last question of each file; those of one file come one after the other. */
	readonly #inFile = new Map<string, { first: number; last: number }>();
	readonly #byIdentifier = new Map<string, number>();

	/** Notes the next question; gives its place among all, from 1. */
	add({ identifier, source }: Question): number {
		this.#count += 1;
		this.#byIdentifier.set(identifier, this.#count);
		const known = source && this.#inFile.get(source.file);
		if (known) known.last = this.#count;
		else if (source) this.#inFile.set(source.file, { first: this.#count, last: this.#count });
		return this.#count;
	}

	/** The place of the question that a part of a quiz refers to, from 1; undefined where there is none. */
	find({ identifier, file, place }: FoundPart['questions'][number]): number | undefined {
		if (file === null) return this.#byIdentifier.get(identifier);
		const found = this.#inFile.get(file);
		if (!found || place === undefined) return found?.last;
		return found.first + place - 1 <= found.last ? found.first + place - 1 : undefined;
	}
}
