import { Column, Names, Texts } from '../container/compact';
import type { FoundPart } from '../model/quiz';

/** A question as a part of a quiz refers to it. */
export type QuestionReference = FoundPart['questions'][number];

/**
 * The questions of each bank of a package that has been read, by the bank's identifier. A question of a large package
 * takes little more than its identifier, however many banks it is in.
 */
export class Banks {
	readonly #identifiers = new Texts();
	readonly #files = new Names();
	readonly #file = new Column(Int32Array);
	readonly #place = new Column(Int32Array);
	readonly #banks = new Names();
	/** The numbers of the first and of the last question of a bank's first run, one more than they are; 0 is none. */
	readonly #first = new Column(Int32Array);
	readonly #last = new Column(Int32Array);
	/** The first and the last number of each further run, one behind the other. */
	readonly #more = new Map<number, number[]>();

	/** The number of each question by its identifier, once one has been asked for. */
	#byIdentifier: Map<string, number> | null = null;

	/** Notes a question, and the banks that it is in. */
	add({ identifier, file, place }: { identifier: string; file: string; place: number }, banks: Iterable<string>): void {
		const number = this.#identifiers.push(identifier);
		this.#byIdentifier = null;
		this.#file.push(this.#files.add(file));
		this.#place.push(place);
		for (const name of banks) {
			const bank = this.#banks.add(name);
			const more = this.#more.get(bank);
			const last = more?.at(-1) ?? this.#last.at(bank) - 1;
			if (!this.#first.at(bank)) this.#first.set(bank, number + 1);
			if (last < 0 || (!more && last === number - 1)) this.#last.set(bank, number + 1);
			else if (more && last === number - 1) more[more.length - 1] = number;
			else if (last !== number) this.#more.set(bank, [...(more ?? []), number, number]);
		}
	}

	/** The questions of a bank, in the order of the file, or undefined where there is no such bank. */
	get(name: string): QuestionReference[] | undefined {
		const bank = this.#banks.find(name);
		if (bank < 0) return undefined;
		const runs = [this.#first.at(bank) - 1, this.#last.at(bank) - 1, ...(this.#more.get(bank) ?? [])];
		const found: QuestionReference[] = [];
		for (let at = 0; at < runs.length; at += 2)
			for (let number = runs[at]!; number <= runs[at + 1]!; number += 1) found.push(this.#reference(number));
		return found;
	}

	/** The question of an identifier, the last where several have it; undefined where none has. */
	question(identifier: string): QuestionReference | undefined {
		if (!this.#byIdentifier) {
			this.#byIdentifier = new Map();
			for (let number = 0; number < this.#identifiers.length; number += 1)
				this.#byIdentifier.set(this.#identifiers.at(number), number);
		}
		const number = this.#byIdentifier.get(identifier);
		return number === undefined ? undefined : this.#reference(number);
	}

	#reference(number: number): QuestionReference {
		return {
			identifier: this.#identifiers.at(number),
			file: this.#files.at(this.#file.at(number)),
			place: this.#place.at(number)
		};
	}
}
