import type { Generator } from './generator';

/** Up to so many values are copied; of more, only those that moved are noted. What is drawn is the same. */
const mostCopied = 256;

/** Values that are drawn one after the other, each of those that are left as likely as any other (Fisher and Yates, as far as it is needed). */
export class Deck<T> {
	readonly #values: readonly T[];
	readonly #copy: T[] | null;
	/** For places whose value moved, the place that it moved from. */
	readonly #moved = new Map<number, number>();
	#drawn = 0;

	constructor(values: readonly T[]) {
		this.#values = values;
		this.#copy = values.length <= mostCopied ? [...values] : null;
	}

	/** Draws so many; there have to be as many left. */
	take(count: number, generator: Generator): T[] {
		return Array.from({ length: count }, () => this.#next(generator));
	}

	#next(generator: Generator): T {
		const at = this.#drawn;
		const left = this.#values.length - at;
		const other = left > 1 ? at + generator.below(left) : at;
		this.#drawn += 1;
		if (this.#copy) {
			const value = this.#copy[other]!;
			this.#copy[other] = this.#copy[at]!;
			return value;
		}
		const from = this.#moved.get(other) ?? other;
		this.#moved.set(other, this.#moved.get(at) ?? at);
		return this.#values[from]!;
	}
}
