import { readStart, readText } from '../../container/decode';
import { resolvePath } from '../../container/container';
import { markupOfNodes } from '../../markup/clean';
import { withCommon, emptyCommon, type Stimulus } from '../../model/question';
import type { UnreadableQuestion } from '../../kinds';
import type { Report } from '../../reports/report';
import { bounds, keptOfSource } from '../../model/bounds';
import { tooManyParts } from '../too-many';
import { repairXml } from '../../xml/repair';
import { parseXml } from '../../xml/parse';
import { childOf, childrenOf, descendants, type XmlElement } from '../../xml/tree';
import { damagedQuestion } from '../damaged';
import type { DocumentContext, DocumentReader, FormatName, ReadEvent, ReadQuestion } from '../format';
import { noteIdentifier, SeenIdentifiers } from '../identifiers';
import { askedIn } from './body';
import { readMarked } from './marked';
import { attach, cleaningFor } from '../media';
import { formatOf } from '../versions';
import { besideQuestion } from './beside';
import { withNamesOfTwo } from './normalise';
import { declaredPoints, interactionNames, type Reading } from './reading';
import { isTemplateItem, workedOutItem } from './worked-out';

const places = (event: { line: number }, context: DocumentContext) => ({ file: context.file, line: event.line });

/** Reads one QTI 2.x or 3.0 item document (QTI 2.1 information model; for 3.0 under the names of 2.x). */
export const readItem: DocumentReader = async function* (context): AsyncGenerator<ReadEvent> {
	if (context.container.size(context.file) > bounds.source * 2) {
		yield await tooLong(context);
		return;
	}
	const { text, report } = await readText(context.container, context.file);
	const { root, warnings, fault } = parseXml(text);
	if (fault) {
		if (fault.rule === 'external-entity' || fault.rule === 'entity-expansion')
			yield {
				type: 'report',
				report: {
					rule: fault.rule,
					severity: 'broken',
					message: `“${context.file}” was refused: ${fault.message}. Nothing was fetched. Ask for a file without a document type.`,
					place: places(fault, context)
				}
			};
		else yield await readDamaged(text, fault, context);
		return;
	}
	const reports: Report[] = warnings.map((warning) => ({
		rule: warning.rule,
		severity: 'untidy',
		message: `Line ${warning.line}: ${warning.message}.`,
		place: places(warning, context)
	}));
	if (report) reports.push(report);
	if (!itemRoot.test(root!.name)) {
		yield {
			type: 'report',
			report: {
				rule: 'not-questions',
				severity: 'doubtful',
				message: `The manifest lists “${context.file}” as a question, and its root element is “${root!.name}”. It was not read.`,
				place: { file: context.file, line: 1 }
			}
		};
		return;
	}
	yield await readRoot(root!, text, reports, context);
};

/** An item that is too long to be worked with, called as its first tag says. */
async function tooLong(context: DocumentContext): Promise<ReadQuestion> {
	const start = (await readStart(context.container, context.file, keptOfSource)) ?? '';
	const from = Math.max(0, start.search(/<(?:[\w.-]+:)?(?:assessmentItem|qti-assessment-item)\b/));
	const message = `it is ${Math.round(context.container.size(context.file) / 2 ** 20)} MB long, and ${Math.round((bounds.source * 2) / 2 ** 20)} MB is the most for one question`;
	const fragment = start.slice(from);
	const read = damagedQuestion({ line: 1, message, from: 1, to: 1, fragment }, null, context, {
		identifier: 'identifier'
	});
	const { faultLine: _, ...question } = read.question as UnreadableQuestion;
	return {
		...read,
		question: { ...question, title: question.title.slice(0, 200), reason: `Its source is too long: ${message}.` }
	};
}

const itemRoot = /^(assessmentItem|qti-assessment-item)$/;

/** An item by its root element, with its format: in the names of 2.x. */
function itemOf(root: XmlElement, declared: FormatName): { item: XmlElement; format: FormatName } {
	const format = formatOf({ name: root.name, namespace: root.attributes.xmlns ?? '' }, declared);
	return { item: format === 'qti30' ? withNamesOfTwo(root) : root, format };
}

/** Reads an item by its root element, with the texts that it shares with others. */
async function readRoot(
	root: XmlElement,
	text: string,
	reports: Report[],
	context: DocumentContext
): Promise<ReadQuestion> {
	const { item, format } = itemOf(root, context.format);
	const stimuli: Stimulus[] = [];
	const files: string[] = [];
	for (const shared of childrenOf(item, 'assessmentStimulusRef')) {
		const found = await readStimulus(shared, context, files);
		if (found) stimuli.push(found);
		else
			reports.push({
				rule: 'shared-stimulus',
				severity: 'doubtful',
				message: `It refers to a text that several questions share, “${shared.attributes.href ?? ''}”, which is not in the package or cannot be read. Ask for it, and copy what students need of it into the stem.`,
				place: { file: context.file, line: item.line }
			});
	}
	return readTree(item, text, reports, { ...context, format }, stimuli, files);
}

