import { ContainerError, memorySource, resolvePath, type Container } from '../../container/container';
import { streamText } from '../../container/decode';
import type { Codec } from '../../container/codec';
import { Column } from '../../container/compact';
import { FileSet } from '../../container/file-list';
import { openZip } from '../../container/zip';
import { mapMarkup } from '../../kinds';
import type { FoundQuiz } from '../../model/quiz';
import { beginning } from '../../markup/text';
import type { Report } from '../../reports/report';
import { Banks } from '../banks';
import { SeenIdentifiers } from '../identifiers';
import { documentReaders, readerOf } from '../documents';
import { formatOf } from '../versions';
import type { DocumentContext, FormatName, OtherCategories, ReadEvent } from '../format';
import type { Recipe } from '../recipe/recipe';
import { foreignFile } from '../foreign';
import { textualFormat, wholeFormat } from '../textual';
import { formatTitles } from '../titles';
import { documentsOf, folderCategories, rootOf, type Document } from './documents';
import { declaredFormat, findManifest, readManifest } from './manifest';
import { guarded } from './guarded';
import { otherFiles } from './others';
import { finishedQuiz } from './quizzes';

const nestedLimit = 512 * 2 ** 20;
const deepest = 2;
const progressStep = 1 << 18;
/** Documents that items and tests refer to, and that are read with them. */
const helpers =
	/^(assessmentStimulus|assessmentSection|responseProcessing|qti-(assessment-stimulus|assessment-section|response-processing))$/;

/** Whether there is a file in a package that is no folder. */
function hasFiles(container: Container): boolean {
	for (const { path } of container.files) if (!path.endsWith('/')) return true;
	return false;
}

/** An item that no manifest lists is known by its root element. */
const itemRoot = /^(?:assessmentItem|qti-assessment-item)$/;

/** Whether a document is read with those that refer to it; a section only where there is a test that could. */
const isHelper = (name: string | undefined, tests: boolean) =>
	name !== undefined && helpers.test(name) && (tests || !/section$/i.test(name));

type Root = Awaited<ReturnType<typeof rootOf>>;

/** The root elements of documents that are looked at before their turn. */
class Roots {
	/** Files that are read with those that refer to them. */
	readonly helpers: FileSet;
	readonly #container: Container;
	/** The roots that were met, each once; the first two are none and unknown. */
	readonly #kinds: (Root | undefined)[] = [undefined, null];
	readonly #kind = new Column(Int32Array);

	constructor(container: Container) {
		this.#container = container;
		this.helpers = new FileSet(container.files);
	}

	/** Looks at a document; undefined where it cannot be had, which is said when its turn comes. */
	async look({ file: path, number }: Document): Promise<Root | undefined> {
		try {
			const root = await rootOf(this.#container, path);
			if (root && helpers.test(root.name)) this.helpers.add(path);
			let kind = this.#kinds.findIndex(
				(one) => one === root || (one && root && one.name === root.name && one.namespace === root.namespace)
			);
			if (kind < 0) kind = this.#kinds.push(root) - 1;
			this.#kind.set(number, kind);
			return root;
		} catch {
			return undefined;
		}
	}

	/** What was seen of a document; undefined where it was not looked at or could not be had. */
	get({ number }: Document): Root | undefined {
		return this.#kinds[this.#kind.at(number)];
	}
}

const file = (report: Report): ReadEvent => ({ type: 'report', report });

/**
 * Reads everything in a package, or in one bare file, in the order of its manifest and within bounds. It never throws for
 * what is wrong in the content: it reports, and goes on with the next document.
 */
export function readPackage(
	given: Container,
	codec?: Codec,
	depth = 0,
	recipe?: Recipe,
	mostQuestions?: number
): AsyncGenerator<ReadEvent> {
	return guarded(readAll(given, codec, depth, recipe), mostQuestions);
}

