import { Column, Names, Texts } from '../../container/compact';
import type { FileList } from '../../container/file-list';

/** A resource of a manifest (Content Packaging 1.1.4, section 4.5). Paths are those of the package. */
export interface Resource {
	type: string;
	file: string | null;
	files: string[];
	/** The path of categories from its classification, outermost first; null where it has none, empty where it names none. */
	category: string[] | null;
	keywords: string[];
	difficulty: string | null;
	line: number;
}

/** Lists of texts that many resources share: each is kept once, and known by a number from 0. */
class SharedLists {
	readonly #keys = new Names();
	readonly #lists: string[][] = [];

	/** The number of a list. */
	number(list: string[]): number {
		const number = this.#keys.add(list.join('\n'));
		this.#lists[number] ??= list;
		return number;
	}

	/** The list of a number, the same each time. */
	at(number: number): string[] {
		return this.#lists[number]!;
	}
}

/** The resources of a manifest in its order, kept so that a hundred thousand of them take little memory. */
export class ResourceList implements Iterable<Resource> {
	readonly #container: FileList;
	/** Files that the manifest lists and that are not in the package; they are numbered downwards from -2. */
	readonly #absent = new Texts();
	readonly #words = new Names();
	readonly #lists = new SharedLists();
	readonly #type = new Column(Int32Array);
	readonly #difficulty = new Column(Int32Array);
	readonly #category = new Column(Int32Array);
	readonly #keywords = new Column(Int32Array);
	readonly #line = new Column(Int32Array);
	readonly #file = new Column(Int32Array);
	readonly #files = new Column(Int32Array);
	readonly #filesEnd = new Column(Int32Array);

	/** `files` is the list of the package. */
	constructor(files: FileList) {
		this.#container = files;
	}

	/** How many there are. */
	get length(): number {
		return this.#type.length;
	}

	#numberOf(path: string | null): number {
		if (path === null) return -1;
		const number = this.#container.number(path);
		return number >= 0 ? number : -2 - this.#absent.push(path);
	}

	#path(number: number): string {
		return number >= 0 ? this.#container.path(number) : this.#absent.at(-2 - number);
	}

	/** Puts a resource behind the others. */
	push({ type, file, files, category, keywords, difficulty, line }: Resource): void {
		this.#type.push(this.#words.add(type));
		this.#difficulty.push(difficulty === null ? -1 : this.#words.add(difficulty));
		this.#category.push(category === null ? -1 : this.#lists.number(category));
		this.#keywords.push(this.#lists.number(keywords));
		this.#line.push(line);
		this.#file.push(this.#numberOf(file));
		for (const one of files) this.#files.push(this.#numberOf(one));
		this.#filesEnd.push(this.#files.length);
	}

	/** A resource by its place from 0. */
	at(place: number): Resource {
		const [file, difficulty, category] = [this.#file.at(place), this.#difficulty.at(place), this.#category.at(place)];
		const files: string[] = [];
		for (let at = place ? this.#filesEnd.at(place - 1) : 0; at < this.#filesEnd.at(place); at += 1)
			files.push(this.#path(this.#files.at(at)));
		return {
			type: this.#words.at(this.#type.at(place)),
			file: file === -1 ? null : this.#path(file),
			files,
			category: category < 0 ? null : this.#lists.at(category),
			keywords: this.#lists.at(this.#keywords.at(place)),
			difficulty: difficulty < 0 ? null : this.#words.at(difficulty),
			line: this.#line.at(place)
		};
	}

	*[Symbol.iterator](): Generator<Resource> {
		for (let place = 0; place < this.length; place += 1) yield this.at(place);
	}
}
