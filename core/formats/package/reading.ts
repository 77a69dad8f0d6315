import { ContainerError, memorySource, resolvePath, type Container } from '../../container/container';
import { streamText } from '../../container/decode';
import type { Codec } from '../../container/codec';
import { FileSet } from '../../container/file-list';
import { openZip } from '../../container/zip';
import type { FoundQuiz } from '../../model/quiz';
import { beginning } from '../../markup/text';
import type { Report } from '../../reports/report';
import { Banks } from '../banks';
import { SeenIdentifiers } from '../identifiers';
import { documentReaders, readerOf } from '../documents';
import { formatOf } from '../versions';
import type { DocumentContext, DocumentReader, FormatName, OtherCategories, ReadEvent } from '../format';
import type { Recipe } from '../recipe/recipe';
import { foreignFile } from '../foreign';
import { textualFormat, wholeFormat } from '../textual';
import { formatTitles } from '../titles';
import { documentsOf, folderCategories, rootOf, type Document, type DocumentList } from './documents';
import { inside } from './inside';
import { declaredFormat, findManifest, readManifest, type Manifest } from './manifest';
import { otherFiles } from './others';
import { finishedQuiz } from './quizzes';
import { isHelper, itemRoot, Roots, type Root } from './roots';

const nestedLimit = 512 * 2 ** 20;
const deepest = 2;
const progressStep = 1 << 18;

/** Whether there is a file in a package that is no folder. */
function hasFiles(container: Container): boolean {
	for (const { path } of container.files) if (!path.endsWith('/')) return true;
	return false;
}

const file = (report: Report): ReadEvent => ({ type: 'report', report });

/** One reading of a package: what is known of it so far, and the steps in which it is read. */
export class PackageReading {
	readonly #container: Container;
	readonly #codec: Codec | undefined;
	readonly #depth: number;
	readonly #recipe: Recipe | undefined;
	readonly #ours: FileSet;
	readonly #roots: Roots;
	readonly #identifiers = new SeenIdentifiers();
	readonly #banks = new Banks();
	readonly #quizzes: FoundQuiz[] = [];
	readonly #points = new Map<string, number | null>();
	/** The categories of documents by what refers to them, by the numbers of their files. */
	readonly #categories = new Map<number, string[]>();
	readonly #inSections = new Map<number, string[]>();
	#manifest: Manifest | null = null;
	#declared: FormatName | null = null;
	#tests = 0;
	#bytesRead = 0;
	#bytesTotal = 0;
	/** Bytes of the document that is being read. */
	#inDocument = 0;
	/** Whether the format was told. */
	#said = false;
	/** How many of the container's own reports were told. */
	#odd = 0;

	constructor(given: Container, codec: Codec | undefined, depth: number, recipe: Recipe | undefined) {
		const noted = (bytes: number) => (this.#inDocument += bytes);
		this.#container = {
			...given,
			async *stream(path) {
				for await (const piece of given.stream(path)) {
					noted(piece.length);
					yield piece;
				}
			}
		};
		this.#codec = codec;
		this.#depth = depth;
		this.#recipe = recipe;
		this.#ours = new FileSet(given.files);
		this.#roots = new Roots(this.#container);
	}

	/** Everything that is found, in the order in which it is read. */
	async *all(): AsyncGenerator<ReadEvent> {
		const container = this.#container;
		yield* this.#oddities();
		if (container.packaged && !hasFiles(container)) {
			yield file({
				rule: 'empty-package',
				severity: 'broken',
				message: `The package is empty${container.files.length ? ': it holds folders and no file' : ''}. Pack it again with its files, or ask for it again.`
			});
			return;
		}
		const told: Report[] = [];
		const manifestFile = findManifest(container);
		if (manifestFile) this.#manifest = await readManifest(container, manifestFile, (report) => told.push(report));
		yield* told.map(file);
		this.#declared = this.#manifest ? declaredFormat(this.#manifest) : null;
		if (this.#manifest?.title && this.#depth === 0) yield { type: 'title', title: this.#manifest.title };
		const { documents, reports } = documentsOf(container, this.#manifest);
		yield* reports.map(file);
		if (!container.packaged && !documents.length) documents.add(container.files.first.path);
		const foreign = this.#recipe ? null : await foreignFile(container);
		if (foreign) yield file(foreign);
		const whole = foreign ? null : wholeFormat(container);
		if (whole) yield* this.#whole(whole);
		if (!foreign && !whole) yield* this.#documents(documents);
		yield* this.#oddities();
	}

	/** What was odd about the package itself and was not told yet. */
	#oddities(): ReadEvent[] {
		const fresh = this.#container.reports.slice(this.#odd).map(file);
		this.#odd += fresh.length;
		return fresh;
	}

	#context(
		path: string,
		format: FormatName,
		about: Pick<DocumentContext, 'category' | 'keywords' | 'difficulty'>
	): DocumentContext {
		return {
			container: this.#container,
			file: path,
			format,
			resolve: (address) => resolvePath(path, address),
			...about,
			banks: this.#banks,
			identifiers: this.#identifiers,
			...(this.#recipe ? { recipe: this.#recipe } : {})
		};
	}

	#contextOf(document: Document, format: FormatName): DocumentContext {
		const { file: path, category, keywords, difficulty } = document;
		const known = category ?? this.#categories.get(this.#numberOf(path)) ?? [];
		return this.#context(path, format, { category: known, keywords, difficulty });
	}

