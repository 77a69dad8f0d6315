import type { Container } from '../../container/container';
import { streamText } from '../../container/decode';
import type { Report } from '../../reports/report';
import type { Manifest } from './manifest';

/** One document that may hold questions, with what is known of it before it is read. */
export interface Document {
	file: string;
	category: string[] | null;
	keywords: string[];
	difficulty: string | null;
	isTest: boolean;
	/** Whether the manifest lists it as a single item. */
	isItem: boolean;
	listed: boolean;
}

/** The documents of a package that may hold questions, in the order of its manifest, with what is wrong with the list. */
export function documentsOf(
	container: Container,
	manifest: Manifest | null
): { documents: Document[]; reports: Report[] } {
	const reports: Report[] = [];
	const documents: Document[] = [];
	const seen = new Set<string>(manifest ? [manifest.file] : []);
	for (const resource of manifest?.resources ?? []) {
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
		if (!container.has(resource.file) || seen.has(resource.file)) continue;
		seen.add(resource.file);
		documents.push({
			file: resource.file,
			category: resource.category,
			keywords: resource.keywords,
			difficulty: resource.difficulty,
			isTest: /test/.test(resource.type),
			isItem: /item/.test(resource.type),
			listed: true
		});
	}
	const endings = manifest ? /\.xml$/i : /\.(xml|txt|text|md|markdown|csv|tsv|tab|json|jsonl)$/i;
	for (const { path } of container.entries)
		if (endings.test(path) && !seen.has(path) && !/(^|\/)(imsmanifest\.xml$|__MACOSX\/|\._)/i.test(path))
			documents.push(bare(path));
	return { documents, reports };
}

/** A document of which nothing is known but its path. */
export const bare = (path: string): Document => ({
	file: path,
	category: null,
	keywords: [],
	difficulty: null,
	isTest: false,
	isItem: false,
	listed: false
});

/** The category of an item by its folder, where folders are all that tells items apart. */
export function folderCategories(documents: Document[], top: string): Map<string, string[]> {
	const folders = new Map(
		documents.map(({ file }) => [
			file,
			file
				.slice(file.startsWith(top) ? top.length : 0)
				.split('/')
				.slice(0, -1)
		])
	);
	const different = new Set([...folders.values()].map((steps) => steps.join('/')));
	if (different.size < 2) return new Map();
	const paths = [...folders.values()];
	let common = 0;
	while (paths.every((steps) => steps.length > common && steps[common] === paths[0]![common])) common += 1;
	return new Map([...folders].map(([file, steps]) => [file, steps.slice(common)]));
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