async function* readAll(given: Container, codec?: Codec, depth = 0, recipe?: Recipe): AsyncGenerator<ReadEvent> {
	let inDocument = 0;
	const container: Container = {
		...given,
		async *stream(path) {
			for await (const piece of given.stream(path)) {
				inDocument += piece.length;
				yield piece;
			}
		}
	};
	const told: Report[] = [];
	const ours = new FileSet(given.files);
	let odd = 0;
	const oddities = () => {
		const fresh = container.reports.slice(odd).map(file);
		odd += fresh.length;
		return fresh;
	};
	yield* oddities();
	if (container.packaged && !hasFiles(container)) {
		yield file({
			rule: 'empty-package',
			severity: 'broken',
			message: `The package is empty${container.files.length ? ': it holds folders and no file' : ''}. Pack it again with its files, or ask for it again.`
		});
		return;
	}
	const manifestFile = findManifest(container);
	const manifest = manifestFile ? await readManifest(container, manifestFile, (report) => told.push(report)) : null;
	yield* told.splice(0).map(file);
	const declared = manifest ? declaredFormat(manifest) : null;
	if (manifest?.title && depth === 0) yield { type: 'title', title: manifest.title };
	const { documents, reports } = documentsOf(container, manifest);
	yield* reports.map(file);
	if (!container.packaged && !documents.length) documents.add(container.files.first.path);
	const foreign = recipe ? null : await foreignFile(container);
	if (foreign) {
		yield { type: 'report', report: foreign };
		yield* oddities();
		return;
	}
	const whole = wholeFormat(container);
	if (whole) {
		yield { type: 'format', format: whole.format, title: formatTitles[whole.format] };
		const size = container.size(whole.file);
		const context = {
			container,
			file: whole.file,
			format: whole.format,
			resolve: (address: string) => resolvePath(whole.file, address),
			category: [],
			keywords: [],
			difficulty: null,
			banks: new Banks(),
			identifiers: new SeenIdentifiers(),
			...(recipe ? { recipe } : {})
		};
		yield* whole.reader(context);
		yield* oddities();
		yield { type: 'progress', bytesRead: size, bytesTotal: size };
		return;
	}
	let bytesTotal = 0;
	for (const document of documents) bytesTotal += container.size(document.file);
	let bytesRead = 0;
	let said = false;
	let sectionsKnown = false;
	const categories = new Map<number, string[]>();
	const numberOf = (path: string) => container.files.number(path);
	const answer = (document: Document, format: FormatName): DocumentContext => ({
		container,
		file: document.file,
		format,
		resolve: (address) => resolvePath(document.file, address),
		category: document.category ?? categories.get(numberOf(document.file)) ?? [],
		keywords: document.keywords,
		difficulty: document.difficulty,
		banks,
		identifiers,
		...(recipe ? { recipe } : {})
	});
	const inSections = new Map<number, string[]>();
	const elsewhere = ({ file: path, category }: Document): OtherCategories => ({
		...(category ? { metadata: category } : {}),
		...(inSections.size && inSections.has(numberOf(path)) ? { sections: inSections.get(numberOf(path))! } : {})
	});
	const identifiers = new SeenIdentifiers();
	const banks = new Banks();
	const quizzes: FoundQuiz[] = [];
	const points = new Map<string, number | null>();

	const roots = new Roots(container);
	let tests = 0;
	for (const document of documents) {
		const root = document.isItem ? undefined : await roots.look(document);
		if (/^(assessmentTest|qti-assessment-test)$/.test(root?.name ?? '')) documents.markTest(document);
	}
	for (const document of documents.of(true)) {
		tests += 1;
		ours.add(document.file);
		const reader = documentReaders.get('assessmentTest')!;
		for await (const event of reader(answer(document, formatOf(roots.get(document) ?? null, declared)))) {
			if (event.type === 'quiz') {
				sectionsKnown = true;
				quizzes.push(event.quiz);
				for (const part of event.quiz.parts)
					for (const one of part.questions)
						if (one.file && !categories.has(numberOf(one.file))) {
							categories.set(numberOf(one.file), part.path);
							inSections.set(numberOf(one.file), part.path);
						}
			} else yield event;
		}
	}
	if (!sectionsKnown && !documents.anyCategory) {
		const items = function* () {
			for (const document of documents.of(false))
				if (document.isItem || itemRoot.test(roots.get(document)?.name ?? '')) yield document;
		};
		for (const [number, category] of folderCategories(items(), manifest?.folder ?? ''))
			categories.set(numberOf(documents.at(number).file), category);
	}

	for (const document of documents.of(false)) {
		const path = document.file;
		try {
			// an item of a manifest is taken at its word, so that it is read once; its reader looks again
			const root = document.isItem
				? { name: 'assessmentItem', namespace: '' }
				: (roots.get(document) ?? (await rootOf(container, path)));
			if (container.packaged && !document.listed && isHelper(root?.name, tests > 0)) {
				bytesRead += container.size(path);
				continue;
			}
			const reader = root && readerOf(root);
			const other =
				!reader && !document.listed ? await textualFormat(container, path, root?.name ?? null, recipe) : null;
			const format = other?.format ?? formatOf(root, declared);
			if (other && !container.packaged) {
				yield { type: 'format', format, title: formatTitles[format] };
				yield* other.reader(answer(document, format));
			} else if (other && !manifest) {
				ours.add(path);
				if (!said) yield { type: 'format', format, title: formatTitles[format] };
				said = true;
				for await (const event of other.reader(answer(document, format))) if (event.type !== 'progress') yield event;
			} else if (reader) {
				if (!said) {
					const name = declared && document.isItem ? declared : format;
					yield {
						type: 'format',
						format: name,
						title: formatTitles[name] + formOf(name, container.packaged)
					};
					said = true;
				}
				ours.add(path);
				inDocument = 0;
				let toldAt = 0;
				for await (const event of reader(answer(document, format))) {
					const size = container.size(path);
					if (inDocument - toldAt > progressStep) {
						toldAt = inDocument;
						yield { type: 'progress', bytesRead: bytesRead + Math.min(size, inDocument), bytesTotal };
					}
					if (event.type === 'quiz') quizzes.push(event.quiz);
					else {
						if (event.type === 'question' && quizzes.length) points.set(path, event.question.points);
						if (event.type === 'question') for (const { name } of event.question.attachments) ours.add(name);
						// copied as in withCommon, for it is done with every question
						yield event.type === 'question'
							? Object.assign({}, event, { categories: { ...elsewhere(document), ...event.categories } })
							: event;
					}
				}
			} else if (document.listed || !container.packaged || (root === null && /\.xml$/i.test(path))) {
				ours.add(path);
				const words = beginning((await firstText(container, path)).replace(/\s+/g, ' ').trim(), 60);
				yield file({
					rule: 'not-questions',
					severity: 'doubtful',
					message: root
						? `“${path}” holds no questions that are known here: its root element is “${root.name}”.`
						: `“${path}” holds no questions that are known here. It begins: “${words}”.`,
					place: { file: path, line: 1 }
				});
			}
		} catch (error) {
			if (!(error instanceof ContainerError)) throw error;
			ours.add(path);
			yield file({ rule: error.rule, severity: 'broken', message: error.message, place: { file: path } });
		}
		if (container.reports.length > odd) yield* oddities();
		bytesRead += container.size(path);
		yield { type: 'progress', bytesRead, bytesTotal };
	}

	for (const quiz of quizzes) yield* finishedQuiz(quiz, banks, points);
	yield* otherFiles(container, manifest, (path) => ours.has(path) || roots.helpers.has(path));

	for (const { path, size } of container.files) {
		if (!(manifest ? /\.(zip|imscc)$/i : /\.(zip|imscc|docx|xlsx)$/i).test(path) || !container.packaged) continue;
		if (depth >= deepest || size > nestedLimit) {
			yield file({
				rule: 'nested-too-deep',
				severity: 'doubtful',
				message: `“${path}” is a package inside the package that was not opened: it is ${depth >= deepest ? 'nested too deep' : 'too large'}. Load it by itself.`,
				place: { file: path }
			});
			continue;
		}
		try {
			const inner = await openZip(memorySource(await container.bytes(path, nestedLimit)), codec);
			yield* inside(path, readAll(inner, codec, depth + 1, recipe));
		} catch (error) {
			if (!(error instanceof ContainerError)) throw error;
			yield file({
				rule: error.rule,
				severity: 'broken',
				message: `“${path}”: ${error.message}`,
				place: { file: path }
			});
		}
		yield* oddities();
	}
	yield* oddities();
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

/** A quiz of a package in the package, whose files have other names outside of it. */
const quizInside = (quiz: FoundQuiz, name: (inner: string) => string): FoundQuiz => ({
	...quiz,
	source: { ...quiz.source, file: name(quiz.source.file) },
	parts: quiz.parts.map((part) => ({
		...part,
		questions: part.questions.map((one) => (one.file === null ? one : { ...one, file: name(one.file) }))
	}))
});

/** The paths of a package in the package, told apart from those of the outer one. */
async function* inside(path: string, events: AsyncGenerator<ReadEvent>): AsyncGenerator<ReadEvent> {
	const name = (inner: string) => (/^https?:/i.test(inner) ? inner : `${path}!/${inner}`);
	for await (const event of events) {
		if (event.type === 'question') {
			const { question } = event;
			if (question.source) question.source.file = name(question.source.file);
			for (const attachment of question.attachments) attachment.name = name(attachment.name);
			yield {
				...event,
				question: mapMarkup(question, (markup) =>
					markup.replace(/="media:([^"]*)"/g, (_, inner: string) => `="media:${name(inner)}"`)
				)
			};
		} else if (event.type === 'report' && event.report.place)
			yield {
				...event,
				report: { ...event.report, place: { ...event.report.place, file: name(event.report.place.file) } }
			};
		else if (event.type === 'quiz') yield { ...event, quiz: quizInside(event.quiz, name) };
		else if (event.type === 'other') yield { ...event, other: { ...event.other, path: name(event.other.path) } };
		else if (event.type !== 'progress') yield event;
	}
}
