import { lookup } from '../../model/lookup';
import { readStart, readText } from '../../container/decode';
import { resolvePath } from '../../container/container';
import { markupOfNodes } from '../../markup/clean';
import { textOf as plainOf } from '../../xml/tree';
import { withCommon, emptyCommon, type Stimulus } from '../../model/question';
import type { Question, UnreadableQuestion } from '../../kinds';
import { rightBlanks } from '../../kinds/fill-blanks';
import { bestCredit } from '../../scoring/score';
import type { Report } from '../../reports/report';
import { bounds, keptOfSource } from '../../model/bounds';
import { tooManyParts } from '../too-many';
import { repairXml } from '../../xml/repair';
import { parseXml } from '../../xml/stream';
import { childOf, childrenOf, descendants, descendantsIn, type XmlElement, type XmlNode } from '../../xml/tree';
import { damagedQuestion } from '../damaged';
import type { DocumentContext, DocumentReader, FormatName, ReadEvent, ReadQuestion } from '../format';
import { noteIdentifier, SeenIdentifiers } from '../identifiers';
import { attach, cleaningFor } from '../media';
import { formatOf } from '../versions';
import { besideQuestion } from './beside';
import { readBlanks, readGaps } from './blanks';
import { readCalculated } from './calculated';
import { readChoice } from './choice';
import { readEntry } from './entry';
import { placeFeedback2 } from './feedback';
import { ordersAll, readLabels, readMatch, readOrder } from './match';
import { withNamesOfTwo } from './normalise';
import { readPoints } from './points';
import { responseDeclaration, UnknownRule, UnknownTemplate } from './process';
import { declarationOf, declaredPoints, interactionNames, promptNodes, stemOf, type Reading } from './reading';
import { isTemplateItem, workedOutItem } from './worked-out';

const described = lookup<string>({
	graphicOrderInteraction: 'to put places of a picture in order',
	graphicAssociateInteraction: 'to join places of a picture',
	positionObjectInteraction: 'to place things on a picture',
	mediaInteraction: 'to watch or listen to something',
	drawingInteraction: 'to draw',
	customInteraction: 'for an interaction that only its maker knows',
	portableCustomInteraction: 'for an interaction that only its maker knows'
});

/** Whether an interaction only shows something: it plays, and no rule marks how often (2.1, 7.5.1: mediaInteraction). */
function isOnlyShown(interaction: XmlElement, rules: XmlElement | undefined): boolean {
	if (interaction.name !== 'mediaInteraction') return false;
	const { responseIdentifier } = interaction.attributes;
	return !(rules ? descendants(rules, 'variable') : []).some(
		({ attributes }) => attributes.identifier === responseIdentifier
	);
}

/** Whether no answer to a question earns anything that a machine can mark. */
function earnsNothing(question: Question): boolean {
	// the plain cases are seen without marking anything, which would take its time in a large package
	if ('options' in question && question.bounds.upper === null && question.options.some(({ credit }) => credit > 0))
		return false;
	if ('accepted' in question && question.accepted.some(({ credit }) => credit > 0)) return false;
	if (question.kind !== 'fill-blanks') return (bestCredit(question) ?? 1) <= 0;
	const right = rightBlanks(question).blanks!;
	const marked = question.blanks.filter((blank) => blank.form !== 'open');
	return marked.length > 0 && marked.every((blank) => !right[blank.identifier]?.length);
}

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

/** Why an item cannot be held as it is, in a sentence; `what` of it uses the rule that is not known. */
const reasonOf = ({ message }: UnknownRule, what: string) =>
	/^It /.test(message) ? message : `${what} uses ${message}, which cannot be followed here.`;

function linesIn(text: string): number {
	let lines = 1;
	for (let at = text.indexOf('\n'); at >= 0; at = text.indexOf('\n', at + 1)) lines += 1;
	return lines;
}

