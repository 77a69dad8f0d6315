import { lookup } from '../../model/lookup';
import { withCommon } from '../../model/question';
import type { Question } from '../../kinds';
import {
	childOf,
	childrenOf,
	descendants,
	descendantsIn,
	textOf as plainOf,
	type XmlElement,
	type XmlNode
} from '../../xml/tree';
import { readBlanks, readGaps } from './blanks';
import { readCalculated } from './calculated';
import { readChoice } from './choice';
import { readEntry } from './entry';
import { placeFeedback2 } from './feedback';
import { ordersAll, readLabels, readMatch, readOrder } from './match';
import { readPoints } from './points';
import { responseDeclaration } from './process';
import { declarationOf, interactionNames, promptNodes, stemOf, type Reading } from './reading';
import { UnknownRule } from './values';
import { isTemplateItem } from './worked-out';

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

/** What an item asks for, and what it only plays. */
export function askedIn(item: XmlElement): Pick<Reading, 'item' | 'body' | 'declarations' | 'rules'> & {
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

/** Reads what an item asks, by its interactions. Throws an UnknownRule. */
export function readBody(reading: Reading, interactions: XmlElement[]): Question {
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