	#numberOf(path: string): number {
		return this.#container.files.number(path);
	}

	/** A package that is one format as a whole. */
	async *#whole({
		format,
		file: path,
		reader
	}: NonNullable<ReturnType<typeof wholeFormat>>): AsyncGenerator<ReadEvent> {
		yield { type: 'format', format, title: formatTitles[format] };
		const size = this.#container.size(path);
		yield* reader(this.#context(path, format, { category: [], keywords: [], difficulty: null }));
		yield* this.#oddities();
		yield { type: 'progress', bytesRead: size, bytesTotal: size };
	}

	async *#documents(documents: DocumentList): AsyncGenerator<ReadEvent> {
		for (const document of documents) this.#bytesTotal += this.#container.size(document.file);
		for (const document of documents) {
			const root = document.isItem ? undefined : await this.#roots.look(document);
			if (/^(assessmentTest|qti-assessment-test)$/.test(root?.name ?? '')) documents.markTest(document);
		}
		let sectionsKnown = false;
		for (const document of documents.of(true))
			for await (const event of this.#test(document)) {
				if (event.type === 'quiz') sectionsKnown = true;
				else yield event;
			}
		if (!sectionsKnown && !documents.anyCategory) this.#byFolders(documents);
		for (const document of documents.of(false)) yield* this.#document(document);
		for (const quiz of this.#quizzes) yield* finishedQuiz(quiz, this.#banks, this.#points);
		yield* otherFiles(this.#container, this.#manifest, (path) => this.#ours.has(path) || this.#roots.helpers.has(path));
		yield* this.#nested();
	}

	/** A test: it is read before the items, since it says in which section each of them stands. */
	async *#test(document: Document): AsyncGenerator<ReadEvent> {
		this.#tests += 1;
		this.#ours.add(document.file);
		const format = formatOf(this.#roots.get(document) ?? null, this.#declared);
		for await (const event of documentReaders.get('assessmentTest')!(this.#contextOf(document, format))) {
			if (event.type === 'quiz') {
				this.#quizzes.push(event.quiz);
				for (const { path, questions } of event.quiz.parts)
					for (const named of questions)
						if (named.file) this.#inSection(this.#numberOf(named.file), named.path ?? path);
			}
			yield event;
		}
	}

	#inSection(number: number, path: string[]): void {
		if (this.#categories.has(number)) return;
		this.#categories.set(number, path);
		this.#inSections.set(number, path);
	}

	/** Where nothing else says in which category items stand, their folders do. */
	#byFolders(documents: DocumentList): void {
		const roots = this.#roots;
		const items = function* () {
			for (const document of documents.of(false))
				if (document.isItem || itemRoot.test(roots.get(document)?.name ?? '')) yield document;
		};
		for (const [number, category] of folderCategories(items(), this.#manifest?.folder ?? ''))
			this.#categories.set(this.#numberOf(documents.at(number).file), category);
	}

	/** A document that is no test, with whatever it turns out to be. */
	async *#document(document: Document): AsyncGenerator<ReadEvent> {
		const container = this.#container;
		const path = document.file;
		try {
			// an item of a manifest is taken at its word, so that it is read once; its reader looks again
			const root = document.isItem
				? { name: 'assessmentItem', namespace: '' }
				: (this.#roots.get(document) ?? (await rootOf(container, path)));
			if (container.packaged && !document.listed && isHelper(root?.name, this.#tests > 0)) {
				this.#bytesRead += container.size(path);
				return;
			}
			const reader = root && readerOf(root);
			const other =
				!reader && !document.listed ? await textualFormat(container, path, root?.name ?? null, this.#recipe) : null;
			if (other && (!container.packaged || !this.#manifest)) yield* this.#textual(document, other);
			else if (reader) yield* this.#read(document, root, reader);
			else if (document.listed || !container.packaged || (root === null && /\.xml$/i.test(path)))
				yield await this.#noQuestions(path, root);
		} catch (error) {
			if (!(error instanceof ContainerError)) throw error;
			this.#ours.add(path);
			yield file({ rule: error.rule, severity: 'broken', message: error.message, place: { file: path } });
		}
		if (container.reports.length > this.#odd) yield* this.#oddities();
		this.#bytesRead += container.size(path);
		yield { type: 'progress', bytesRead: this.#bytesRead, bytesTotal: this.#bytesTotal };
	}

	/** Text, a table, a document or records: by themselves, or one of several files of a package without a manifest. */
	async *#textual(
		document: Document,
		{ format, reader }: NonNullable<Awaited<ReturnType<typeof textualFormat>>>
	): AsyncGenerator<ReadEvent> {
		const told: ReadEvent = { type: 'format', format, title: formatTitles[format] };
		if (!this.#container.packaged) {
			yield told;
			yield* reader(this.#contextOf(document, format));
			return;
		}
		this.#ours.add(document.file);
		if (!this.#said) yield told;
		this.#said = true;
		for await (const event of reader(this.#contextOf(document, format))) if (event.type !== 'progress') yield event;
	}

	/** A document of a standard. */
	async *#read(document: Document, root: Root, reader: DocumentReader): AsyncGenerator<ReadEvent> {
		const container = this.#container;
		const path = document.file;
		const format = formatOf(root, this.#declared);
		if (!this.#said) {
			const name = this.#declared && document.isItem ? this.#declared : format;
			yield { type: 'format', format: name, title: formatTitles[name] + formOf(name, container.packaged) };
			this.#said = true;
		}
		this.#ours.add(path);
		this.#inDocument = 0;
		let toldAt = 0;
		for await (const event of reader(this.#contextOf(document, format))) {
			if (this.#inDocument - toldAt > progressStep) {
				toldAt = this.#inDocument;
				const here = Math.min(container.size(path), this.#inDocument);
				yield { type: 'progress', bytesRead: this.#bytesRead + here, bytesTotal: this.#bytesTotal };
			}
			if (event.type === 'quiz') this.#quizzes.push(event.quiz);
			else if (event.type !== 'question') yield event;
			else {
				if (this.#quizzes.length) this.#points.set(path, event.question.points);
				for (const { name } of event.question.attachments) this.#ours.add(name);
				// copied as in withCommon, for it is done with every question
				yield Object.assign({}, event, { categories: { ...this.#elsewhere(document), ...event.categories } });
			}
		}
	}

	/** The categories that other places than the document itself give. */
	#elsewhere({ file: path, category }: Document): OtherCategories {
		const sections = this.#inSections.size ? this.#inSections.get(this.#numberOf(path)) : undefined;
		return { ...(category ? { metadata: category } : {}), ...(sections ? { sections } : {}) };
	}

	async #noQuestions(path: string, root: Root): Promise<ReadEvent> {
		this.#ours.add(path);
		const words = beginning((await firstText(this.#container, path)).replace(/\s+/g, ' ').trim(), 60);
		return file({
			rule: 'not-questions',
			severity: 'doubtful',
			message: root
				? `“${path}” holds no questions that are known here: its root element is “${root.name}”.`
				: `“${path}” holds no questions that are known here. It begins: “${words}”.`,
			place: { file: path, line: 1 }
		});
	}

	/** Packages within the package. */
	async *#nested(): AsyncGenerator<ReadEvent> {
		const container = this.#container;
		const endings = this.#manifest ? /\.(zip|imscc)$/i : /\.(zip|imscc|docx|xlsx)$/i;
		for (const { path, size } of container.files) {
			if (!endings.test(path) || !container.packaged) continue;
			if (this.#depth >= deepest || size > nestedLimit) {
				yield file({
					rule: 'nested-too-deep',
					severity: 'doubtful',
					message: `“${path}” is a package inside the package that was not opened: it is ${this.#depth >= deepest ? 'nested too deep' : 'too large'}. Load it by itself.`,
					place: { file: path }
				});
				continue;
			}
			try {
				const inner = await openZip(memorySource(await container.bytes(path, nestedLimit)), this.#codec);
				yield* inside(path, new PackageReading(inner, this.#codec, this.#depth + 1, this.#recipe).all());
			} catch (error) {
				if (!(error instanceof ContainerError)) throw error;
				const message = `“${path}”: ${error.message}`;
				yield file({ rule: error.rule, severity: 'broken', message, place: { file: path } });
			}
			yield* this.#oddities();
		}
	}
}

/** What is said behind the title of a format: whether it came as a package, where it may come both ways. */
function formOf(name: FormatName, packaged: boolean): string {
	if (name === 'xml' || (packaged && name.startsWith('cc'))) return '';
	return packaged ? ' package' : ', bare XML';
}

async function firstText(container: Container, path: string): Promise<string> {
	for await (const piece of streamText(container, path, () => undefined)) return piece.slice(0, 200);
	return '';
}