/** What an item asks for, and what it only plays. */
function askedIn(item: XmlElement): Pick<Reading, 'item' | 'body' | 'declarations' | 'rules'> & {
	interactions: XmlElement[];
	plays: boolean;
} {
	const body = childOf(item, 'itemBody');
	const asked = body ? descendantsIn(body, interactionNames) : [];
	const rules = childOf(item, 'responseProcessing');
	const interactions = asked.filter((one) => !isOnlyShown(one, rules));
	const declarations = childrenOf(item, 'responseDeclaration').map(responseDeclaration);
	return { item, body, declarations, rules, interactions, plays: interactions.length < asked.length };
}

function readTree(
	item: XmlElement,
	text: string,
	reports: Report[],
	context: DocumentContext,
	stimuli: Stimulus[],
	files: string[]
): ReadQuestion {
	const identifier = item.attributes.identifier ?? '';
	const common = emptyCommon(identifier, (item.attributes.title ?? '').trim());
	const place = { file: context.file, line: item.line };
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
			? { ...first, content: stimuli.map((one) => `<div>${one.content}</div>`).join('') }
			: first;
	for (const file of files) attach(common, { ...context, resolve: (address) => address }, file);
	const fragment = withoutProlog(text);
	const prints = !isTemplateItem(item) && descendants(item, 'printedVariable').length > 0;
	const { interactions, plays, ...asked } = askedIn(prints ? workedOutItem(item).item : item);
	const { rules } = asked;
	const reading: Reading = {
		...asked,
		common,
		cleaning: cleaningFor(common, context),
		full: common.points || 1,
		reports,
		place,
		attach: (address) => attach(common, context, address)
	};
	const before = { ...common, feedback: {}, metadata: [...common.metadata], hints: [] };
	const again = () => Object.assign(common, structuredClone({ ...before, attachments: [], removed: [] }));
	if (prints)
		reports.push({
			rule: 'reshaped',
			severity: 'untidy',
			message:
				'It shows a result, such as the score, within its text. Here “…” stands in its place; put the sentence right.',
			place
		});
	if (plays)
		reports.push({
			rule: 'reshaped',
			severity: 'untidy',
			message:
				'It has something to watch or listen to, how often students may play it does not count for the marks. It stands in the stem; a limit on playing it is not held.',
			place
		});
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
	const known = [...reports];
	const keyed = reading.declarations.some((one) => one.correct.length > 0 || one.mapping || one.areas);
	let question: Question;
	try {
		const byKey = (message: string, feedbackRules?: XmlElement) => {
			reports.splice(0, Infinity, ...known, {
				rule: 'marking-simplified',
				severity: 'doubtful',
				message: `${message} It is marked by the declared key; look at the credit.`,
				place
			});
			again();
			return readBody({ ...reading, rules: undefined, feedbackRules }, interactions);
		};
		const oneVersion = (error: UnknownRule) => {
			const { item: version, values } = workedOutItem(item);
			const { interactions: own, plays: _, ...parts } = askedIn(version);
			const message = `${reasonOf(error, 'It')} One version of it was read${values && `, with ${values}`}; make others by hand where they are wanted.`;
			reports.splice(0, Infinity, ...known, { rule: 'worked-out', severity: 'doubtful', message, place });
			again();
			return readBody({ ...reading, ...parts }, own);
		};
		try {
			question = readBody(reading, interactions);
			if (keyed && rules && earnsNothing(question))
				question = byKey('Its marking gives no points for any answer, though it declares which one is right.', rules);
		} catch (error) {
			if (error instanceof UnknownRule && isTemplateItem(item)) question = oneVersion(error);
			// the template's rules are not in the file, but the declared key is: the question is marked by that
			else if (error instanceof UnknownTemplate && keyed)
				question = byKey(`Its marking uses ${error.message}, whose rules are not in the file.`);
			else throw error;
		}
	} catch (error) {
		if (!(error instanceof UnknownRule)) throw error;
		again();
		// what was said of a way round is not true where that has failed too
		reports.splice(0, Infinity, ...known);
		const reason = reasonOf(error, 'Its marking');
		common.stem = stemOf(reading, (node) => promptNodes(node, reading.cleaning));
		for (const node of descendants(item, 'object', 'img'))
			attach(common, context, node.attributes.data ?? node.attributes.src ?? '');
		common.feedback = {};
		question = withCommon(common, { kind: 'unreadable', reason, fragment });
	}
	const beside = question.kind === 'unreadable' ? null : besideQuestion(item, place);
	if (beside) reports.push(beside);
	noteIdentifier(question, context, reports);
	return { type: 'question', question, fragment, reports };
}

