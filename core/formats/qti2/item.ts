import { readText } from '../../container/decode';
import { cleanNodes, markupOfNodes, type CleanContext } from '../../markup/clean';
import { conform } from '../../markup/conform';
import { plainText } from '../../markup/text';
import {
	emptyCommon,
	type AcceptedText,
	type ChoiceQuestion,
	type Markup,
	type Question,
	type QuestionCommon
} from '../../model/question';
import type { Report } from '../../reports/report';
import { serialise } from '../../xml/serialise';
import { parseXml } from '../../xml/stream';
import { childOf, childrenOf, descendants, textOf, trimmed, type XmlElement, type XmlNode } from '../../xml/tree';
import { isTrueFalse } from '../choices';
import { creditsByTrying } from '../credits';
import type { DocumentContext, DocumentReader, ReadEvent } from '../format';
import { noteIdentifier } from '../identifiers';
import { attach, cleaningFor } from '../media';
import { acceptedNumbers, parseNumber } from '../numbers';
import { placeFeedback2, type Answer } from './feedback';
import { formatOf } from '../versions';
import { withNamesOfTwo } from './normalise';
import {
	Processing,
	responseDeclaration,
	toleranceOf,
	UnknownRule,
	UnknownTemplate,
	type ResponseDeclaration,
	type Value
} from './process';

/** Interactions by the kinds that the model holds; any other one makes a question unreadable. */
const interactionNames = new Set(
	'choiceInteraction textEntryInteraction extendedTextInteraction inlineChoiceInteraction matchInteraction associateInteraction orderInteraction gapMatchInteraction hottextInteraction hotspotInteraction selectPointInteraction graphicOrderInteraction graphicAssociateInteraction graphicGapMatchInteraction positionObjectInteraction sliderInteraction mediaInteraction drawingInteraction uploadInteraction customInteraction portableCustomInteraction'.split(
		' '
	)
);
const described: Record<string, string> = {
	inlineChoiceInteraction: 'to choose words from lists in a text',
	matchInteraction: 'to match things in pairs',
	associateInteraction: 'to make pairs',
	orderInteraction: 'to put things in order',
	gapMatchInteraction: 'to drag words into gaps',
	hottextInteraction: 'to select words in a text',
	hotspotInteraction: 'to point at a place in a picture',
	selectPointInteraction: 'to point at a place in a picture',
	graphicGapMatchInteraction: 'to lay labels on a picture',
	sliderInteraction: 'to move a slider',
	uploadInteraction: 'to hand in a file',
	customInteraction: 'for an interaction that only its maker knows',
	portableCustomInteraction: 'for an interaction that only its maker knows'
};
const epsilonText = '\u0001';

interface Reading {
	common: QuestionCommon;
	cleaning: CleanContext;
	item: XmlElement;
	declarations: ResponseDeclaration[];
	rules: XmlElement | undefined;
	full: number;
	reports: Report[];
	place: { file: string; line: number };
}

function declaredPoints(item: XmlElement): number | null {
	const outcomes = childrenOf(item, 'outcomeDeclaration');
	const most = outcomes.find((node) => node.attributes.identifier === 'MAXSCORE');
	const value = most ? parseNumber(trimmed(childOf(childOf(most, 'defaultValue') ?? most, 'value'))) : null;
	const normal = parseNumber(
		outcomes.find((node) => node.attributes.identifier === 'SCORE')?.attributes.normalMaximum ?? ''
	);
	return [value, normal].find((one): one is number => one !== null && one !== undefined && one >= 0) ?? null;
}

function runner(reading: Reading, identifier: string): (values: Value) => Processing {
	return (values) => {
		const processing = new Processing(reading.item, reading.declarations, new Map([[identifier, values]]));
		if (reading.rules) processing.run(reading.rules);
		return processing;
	};
}

const places = (event: { line: number }, context: DocumentContext) => ({ file: context.file, line: event.line });

