import { Column, Names } from './compact';
import type { Entry } from './entry';

/** The files of a package: each has a number from 0, and a large package takes little memory. */
export class FileList implements Iterable<Entry> {
	readonly #paths = new Names();
	readonly #sizes = new Column(Float64Array);
	#small: { paths: Names; numbers: Column } | null = null;

	/** A list of files that are known from the start. */
	static of(entries: Iterable<Entry>): FileList {
		const list = new FileList();
		for (const { path, size } of entries) list.add(path, size);
		return list;
	}

	/** How many there are. */
	get length(): number {
		return this.#paths.length;
	}

	/** Puts a file in, or gives one that is there another size; gives its number. */
	add(path: string, size: number): number {
		const number = this.#paths.add(path);
		this.#sizes.set(number, size);
		this.#small = null;
		return number;
	}

	/** The number of a file, or -1 where it is not there. */
	number(path: string): number {
		return this.#paths.find(path);
	}

	/** The path of a file by its number. */
	path(number: number): string {
		return this.#paths.at(number);
	}

	/** The size of a file by its number, in bytes once unpacked. */
	size(number: number): number {
		return this.#sizes.at(number);
	}

	/** The path of a file by its name without regard to case, or null. */
	find(path: string): string | null {
		if (this.number(path) >= 0) return path;
		if (!this.#small) {
			const small = { paths: new Names(), numbers: new Column(Int32Array) };
			for (let number = 0; number < this.length; number += 1)
				small.numbers.set(small.paths.add(this.path(number).toLowerCase()), number);
			this.#small = small;
		}
		const found = this.#small.paths.find(path.toLowerCase());
		return found < 0 ? null : this.path(this.#small.numbers.at(found));
	}

	/** The first of them, which is the only one of a bare file. */
	get first(): Entry {
		return { path: this.path(0), size: this.size(0) };
	}

	*[Symbol.iterator](): Generator<Entry> {
		for (let number = 0; number < this.length; number += 1) yield { path: this.path(number), size: this.size(number) };
	}
}

/** A set of files of a list. */
export class FileSet {
	readonly #list: FileList;
	readonly #marks = new Column(Uint8Array);

	/** `list` is that of the package. */
	constructor(list: FileList) {
		this.#list = list;
	}

	/** Puts a file in; one that is not in the list is left out. */
	add(path: string): void {
		const number = this.#list.number(path);
		if (number >= 0) this.#marks.set(number, 1);
	}

	/** Whether a file is in it. */
	has(path: string): boolean {
		return this.#marks.at(this.#list.number(path)) === 1;
	}
}
