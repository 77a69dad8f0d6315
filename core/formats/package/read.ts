import { ContainerError, memorySource, resolvePath, type Container } from '../../container/container';
import { streamText } from '../../container/decode';
import type { Codec } from '../../container/codec';
import { openZip } from '../../container/zip';
import { mapMarkup } from '../../model/question';
import type { FoundQuiz } from '../../model/quiz';
import { beginning } from '../../markup/text';
import type { Report } from '../../reports/report';
import { documentReaders, readerOf } from '../documents';
import { formatOf } from '../versions';
import type { DocumentContext, FormatName, OtherCategories, ReadEvent } from '../format';
import type { Recipe } from '../recipe/recipe';
import { foreignFile } from '../foreign';
import { textualFormat, wholeFormat } from '../textual';
import { formatTitles } from '../titles';
import { bare, documentsOf, folderCategories, rootOf, type Document } from './documents';
import { declaredFormat, findManifest, readManifest } from './manifest';
import { otherFiles } from './others';
import { finishedQuiz } from './quizzes';

const nestedLimit = 512 * 2 ** 20;
const deepest = 2;
const progressStep = 1 << 18;
/** Documents that items and tests refer to, and that are read with them. */
const helpers =
	/^(assessmentStimulus|assessmentSection|responseProcessing|qti-(assessment-stimulus|assessment-section|response-processing))$/;

/** An item that no manifest lists is known by its root element. */
const itemRoot = /^(?:assessmentItem|qti-assessment-item)$/;

/** Whether a document is read with those that refer to it; a section only where there is a test that could. */
const isHelper = (name: string | undefined, tests: boolean) =>
	name !== undefined && helpers.test(name) && (tests || !/section$/i.test(name));

const file = (report: Report): ReadEvent => ({ type: 'report', report });

/**
 * Reads everything in a package, or in one bare file, in the order of its manifest. It never throws for what is
 * wrong in the content: it reports, and goes on with the next document.
 */
export async function* readPackage(
	given: Container,
	codec?: Codec,
	depth = 0,
	recipe?: Recipe
): AsyncGenerator<ReadEvent> {
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
	const ours = new Set<string>();
	let odd = 0;
	const oddities = () => {
		const fresh = container.reports.slice(odd).map(file);
		odd += fresh.length;
		return fresh;
	};
	yield* oddities();
	const manifestFile = findManifest(container);
	const manifest = manifestFile ? await readManifest(container, manifestFile, (report) => told.push(report)) : null;
	yield* told.splice(0).map(file);
	const declared = manifest ? declaredFormat(manifest) : null;
	if (manifest?.title && depth === 0) yield { type: 'title', title: manifest.title };
	const { documents, reports } = documentsOf(container, manifest);
	yield* reports.map(file);
	if (!container.packaged && !documents.length) documents.push(bare(container.entries[0]!.path));
	const foreign = recipe ? null : await foreignFile(container);
	if (foreign) {
		yield { type: 'report', report: foreign };
		yield* oddities();
		return;
	}
	const whole = wholeFormat(container);
	if (whole) {
		yield { type: 'format', format: whole.format, title: formatTitles[whole.format] };
		const document: Document = { ...bare(whole.file), listed: true };
		const size = container.size(whole.file);
		const context = {
			container,
			file: whole.file,
			format: whole.format,
			resolve: (address: string) => resolvePath(document.file, address),
			category: [],
			keywords: [],
			difficulty: null,
			banks: new Map(),
			identifiers: new Map(),
			...(recipe ? { recipe } : {})
		};
		yield* whole.reader(context);
		yield* oddities();
		yield { type: 'progress', bytesRead: size, bytesTotal: size };
		return;
	}
	const bytesTotal = documents.reduce((sum, document) => sum + container.size(document.file), 0);
	let bytesRead = 0;
	let said = false;
	let sectionsKnown = false;
	const categories = new Map<string, string[]>();
	const answer = (document: Document, format: FormatName): DocumentContext => ({
		container,
		file: document.file,
		format,
		resolve: (address) => resolvePath(document.file, address),
		category: document.category ?? categories.get(document.file) ?? [],
		keywords: document.keywords,
		difficulty: document.difficulty,
		banks,
		identifiers,
		...(recipe ? { recipe } : {})
	});
	const inSections = new Map<string, string[]>();
	const elsewhere = ({ file: path, category }: Document): OtherCategories => ({
		...(category ? { metadata: category } : {}),
		...(inSections.has(path) ? { sections: inSections.get(path)! } : {})
	});
	const identifiers: DocumentContext['identifiers'] = new Map();
	const banks: DocumentContext['banks'] = new Map();
	const quizzes: FoundQuiz[] = [];
	const points = new Map<string, number | null>();

	const roots = new Map<string, Awaited<ReturnType<typeof rootOf>>>();
	for (const document of documents) {
		if (document.isItem) continue;
		try {
			const root = await rootOf(container, document.file);
			roots.set(document.file, root);
			if (/^(assessmentTest|qti-assessment-test)$/.test(root?.name ?? '')) document.isTest = true;
		} catch {
			// what is wrong with it is said when its turn comes
		}
	}
	const tests = documents.filter((document) => document.isTest);
	for (const document of tests) {
		ours.add(document.file);
		const reader = documentReaders.get('assessmentTest')!;
		for await (const event of reader(answer(document, formatOf(roots.get(document.file) ?? null, declared)))) {
			if (event.type === 'quiz') {
				sectionsKnown = true;
				quizzes.push(event.quiz);
				for (const part of event.quiz.parts)
					for (const one of part.questions)
						if (one.file && !categories.has(one.file)) {
							categories.set(one.file, part.path);
							inSections.set(one.file, part.path);
						}
			} else yield event;
		}
	}
	const items = documents.filter((document) => !document.isTest);
	if (!sectionsKnown && items.every((document) => document.category === null)) {
		const inFolders = folderCategories(
			items.filter((document) => document.isItem || itemRoot.test(roots.get(document.file)?.name ?? '')),
			manifest?.folder ?? ''
		);
		for (const [path, category] of inFolders) categories.set(path, category);
	}

	for (const document of items) {
		const path = document.file;
		try {
			// an item of a manifest is taken at its word, so that it is read once; its reader looks again
			const root = document.isItem
				? { name: 'assessmentItem', namespace: '' }
				: (roots.get(path) ?? (await rootOf(container, path)));
			if (container.packaged && !document.listed && isHelper(root?.name, tests.length > 0)) {
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
				yield* other.reader(answer(document, format));
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
	yield* otherFiles(container, manifest, (path) => ours.has(path) || helpers.test(roots.get(path)?.name ?? ''));

	for (const { path, size } of container.entries) {
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
			yield* inside(path, readPackage(inner, codec, depth + 1, recipe));
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
