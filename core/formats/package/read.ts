import { ContainerError, memorySource, resolvePath, type Container } from '../../container/container';
import { streamText } from '../../container/decode';
import { openZip, type Unpack } from '../../container/zip';
import { mapMarkup } from '../../model/question';
import type { FoundQuiz } from '../../model/quiz';
import { beginning } from '../../markup/text';
import type { Report } from '../../reports/report';
import { documentReaders } from '../documents';
import { formatOf } from '../versions';
import type { DocumentContext, FormatName, ReadEvent } from '../format';
import type { Recipe } from '../recipe/recipe';
import { textualFormat, wholeFormat } from '../textual';
import { formatTitles } from '../titles';
import { declaredFormat, findManifest, readManifest, type Manifest } from './manifest';

const nestedLimit = 512 * 2 ** 20;
const deepest = 2;
const progressStep = 1 << 18;

/** One document that may hold questions, with what is known of it before it is read. */
interface Document {
	file: string;
	category: string[] | null;
	keywords: string[];
	difficulty: string | null;
	isTest: boolean;
	/** Whether the manifest lists it as a single item. */
	isItem: boolean;
	listed: boolean;
}

function documentsOf(container: Container, manifest: Manifest | null): { documents: Document[]; reports: Report[] } {
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
const bare = (path: string): Document => ({
	file: path,
	category: null,
	keywords: [],
	difficulty: null,
	isTest: false,
	isItem: false,
	listed: false
});

/** The category of an item by its folder, where folders are all that tells items apart. */
function folderCategories(documents: Document[], top: string): Map<string, string[]> {
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
async function rootOf(container: Container, file: string): Promise<{ name: string; namespace: string } | null> {
	let head = '';
	for await (const piece of streamText(container, file, () => undefined)) {
		head += piece;
		const found = /<(?![?!])(?:[\w.-]+:)?([\w.-]+)([^>]*)/.exec(head.replace(/<!--[\s\S]*?-->/g, ''));
		if (found && (head.includes('>') || head.length > 65_536))
			return {
				name: found[1]!,
				namespace: /xmlns(?::[\w.-]+)?\s*=\s*["']([^"']*(?:qti|ims)[^"']*)["']/.exec(found[2]!)?.[1] ?? ''
			};
		if (head.length > 1 << 20) break;
	}
	return null;
}

const file = (report: Report): ReadEvent => ({ type: 'report', report });

/**
 * Reads everything in a package, or in one bare file, in the order of its manifest. It never throws for what is
 * wrong in the content: it reports, and goes on with the next document.
 */
export async function* readPackage(
	given: Container,
	unpack?: Unpack,
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
	const { documents, reports } = documentsOf(container, manifest);
	yield* reports.map(file);
	if (!container.packaged && !documents.length) documents.push(bare(container.entries[0]!.path));
	const whole = wholeFormat(container);
	if (whole) {
		yield { type: 'format', format: whole.format, title: formatTitles[whole.format] };
		const document: Document = { ...bare(whole.file), listed: true };
		const size = container.entries.find((entry) => entry.path === whole.file)?.size ?? 0;
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
	const sizes = new Map(container.entries.map(({ path, size }) => [path, size]));
	const bytesTotal = documents.reduce((sum, document) => sum + (sizes.get(document.file) ?? 0), 0);
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
		const reader = documentReaders.get('assessmentTest')!;
		for await (const event of reader(answer(document, formatOf(roots.get(document.file) ?? null, declared)))) {
			if (event.type === 'quiz') {
				sectionsKnown = true;
				quizzes.push(event.quiz);
				for (const part of event.quiz.parts)
					for (const one of part.questions)
						if (one.file && !categories.has(one.file)) categories.set(one.file, part.path);
			} else yield event;
		}
	}
	const items = documents.filter((document) => !document.isTest);
	if (!sectionsKnown && manifest && items.every((document) => document.category === null)) {
		const inFolders = folderCategories(
			items.filter((document) => document.isItem),
			manifest.folder
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
			const reader = root && documentReaders.get(root.name);
			const other =
				!reader && !document.listed ? await textualFormat(container, path, root?.name ?? null, recipe) : null;
			const format = other?.format ?? formatOf(root, declared);
			if (other && !container.packaged) {
				yield { type: 'format', format, title: formatTitles[format] };
				yield* other.reader(answer(document, format));
			} else if (other && !manifest) yield* other.reader(answer(document, format));
			else if (reader) {
				if (!said) {
					const name = declared && document.isItem ? declared : format;
					yield {
						type: 'format',
						format: name,
						title: formatTitles[name] + (container.packaged ? (name.startsWith('cc') ? '' : ' package') : ', bare XML')
					};
					said = true;
				}
				inDocument = 0;
				let toldAt = 0;
				for await (const event of reader(answer(document, format))) {
					const size = sizes.get(path) ?? 0;
					if (inDocument - toldAt > progressStep) {
						toldAt = inDocument;
						yield { type: 'progress', bytesRead: bytesRead + Math.min(size, inDocument), bytesTotal };
					}
					if (event.type === 'quiz') quizzes.push(event.quiz);
					else {
						if (event.type === 'question' && quizzes.length) points.set(path, event.question.points);
						yield event;
					}
				}
			} else if (document.listed || !container.packaged || (root === null && /\.xml$/i.test(path))) {
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
			yield file({ rule: error.rule, severity: 'broken', message: error.message, place: { file: path } });
		}
		yield* oddities();
		bytesRead += sizes.get(path) ?? 0;
		yield { type: 'progress', bytesRead, bytesTotal };
	}

	for (const quiz of quizzes) yield* finished(quiz, banks, points);

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
			const inner = await openZip(memorySource(await container.bytes(path, nestedLimit)), unpack);
			yield* inside(path, readPackage(inner, unpack, depth + 1, recipe));
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

/** A quiz once all banks are known, with a report for each part that draws more than there is. */
function* finished(
	quiz: FoundQuiz,
	banks: DocumentContext['banks'],
	points: Map<string, number | null>
): Generator<ReadEvent> {
	for (const part of quiz.parts) {
		if (part.bank !== null) {
			const bank = banks.get(part.bank);
			if (bank) part.questions.push(...bank);
			else
				yield file({
					rule: 'unknown-bank',
					severity: 'doubtful',
					message: `The part “${part.title}” of the quiz “${quiz.title}” draws from a bank “${part.bank}” that is not in the package. Choose its pool anew.`,
					place: quiz.source
				});
		}
		const worth = part.questions.map(({ file: path, weight }) =>
			weight ? Math.round(weight * (points.get(path ?? '') ?? 1) * 1e6) / 1e6 : null
		);
		if (worth.length && worth[0] !== null && worth.every((one) => one === worth[0])) part.pointsEach = worth[0]!;
		if (part.draw !== null && part.draw > part.questions.length)
			yield file({
				rule: 'draw-too-large',
				severity: 'doubtful',
				message: `The part “${part.title}” of the quiz “${quiz.title}” draws ${part.draw} questions and holds ${part.questions.length}. Draw fewer, or add questions to it.`,
				place: quiz.source
			});
	}
	yield { type: 'quiz', quiz };
}

async function firstText(container: Container, path: string): Promise<string> {
	for await (const piece of streamText(container, path, () => undefined)) return piece.slice(0, 200);
	return '';
}

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
		else if (event.type !== 'progress') yield event;
	}
}