/** Reads one QTI 2.x or 3.0 item document (QTI 2.1 information model; for 3.0 under the names of 2.x). */
export const readItem: DocumentReader = async function* (context): AsyncGenerator<ReadEvent> {
	const { text, report } = await readText(context.container, context.file);
	const { root, warnings, fault } = parseXml(text);
	if (fault) {
		const refused = fault.rule === 'external-entity' || fault.rule === 'entity-expansion';
		yield {
			type: 'report',
			report: {
				rule: fault.rule,
				severity: 'broken',
				message: refused
					? `“${context.file}” was refused: ${fault.message}. Nothing was fetched. Ask for a file without a document type.`
					: `“${context.file}”, line ${fault.line}: ${fault.message}. This question cannot be read, the others can. Mend the file there, or ask for it again.`,
				place: places(fault, context)
			}
		};
		return;
	}
	const reports: Report[] = warnings.map((warning) => ({
		rule: warning.rule,
		severity: 'untidy',
		message: `Line ${warning.line}: ${warning.message}.`,
		place: places(warning, context)
	}));
	if (report) reports.push(report);
	if (!/^(assessmentItem|qti-assessment-item)$/.test(root!.name)) {
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
	const format = formatOf({ name: root!.name, namespace: root!.attributes.xmlns ?? '' }, context.format);
	yield readTree(format === 'qti30' ? withNamesOfTwo(root!) : root!, text, reports, { ...context, format });
};

function readTree(item: XmlElement, text: string, reports: Report[], context: DocumentContext): ReadEvent {
	const identifier = item.attributes.identifier ?? '';
	const common = emptyCommon(identifier, (item.attributes.title ?? '').trim());
	const place = { file: context.file, line: item.line };
	common.source = {
		format: context.format,
		file: context.file,
		line: item.line,
		endLine: text.split('\n').length,
		identifier
	};
	common.category = context.category;
	common.tags = [...context.keywords];
	common.language = item.attributes['xml:lang'] ?? null;
	common.points = declaredPoints(item);
	const fragment = text.replace(/^\ufeff?\s*<\?xml[^>]*\?>\s*/, '');
	const body = childOf(item, 'itemBody');
	const interactions = body ? descendants(body, ...interactionNames) : [];
	const reading: Reading = {
		common,
		cleaning: cleaningFor(common, context),
		item,
		declarations: childrenOf(item, 'responseDeclaration').map(responseDeclaration),
		rules: childOf(item, 'responseProcessing'),
		full: common.points || 1,
		reports,
		place
	};
	for (const shared of childrenOf(item, 'assessmentStimulusRef'))
		reports.push({
			rule: 'shared-stimulus',
			severity: 'doubtful',
			message: `It refers to a text that several questions share, “${shared.attributes.href ?? ''}”, which is not read yet. Copy what students need of it into the stem.`,
			place
		});
	let question: Question;
	try {
		const variables =
			/<(?:[\w.-]+:)?(?:qti-)?(?:printedVariable|printed-variable|templateProcessing|template-processing)\b/.test(text);
		if (variables) throw new UnknownRule('It is worked out anew for each student, which cannot be read yet.');
		if (interactions.length > 1)
			throw new UnknownRule(`It asks for ${interactions.length} answers in one question, which cannot be read yet.`);
		try {
			question = readBody(reading, body, interactions[0]);
		} catch (error) {
			const keyed = reading.declarations.some((one) => one.correct.length > 0 || one.mapping);
			if (!(error instanceof UnknownTemplate) || !keyed) throw error;
			// the template's rules are not in the file, but the declared key is: the question is marked by that
			reports.push({
				rule: 'marking-simplified',
				severity: 'doubtful',
				message: `Its marking uses ${error.message}, whose rules are not in the file. It is marked by the declared key; look at the credit.`,
				place
			});
			Object.assign(common, { feedback: {}, metadata: [], hints: [] });
			question = readBody({ ...reading, rules: undefined }, body, interactions[0]);
		}
	} catch (error) {
		if (!(error instanceof UnknownRule)) throw error;
		const reason = /^It /.test(error.message)
			? error.message
			: `Its marking uses ${error.message}, which cannot be followed here.`;
		common.stem = stemOf(body, reading, (node) => promptNodes(node, reading.cleaning));
		for (const node of descendants(item, 'object', 'img'))
			attach(common, context, node.attributes.data ?? node.attributes.src ?? '');
		common.feedback = {};
		reports.push({
			rule: 'unreadable-kind',
			severity: 'broken',
			message: `${reason} It is kept as it came, and cannot be shown or marked here.`,
			place
		});
		question = { ...common, kind: 'unreadable', reason, fragment };
	}
	noteIdentifier(question, context, reports);
	return { type: 'question', question, fragment, reports };
}

/** The body as a stem: without rubrics for others and without feedback, each interaction replaced as told. */
function stemOf(
	body: XmlElement | undefined,
	{ cleaning, common }: Reading,
	replace: (interaction: XmlElement) => XmlNode[]
): Markup {
	if (!body) return '';
	const nodes = cleanNodes(body.children, {
		...cleaning,
		replace: (node) => {
			if (interactionNames.has(node.name)) return replace(node);
			if (node.name === 'rubricBlock') {
				const view = node.attributes.view ?? '';
				if (/candidate/.test(view)) return cleanNodes(node.children, cleaning);
				common.metadata.push({
					name: `rubric for ${view || 'others'}`,
					value: plainText(markupOfNodes(node.children, cleaning))
				});
				return [];
			}
			return node.name === 'feedbackBlock' ||
				node.name === 'feedbackInline' ||
				node.name === 'infoControl' ||
				node.name === 'stylesheet'
				? []
				: undefined;
		}
	});
	return serialise(conform(nodes.filter((node) => typeof node === 'string' || !isEmptyBlock(node)))).trim();
}

const isEmptyBlock = (node: XmlElement) =>
	(node.name === 'p' || node.name === 'div') && !textOf(node).trim() && !childrenOf(node).length;

function promptNodes(interaction: XmlElement, cleaning: CleanContext): XmlNode[] {
	const prompt = childOf(interaction, 'prompt');
	if (!prompt || !(trimmed(prompt) || childrenOf(prompt).length)) return [];
	return [{ name: 'p', attributes: {}, children: cleanNodes(prompt.children, cleaning), line: 0 }];
}

function readBody(reading: Reading, body: XmlElement | undefined, interaction: XmlElement | undefined): Question {
	const { common, cleaning, declarations, item } = reading;
	if (!interaction) {
		common.stem = stemOf(body, reading, () => []);
		placeFeedback2(reading.item, common, [], cleaning);
		return { ...common, kind: 'information' };
	}
	const declaration = declarations.find((one) => one.identifier === interaction.attributes.responseIdentifier) ?? {
		identifier: interaction.attributes.responseIdentifier ?? '',
		cardinality: 'single',
		baseType: 'identifier',
		correct: [],
		mapping: null
	};
	common.stem = stemOf(body, reading, (node) => promptNodes(node, cleaning));
	const run = runner(reading, declaration.identifier);
	switch (interaction.name) {
		case 'choiceInteraction':
			return readChoice(reading, interaction, declaration, run);
		case 'textEntryInteraction':
			return readEntry(reading, declaration, run);
		case 'extendedTextInteraction':
			if (declaration.correct.length || declaration.mapping) return readEntry(reading, declaration, run);
			placeFeedback2(item, common, [], cleaning);
			return { ...common, kind: 'essay' };
		default:
			throw new UnknownRule(
				`It asks ${described[interaction.name] ?? `for an answer through “${interaction.name}”`}, which cannot be read yet.`
			);
	}
}

function readChoice(
	reading: Reading,
	interaction: XmlElement,
	declaration: ResponseDeclaration,
	run: (values: Value) => Processing
): ChoiceQuestion {
	const { common, cleaning, item, rules, reports, place } = reading;
	const choices = childrenOf(interaction, 'simpleChoice');
	const idents = choices.map((choice) => choice.attributes.identifier ?? '');
	const ofOptions = new Map<number, Markup>();
	const texts = choices.map((choice, at) =>
		markupOfNodes(choice.children, {
			...cleaning,
			replace: (node) => {
				if (node.name !== 'feedbackInline' && node.name !== 'feedbackBlock') return undefined;
				ofOptions.set(at, markupOfNodes(node.children, cleaning));
				return [];
			}
		})
	);
	const several = declaration.cardinality === 'multiple' && interaction.attributes.maxChoices !== '1';
	const named = [
		...new Set([
			...declaration.correct,
			...(declaration.mapping?.entries.filter((entry) => entry.value > 0).map((entry) => entry.key) ?? [])
		])
	];
	const lostKeys = named.filter((key) => idents.filter((one) => one === key).length !== 1);
	const repeated = [...new Set(idents.filter((one, at) => idents.indexOf(one) !== at))];
	if (repeated.length)
		reports.push({
			rule: 'repeated-identifier',
			severity: 'broken',
			message: `Several options share the identifier ${repeated.map((one) => `“${one}”`).join(', ')}, so the key does not say which of them is right. Mark the right one.`,
			place
		});
	const sure = (at: number) => !repeated.includes(idents[at]!);
	const answer = (ticked: number[]) => {
		const values = ticked.filter(sure).map((at) => idents[at]!);
		return values.length ? values : null;
	};
	const expected = idents.flatMap((one, at) => (declaration.correct.includes(one) && sure(at) ? [at] : []));
	let full = reading.full;
	let mark: (ticked: number[]) => number;
	const correctSet = new Set(declaration.correct);
	// where a single answer has several keys, or no rule says how to mark, the declared key itself is the rule
	if (!rules || (!several && declaration.correct.length > 1 && !declaration.mapping)) {
		full = 1;
		mark = declaration.mapping
			? (ticked) =>
					ticked.reduce(
						(sum, at) => sum + (declaration.mapping!.entries.find((entry) => entry.key === idents[at])?.value ?? 0),
						0
					)
			: several
				? (ticked) =>
						ticked.length === expected.length && expected.length && ticked.every((at) => expected.includes(at)) ? 1 : 0
				: (ticked) => (ticked.some((at) => sure(at) && correctSet.has(idents[at]!)) ? 1 : 0);
		if (declaration.mapping) full = reading.common.points || Math.max(1, mark(expected));
	} else if (isTemplate(rules, 'map_response') && declaration.mapping) {
		// the templates come to this; running them for every set of options would take most of the time of a large package
		const { entries, fallback, lower, upper } = declaration.mapping;
		const worth = idents.map((one) => entries.find((entry) => entry.key === one)?.value ?? fallback);
		mark = (ticked) => {
			const sum = ticked.filter(sure).reduce((total, at) => total + worth[at]!, 0);
			return Math.min(upper ?? Infinity, Math.max(lower ?? -Infinity, sum));
		};
	} else if (isTemplate(rules, 'match_correct')) {
		const wanted = expected.length === declaration.correct.length ? expected : [];
		mark = (ticked) =>
			wanted.length && ticked.length === wanted.length && ticked.every((at) => wanted.includes(at)) ? 1 : 0;
	} else mark = (ticked) => run(answer(ticked)).score;
	if (common.points === null) {
		const reachable = Math.max(0, ...[...idents.map((_, at) => [at]), expected].map(mark));
		full = reachable || full;
		common.points = rules ? full : null;
	} else if (isTemplate(rules, 'match_correct') && common.points !== 1) full = 1; // the template gives 1 for all the points there are
	const mapped = declaration.mapping && {
		scores: idents.map(
			(one) => declaration.mapping!.entries.find((entry) => entry.key === one)?.value ?? declaration.mapping!.fallback
		),
		lower: declaration.mapping.lower,
		upper: declaration.mapping.upper
	};
	const found = creditsByTrying(choices.length, several, full, mark, expected, mapped ?? undefined);
	if (!found.exact)
		reports.push({
			rule: 'marking-simplified',
			severity: 'doubtful',
			message:
				'Its marking cannot be held exactly. Each option was given what it adds to the score; look at the credit.',
			place
		});
	const answers: Answer[] = (hasFeedback(item) ? choices : []).map((_, at) => ({
		outcomes: run(answer([at])).outcomes,
		credit: mark([at]) / full,
		option: at
	}));
	if (several && expected.length && answers.length)
		answers.push({ outcomes: run(answer(expected)).outcomes, credit: 1, option: null });
	const modal = placeFeedback2(item, common, answers, cleaning);
	for (const [at, markup] of modal) if (!ofOptions.has(at)) ofOptions.set(at, markup);
	return {
		...common,
		kind: several ? 'multiple-response' : isTrueFalse(texts.map(plainText)) ? 'true-false' : 'multiple-choice',
		options: choices.map((choice, at) => ({
			identifier: idents[at]!,
			text: texts[at]!,
			credit: found.credits[at]!,
			...(ofOptions.get(at) ? { feedback: ofOptions.get(at)! } : {}),
			pinned: choice.attributes.fixed === 'true'
		})),
		shuffle: interaction.attributes.shuffle === undefined ? null : interaction.attributes.shuffle === 'true',
		combination: found.combination,
		bounds: found.bounds,
		lostKeys
	};
}

/** Whether an item tells anything after an answer that is not inside its options. */
const hasFeedback = (item: XmlElement) =>
	childOf(item, 'modalFeedback') !== undefined || descendants(item, 'feedbackBlock', 'feedbackInline').length > 0;

function isTemplate(rules: XmlElement | undefined, name: string): boolean {
	const address = rules?.attributes.template ?? rules?.attributes.templateLocation ?? '';
	return rules !== undefined && !childrenOf(rules).length && new RegExp(`/?${name}(\\.xml)?$`).test(address);
}

function readEntry(reading: Reading, declaration: ResponseDeclaration, run: (values: Value) => Processing): Question {
	const { common, cleaning, item, rules, reports, place } = reading;
	const literals = rules ? descendants(rules, 'baseValue', 'value').map(trimmed) : [];
	const keys = [...declaration.correct, ...(declaration.mapping?.entries.map((entry) => entry.key) ?? [])];
	const scoreOf = (text: string) => (rules ? run([text]).score : keys.includes(text) ? 1 : 0);
	const candidates = [
		...new Set([
			...keys,
			...(rules && descendants(rules, 'stringMatch', 'match', 'equal', 'lt', 'lte', 'gt', 'gte').length ? literals : [])
		])
	].filter((text) => text !== '');
	const reachable = Math.max(0, ...candidates.map(scoreOf));
	const full = isTemplate(rules, 'match_correct') || !rules ? 1 : common.points || reachable || 1;
	common.points ??= rules && reachable ? full : null;
	const credit = (text: string) => Math.max(-1, Math.min(1, Math.round((scoreOf(text) / full) * 1e6) / 1e6));
	const answers: Answer[] = (hasFeedback(item) ? [...candidates, epsilonText] : []).map((text) => ({
		outcomes: run([text]).outcomes,
		credit: credit(text),
		option: null
	}));
	placeFeedback2(item, common, answers, cleaning);
	if (rules && descendants(rules, 'patternMatch').length) throw new UnknownRule('patterns');
	if (['integer', 'float'].includes(declaration.baseType)) {
		const targets = candidates.map(parseNumber).filter((value) => value !== null);
		const centres = (rules ? descendants(rules, 'equal') : []).flatMap((node) =>
			targets.map((value) => ({ value, ...toleranceOf(node, value) }))
		);
		const critical = [...targets, ...centres.flatMap(({ value, below, above }) => [value - below, value + above])];
		const accepted = acceptedNumbers(
			critical,
			(value) => credit(String(value)),
			centres.filter(({ below, above }) => below === above).map(({ value, below }) => ({ value, tolerance: below }))
		);
		return { ...common, kind: 'numeric', whole: declaration.baseType === 'integer', accepted };
	}
	const accepted: AcceptedText[] = candidates.map((text) => {
		const other = text === text.toUpperCase() ? text.toLowerCase() : text.toUpperCase();
		return { text, credit: credit(text), caseSensitive: other === text ? false : credit(other) !== credit(text) };
	});
	// a mapping says outright what is accepted; it is believed where the rules bear it out
	const mapped = declaration.mapping?.entries.map(({ key, value, caseSensitive }) => ({
		text: key,
		credit: Math.max(-1, Math.min(1, Math.round((value / full) * 1e6) / 1e6)),
		caseSensitive
	}));
	const agrees = mapped?.every(
		(one) =>
			credit(one.text) ===
			(mapped.find(
				(other) =>
					other.text === one.text || (!other.caseSensitive && other.text.toLowerCase() === one.text.toLowerCase())
			)?.credit ?? 0)
	);
	const texts = mapped && agrees ? mapped : accepted.filter((one) => one.credit !== 0);
	if (rules && descendants(rules, 'stringMatch').some((node) => node.attributes.substring === 'true'))
		reports.push({
			rule: 'marking-simplified',
			severity: 'doubtful',
			message:
				'The file accepts any answer that contains the words of the key. Here only the words themselves are accepted; add the spellings that students will use.',
			place
		});
	return { ...common, kind: 'short-answer', accepted: texts };
}
