import { cleanNodes, markupOfNodes, type CleanContext } from '../../markup/clean';
import { conform } from '../../markup/conform';
import { variableMarker } from '../../markup/markers';
import { plainText } from '../../markup/text';
import type { Markup, QuestionCommon } from '../../model/question';
import type { Report } from '../../reports/report';
import { serialise } from '../../xml/serialise';
import {
	childOf,
	childrenOf,
	descendants,
	element,
	textOf,
	trimmed,
	type XmlElement,
	type XmlNode
} from '../../xml/tree';
import { parseNumber } from '../../numbers/numbers';
import { Processing, type ResponseDeclaration } from './process';
import type { Value } from './values';

/** Everything that asks for an answer (QTI 2.1 information model, section 7). */
export const interactionNames = new Set(
	'choiceInteraction textEntryInteraction extendedTextInteraction inlineChoiceInteraction matchInteraction associateInteraction orderInteraction gapMatchInteraction hottextInteraction hotspotInteraction selectPointInteraction graphicOrderInteraction graphicAssociateInteraction graphicGapMatchInteraction positionObjectInteraction sliderInteraction mediaInteraction drawingInteraction uploadInteraction customInteraction portableCustomInteraction'.split(
		' '
	)
);

/** An item while it is read. */
export interface Reading {
	common: QuestionCommon;
	cleaning: CleanContext;
	item: XmlElement;
	body: XmlElement | undefined;
	declarations: ResponseDeclaration[];
	rules: XmlElement | undefined;
	/** The rules that say which feedback is shown, where they are not those that it is marked by. */
	feedbackRules?: XmlElement | undefined;
	/** The score that stands for all the points. */
	full: number;
	reports: Report[];
	place: { file: string; line: number };
	/** What stands behind the box for a number, once it is found. */
	unit?: string;
	/** Notes that the question uses a file; gives the name under which it is attached. */
	attach: (address: string) => string | null;
}

/** The points that an item declares: MAXSCORE, or the normal maximum of its SCORE (2.1, 4.4). */
export function declaredPoints(item: XmlElement): number | null {
	const outcomes = childrenOf(item, 'outcomeDeclaration');
	const most = outcomes.find((node) => node.attributes.identifier === 'MAXSCORE');
	const value = most ? parseNumber(trimmed(childOf(childOf(most, 'defaultValue') ?? most, 'value'))) : null;
	const normal = parseNumber(
		outcomes.find((node) => node.attributes.identifier === 'SCORE')?.attributes.normalMaximum ?? ''
	);
	return [value, normal].find((one): one is number => one !== null && one !== undefined && one >= 0) ?? null;
}

/** Runs the item's rules on answers. */
export function runAll(reading: Reading, responses: Map<string, Value>): Processing {
	const processing = new Processing(reading.item, reading.declarations, responses);
	const rules = reading.rules ?? reading.feedbackRules;
	if (rules) processing.run(rules);
	return processing;
}

/** Runs the item's rules on the answer to one interaction. */
export function runner(reading: Reading, identifier: string): (values: Value) => Processing {
	return (values) => runAll(reading, new Map([[identifier, values]]));
}

/** The declaration of an interaction's response, or an empty one where the file has none. */
export function declarationOf(reading: Reading, interaction: XmlElement): ResponseDeclaration {
	const identifier = interaction.attributes.responseIdentifier ?? '';
	return (
		reading.declarations.find((one) => one.identifier === identifier) ?? {
			identifier,
			cardinality: 'single',
			baseType: 'identifier',
			correct: [],
			areas: null,
			mapping: null
		}
	);
}

const isEmptyBlock = (node: XmlElement) =>
	(node.name === 'p' || node.name === 'div') &&
	!textOf(node).trim() &&
	!childrenOf(node).length &&
	node.attributes.id === undefined;

/** What a printed variable stands for in rich text of ours. */
export const printed = (node: XmlElement): XmlNode[] | undefined =>
	node.name === 'printedVariable' ? [variableMarker(node.attributes.identifier ?? '')] : undefined;