/** Reads as much as can be made out of an item that is not well-formed; it is kept as it came. */
async function readDamaged(
	text: string,
	fault: { line: number; message: string },
	context: DocumentContext
): Promise<ReadQuestion> {
	const { root } = parseXml(repairXml(text));
	// its identifier is noted once, below
	const quiet = { ...context, identifiers: new SeenIdentifiers() };
	const mended = root && itemRoot.test(root.name) ? (await readRoot(root, text, [], quiet)).question : null;
	return damagedQuestion({ ...fault, from: 1, to: linesIn(text), fragment: withoutProlog(text) }, mended, context, {
		identifier: 'identifier'
	});
}

/** Reads an item anew that was kept since it is not well-formed, with that put right; null where it is still no item. */
export function readItemAgain(
	fragment: string,
	context: DocumentContext,
	stimulus: Stimulus | undefined
): ReadQuestion | null {
	const text = repairXml(fragment);
	const { root } = parseXml(text);
	if (!root || !itemRoot.test(root.name)) return null;
	const { item, format } = itemOf(root, context.format);
	return readTree(item, text, [], { ...context, format }, stimulus ? [stimulus] : [], []);
}

const withoutProlog = (text: string) => text.replace(/^\ufeff?\s*<\?xml[^>]*\?>\s*/, '');

/** Reads a shared stimulus (QTI 2.2 and 3.0: assessmentStimulus); its files are noted in `files`. */
async function readStimulus(
	{ attributes }: XmlElement,
	context: DocumentContext,
	files: string[]
): Promise<Stimulus | null> {
	const path = attributes.href ? resolvePath(context.file, attributes.href) : null;
	const file = path === null ? null : (context.container.find(path) ?? path);
	if (file === null || !context.container.has(file)) return null;
	const { root } = parseXml((await readText(context.container, file)).text);
	if (!root) return null;
	const node = root.name.startsWith('qti-') ? withNamesOfTwo(root) : root;
	const body = childOf(node, 'stimulusBody');
	if (!body) return null;
	const content = markupOfNodes(body.children, {
		media: (address) => {
			const target = resolvePath(file, address);
			const name = target === null ? null : (context.container.find(target) ?? target);
			if (name !== null) files.push(name);
			return name;
		},
		removed: () => undefined
	});
	return { identifier: node.attributes.identifier ?? '', title: (node.attributes.title ?? '').trim(), content };
}

function linesIn(text: string): number {
	let lines = 1;
	for (let at = text.indexOf('\n'); at >= 0; at = text.indexOf('\n', at + 1)) lines += 1;
	return lines;
}

/** What an item says of itself, beside what it asks; `files` are those of the texts that it shares. */
function commonOf(
	item: XmlElement,
	text: string,
	context: DocumentContext,
	stimuli: Stimulus[],
	files: string[]
): ReturnType<typeof emptyCommon> {
	const identifier = item.attributes.identifier ?? '';
	const common = emptyCommon(identifier, (item.attributes.title ?? '').trim());
	common.source = {
		format: context.format,
		file: context.file,
		line: item.line,
		endLine: linesIn(text),
		identifier
	};
	common.category = context.category;
	common.tags = [...context.keywords];
	if (context.difficulty) common.difficulty = context.difficulty;
	common.language = item.attributes['xml:lang'] ?? null;
	common.points = declaredPoints(item);
	const [first, ...more] = stimuli;
	if (first)
		common.stimulus = more.length
			? { ...first, content: stimuli.map((shared) => `<div>${shared.content}</div>`).join('') }
			: first;
	for (const file of files) attach(common, { ...context, resolve: (address) => address }, file);
	return common;
}

/** What of an item is shown otherwise here, in sentences. */
const reshapings = (prints: boolean, plays: boolean): string[] => [
	...(prints
		? ['It shows a result, such as the score, within its text. Here “…” stands in its place; put the sentence right.']
		: []),
	...(plays
		? [
				'It has something to watch or listen to, how often students may play it does not count for the marks. It stands in the stem; a limit on playing it is not held.'
			]
		: [])
];

function readTree(
	item: XmlElement,
	text: string,
	reports: Report[],
	context: DocumentContext,
	stimuli: Stimulus[],
	files: string[]
): ReadQuestion {
	const common = commonOf(item, text, context, stimuli, files);
	const place = { file: context.file, line: item.line };
	const fragment = withoutProlog(text);
	const prints = !isTemplateItem(item) && descendants(item, 'printedVariable').length > 0;
	const { interactions, plays, ...asked } = askedIn(prints ? workedOutItem(item).item : item);
	const reading: Reading = {
		...asked,
		common,
		cleaning: cleaningFor(common, context),
		full: common.points || 1,
		reports,
		place,
		attach: (address) => attach(common, context, address)
	};
	for (const message of reshapings(prints, plays))
		reports.push({ rule: 'reshaped', severity: 'untidy', message, place });
	const tooMany =
		tooManyParts(item, 'simpleChoice', ...interactionNames) ??
		tooManyParts(item, 'inlineChoice', ...interactionNames) ??
		tooManyParts(item, 'simpleAssociableChoice', ...interactionNames);
	if (tooMany)
		return {
			type: 'question',
			question: withCommon(common, { kind: 'unreadable', reason: tooMany, fragment: fragment.slice(0, keptOfSource) }),
			fragment,
			reports
		};
	const question = readMarked(reading, interactions, { item, fragment });
	const beside = question.kind === 'unreadable' ? null : besideQuestion(item, place);
	if (beside) reports.push(beside);
	noteIdentifier(question, context, reports);
	return { type: 'question', question, fragment, reports };
}
