import { Column } from '../../container/compact';
import type { Container } from '../../container/container';
import { streamText } from '../../container/decode';
import type { FileList } from '../../container/file-list';
import type { Report } from '../../reports/report';
import type { Manifest } from './manifest';
import type { ResourceList } from './resources';

/** One document that may hold questions, with what is known of it before it is read. */
export interface Document {
	/** Its place in the list of them, from 0. */
	number: number;
	file: string;
	category: string[] | null;
	keywords: string[];
	difficulty: string | null;
	isTest: boolean;
	/** Whether the manifest lists it as a single item. */
	isItem: boolean;
	listed: boolean;
}

const none: string[] = [];

/** The documents of a package that may hold questions, in their order; a large package takes little memory. */
export class DocumentList implements Iterable<Document> {
	readonly #files: FileList;
	readonly #resources: ResourceList | null;
	readonly #file = new Column(Int32Array);
	/** The place of the resource of each, or -1. */
	readonly #resource = new Column(Int32Array);
	readonly #test = new Column(Uint8Array);

	/** `files` is the list of the package; `resources` are those of its manifest, where it has one. */
	constructor(files: FileList, resources: ResourceList | null) {
		this.#files = files;
		this.#resources = resources;
	}

	/** How many there are. */
	get length(): number {
		return this.#file.length;
	}

	/** Puts a file behind the others, with the place of its resource where the manifest lists it. */
	add(path: string, resource = -1): void {
		this.#file.push(this.#files.number(path));
		this.#resource.push(resource);
		this.#test.push(resource >= 0 && /test/.test(this.#resources!.at(resource).type) ? 1 : 0);
	}

	/** Notes that a document is a test, as its root element says. */
	markTest({ number }: Document): void {
		this.#test.set(number, 1);
	}

	/** A document by its place from 0. */
	at(number: number): Document {
		const place = this.#resource.at(number);
		const resource = place < 0 ? null : this.#resources!.at(place);
		return {
			number,
			file: this.#files.path(this.#file.at(number)),
			category: resource?.category ?? null,
			keywords: resource?.keywords ?? none,
			difficulty: resource?.difficulty ?? null,
			isTest: this.#test.at(number) === 1,
			isItem: resource !== null && /item/.test(resource.type),
			listed: resource !== null
		};
	}

	/** Whether the manifest says the category of any that is no test. */
	get anyCategory(): boolean {
		for (const document of this.of(false)) if (document.category !== null) return true;
		return false;
	}

	/** Those that are tests, or those that are not. */
	*of(tests: boolean): Generator<Document> {
		for (let number = 0; number < this.length; number += 1)
			if ((this.#test.at(number) === 1) === tests) yield this.at(number);
	}

	*[Symbol.iterator](): Generator<Document> {
		for (let number = 0; number < this.length; number += 1) yield this.at(number);
	}
}

/** The documents of a package that may hold questions, in the order of its manifest, with what is wrong with the list. */
export function documentsOf(
	container: Container,
	manifest: Manifest | null
): { documents: DocumentList; reports: Report[] } {
	const reports: Report[] = [];
	const { files } = container;
	const documents = new DocumentList(files, manifest?.resources ?? null);
	const seen = new Column(Uint8Array);
	if (manifest) seen.set(files.number(manifest.file), 1);
	let place = -1;
	for (const resource of manifest?.resources ?? []) {
		place += 1;
		for (const file of resource.files) {
			if (container.has(file)) continue;
			reports.push({
				rule: 'missing-file',
				severity: 'doubtful',
				message: `The manifest lists “${file}”, which is not in the package. If it held questions, they are not here: ask for the package again.`,
				place: { file: manifest!.file, line: resource.line }
			});
		}
		if (!resource.type.startsWith('imsqti') || resource.file === null) continue;
		const number = files.number(resource.file);
		if (number < 0 || seen.at(number)) continue;
		seen.set(number, 1);
		documents.add(resource.file, place);
	}
	const endings = manifest ? /\.xml$/i : /\.(xml|txt|text|md|markdown|csv|tsv|tab|json|jsonl)$/i;
	for (let number = 0; number < files.length; number += 1) {
		if (seen.at(number)) continue;
		const path = files.path(number);
		if (endings.test(path) && !/(^|\/)(imsmanifest\.xml$|__MACOSX\/|\._)/i.test(path)) documents.add(path);
	}
	return { documents, reports };
}

/**
 * The categories of items by their folders below `top`, where folders are all that tells items apart: by the number of
 * each document. Items of one folder share one list.
 */
export function folderCategories(documents: Iterable<Document>, top: string): Map<number, string[]> {
	const folders = new Map<string, string[]>();
	const folderOf = (file: string) => file.slice(file.startsWith(top) ? top.length : 0, file.lastIndexOf('/') + 1);
	const numbers = new Map<number, string>();
	for (const { number, file } of documents) {
		const folder = folderOf(file);
		if (!folders.has(folder)) folders.set(folder, folder.split('/').slice(0, -1));
		numbers.set(number, folder);
	}
	if (folders.size < 2) return new Map();
	const paths = [...folders.values()];
	let common = 0;
	while (paths.every((steps) => steps.length > common && steps[common] === paths[0]![common])) common += 1;
	const categories = new Map([...folders].map(([folder, steps]) => [folder, steps.slice(common)]));
	return new Map([...numbers].map(([number, folder]) => [number, categories.get(folder)!]));
}

/** The root element of a document, without reading further than that. */
export async function rootOf(container: Container, file: string): Promise<{ name: string; namespace: string } | null> {
	let head = '';
	for await (const piece of streamText(container, file, () => undefined)) {
		head += piece;
		// a text that only speaks of elements is no XML
		if (!/^\s*(<|$)/.test(head)) return null;
		const found = /<(?![?!])(?:[\w.-]+:)?([\w.-]+)([^>]*)/.exec(head.replace(/<!--[\s\S]*?-->/g, ''));
		if (found && (head.includes('>') || head.length > 65_536))
			return {
				name: found[1]!,
				namespace: /xmlns(?::[\w.-]+)?\s*=\s*["']([^"']*(?:qti|ims|yarn-barrow)[^"']*)["']/.exec(found[2]!)?.[1] ?? ''
			};
		if (head.length > 1 << 20) break;
	}
	return null;
}