/** The body as a stem: without rubrics for others and without feedback, each interaction replaced as told. */
export function stemOf(reading: Reading, replace: (interaction: XmlElement) => XmlNode[]): Markup {
	const { body, cleaning, common } = reading;
	if (!body) return '';
	const boxes = descendants(body, 'textEntryInteraction').length;
	const nodes = cleanNodes(body.children, {
		...cleaning,
		replace: (node) => {
			if (node.name === 'mediaInteraction') return [...promptNodes(node, cleaning), ...shownIn(node, cleaning)];
			if (interactionNames.has(node.name)) return replace(node);
			if (node.name === 'rubricBlock') {
				const view = node.attributes.view ?? '';
				if (/candidate/.test(view) || !view) return cleanNodes(node.children, cleaning);
				const value = plainText(markupOfNodes(node.children, cleaning));
				if (value) common.metadata.push({ name: `rubric for ${view}`, value });
				return [];
			}
			if (node.name === 'infoControl') {
				const hint = markupOfNodes(node.children, cleaning);
				if (hint) common.hints.push(hint);
				return [];
			}
			if (node.name === 'span' && node.attributes.class === 'unit' && boxes === 1) {
				reading.unit = trimmed(node);
				return [];
			}
			if (node.name === 'feedbackBlock' || node.name === 'feedbackInline' || node.name === 'stylesheet') return [];
			return printed(node);
		}
	});
	return serialise(conform(nodes.filter((node) => typeof node === 'string' || !isEmptyBlock(node)))).trim();
}

/** What an interaction plays, to stand in the stem. */
const shownIn = (interaction: XmlElement, cleaning: CleanContext): XmlNode[] =>
	cleanNodes(
		childrenOf(interaction).filter((node) => node.name !== 'prompt'),
		cleaning
	);

/** The prompt of an interaction as a paragraph, or nothing. */
export function promptNodes(interaction: XmlElement, cleaning: CleanContext): XmlNode[] {
	const prompt = childOf(interaction, 'prompt');
	if (!prompt || !(trimmed(prompt) || childrenOf(prompt).length)) return [];
	return [element('p', {}, cleanNodes(prompt.children, { ...cleaning, replace: printed }))];
}

/** Whether an item tells anything after an answer that is not inside its options. */
export const hasFeedback = (item: XmlElement) =>
	childOf(item, 'modalFeedback') !== undefined || descendants(item, 'feedbackBlock', 'feedbackInline').length > 0;

/** Whether the item is marked by one of the standard's templates, whatever the spelling of its address (2.1, 5.3). */
export function isTemplate(rules: XmlElement | undefined, name: string): boolean {
	if (!rules || childrenOf(rules).length) return false;
	const address = (rules.attributes.template ?? rules.attributes.templateLocation ?? '')
		.toLowerCase()
		.replace(/\.xml$/, '');
	return (
		address.endsWith(name) &&
		(address.length === name.length || /[/_]/.test(address[address.length - name.length - 1]!))
	);
}

/** A report that the marking could not be held as it is. */
export function simplified(reading: Reading, message: string): void {
	reading.reports.push({ rule: 'marking-simplified', severity: 'doubtful', message, place: reading.place });
}

/** The keys that a declaration names in vain: what is right by it, and not among the known values. */
export function lostOf({ correct, mapping }: ResponseDeclaration, known: Iterable<string>): string[] {
	const values = new Set(known);
	const right = (mapping?.entries ?? []).filter(({ value }) => value > 0).map(({ key }) => key);
	return [...new Set([...correct, ...right])].filter((key) => !values.has(key));
}

/** What pairs that are named in vain have that is not known; the pairs themselves where all of it is. */
export function lostNames(pairs: string[], known: readonly string[]): string[] {
	const names = new Set(known);
	const missing = pairs.flatMap((pair) => pair.split(' ').filter((name) => !names.has(name)));
	return missing.length ? missing : pairs;
}

/** Keeps what a key names in vain, until somebody marks the key. */
export function noteLost({ common }: Reading, names: string[]): void {
	if (names.length) common.lostKeys = [...new Set([...(common.lostKeys ?? []), ...names])];
}

/** How many times something may be used: `matchMax`, where 0 is as often as one likes (2.1, 7.2.3). */
export function usesOf(node: XmlElement): number | null {
	const most = parseNumber(node.attributes.matchMax ?? '');
	return most === null || most === 0 ? null : most;
}