/** Whether a text entry stands in the middle of a sentence, so that its place says what is asked. */
function isInSentence(body: XmlElement | undefined, entry: XmlElement): boolean {
	if (!body) return false;
	if (/\bblank\b/.test(entry.attributes.class ?? '')) return true;
	const holders = [body, ...descendants(body, 'p', 'div', 'li', 'td', 'span', 'b', 'i', 'em', 'strong', 'blockquote')];
	const holder = holders.find((one) => one.children.includes(entry));
	const block = holders.findLast((one) => ['p', 'div', 'li', 'td'].includes(one.name) && holds(one, entry)) ?? holder;
	if (!block) return false;
	const before = textBefore(block.children, entry).trim();
	return before !== '' && !/[?.!:;…]$/.test(before);
}
const holds = (node: XmlElement, wanted: XmlElement): boolean =>
	node.children.some((child) => child === wanted || (typeof child !== 'string' && holds(child, wanted)));

function textBefore(nodes: XmlNode[], wanted: XmlElement): string {
	let text = '';
	for (const node of nodes) {
		if (node === wanted) return text;
		if (typeof node !== 'string' && holds(node, wanted)) return text + textBefore(node.children, wanted);
		text += plainOf(node);
	}
	return text;
}

function readBody(reading: Reading, interactions: XmlElement[]): Question {
	const { common, cleaning, item, body } = reading;
	const [interaction] = interactions;
	if (!interaction) {
		common.stem = stemOf(reading, () => []);
		placeFeedback2(item, common, [], cleaning);
		return withCommon(common, { kind: 'information' });
	}
	const declaration = declarationOf(reading, interaction);
	if (isTemplateItem(item)) return readCalculated(reading, interactions, declaration);
	if (interactions.length > 1) {
		const odd = interactions.find((one) => described[one.name]);
		if (odd) throw new UnknownRule(`It asks ${described[odd.name]}, which cannot be held here.`);
		return readBlanks(reading, interactions);
	}
	const keyed = declaration.correct.length > 0 || declaration.mapping !== null;
	switch (interaction.name) {
		case 'choiceInteraction':
		case 'hottextInteraction':
			return readChoice(reading, interaction, declaration);
		case 'inlineChoiceInteraction':
			return readBlanks(reading, interactions);
		case 'textEntryInteraction':
			if (isInSentence(body, interaction)) return readBlanks(reading, interactions);
			break;
		case 'extendedTextInteraction':
			if (keyed) break;
			common.stem = stemOf(reading, (node) => promptNodes(node, cleaning));
			placeFeedback2(item, common, [], cleaning);
			return withCommon(common, { kind: 'essay' });
		case 'sliderInteraction':
			break;
		case 'gapMatchInteraction':
			return readGaps(reading, interaction, declaration);
		case 'matchInteraction':
		case 'associateInteraction':
			return readMatch(reading, interaction, declaration);
		case 'orderInteraction':
			return ordersAll(interaction, declaration)
				? readOrder(reading, interaction, declaration)
				: readBlanks(reading, interactions);
		case 'hotspotInteraction':
		case 'selectPointInteraction':
			return readPoints(reading, interaction, declaration);
		case 'graphicGapMatchInteraction':
			return readLabels(reading, interaction, declaration);
		case 'uploadInteraction':
			common.stem = stemOf(reading, (node) => promptNodes(node, cleaning));
			placeFeedback2(item, common, [], cleaning);
			return withCommon(common, { kind: 'file-upload', accepts: interaction.attributes.type ?? null });
		default:
			throw new UnknownRule(
				`It asks ${described[interaction.name] ?? `for an answer through “${interaction.name}”`}, which cannot be held here.`
			);
	}
	common.stem = stemOf(reading, (node) => promptNodes(node, cleaning));
	return readEntry(reading, interaction, declaration);
}
