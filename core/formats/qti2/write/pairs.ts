import type { LabelImageQuestion, MatchingQuestion, OrderingQuestion } from '../../../kinds';
import type { Picture, Side } from '../../../model/pieces';
import { plainText } from '../../../markup/text';
import { escapeAttribute, escapeText } from '../../../xml/serialise';
import { mediaType } from '../../media';
import { coordinatesText } from '../../shapes';
import {
	addScore,
	boundsText,
	correct,
	declare,
	float,
	identifiersFor,
	number,
	setScore,
	shuffleText,
	type Parts,
	type Writing
} from './parts';

/** A picture as the standard writes it in a graphic interaction; its size is 0 where it is not known. */
export function pictureXml({ name, width, height, alt }: Picture, { address }: Writing): string {
	const size = (side: string, value: number | null) => (value === null ? '' : ` ${side}="${Math.round(value)}"`);
	const type = mediaType(name).startsWith('image/') ? mediaType(name) : 'image/png';
	return `<object type="${type}" data="${escapeAttribute(address(name))}"${size('width', width)}${size('height', height)}>${escapeText(alt)}</object>`;
}

function pairParts(
	question: MatchingQuestion | LabelImageQuestion,
	left: Map<string, string>,
	right: Map<string, string>,
	scale: number
): Pick<Parts, 'declaration' | 'template' | 'rules'> {
	const text = (pair: { left: string; right: string }) => `${left.get(pair.left)} ${right.get(pair.right)}`;
	const known = question.pairs.filter((pair) => left.has(pair.left) && right.has(pair.right));
	const keys = known.filter((pair) => pair.credit > 0).map(text);
	if (question.combination === 'all' && keys.length) {
		const declaration = declare('multiple', 'directedPair', correct(keys));
		if (scale === 1) return { declaration, template: 'match_correct' };
		return {
			declaration,
			rules: `<responseCondition><responseIf><match><variable identifier="RESPONSE"/><correct identifier="RESPONSE"/></match>${setScore(scale)}</responseIf></responseCondition>`
		};
	}
	const entries = known
		.filter((pair) => pair.credit !== 0)
		.map((pair) => `<mapEntry mapKey="${text(pair)}" mappedValue="${number(pair.credit * scale)}"/>`)
		.join('');
	const mapping = entries ? `<mapping${boundsText(question.bounds, scale)} defaultValue="0">${entries}</mapping>` : '';
	return { declaration: declare('multiple', 'directedPair', correct(keys) + mapping), template: 'map_response' };
}

const named = (list: { identifier: string }[], names: string[]) =>
	new Map(list.map((one, at) => [one.identifier, names[at]!]));

/** The parts of a matching. */
export function matchParts(question: MatchingQuestion, writing: Writing): Parts {
	const all = identifiersFor([...question.left, ...question.right], 'M');
	const left = all.slice(0, question.left.length);
	const right = all.slice(question.left.length);
	const set = (sides: Side[], names: string[]) =>
		`<simpleMatchSet>${sides
			.map(
				(side, at) =>
					`<simpleAssociableChoice identifier="${names[at]}" matchMax="${side.uses ?? 0}">${writing.flow(side.text)}</simpleAssociableChoice>`
			)
			.join('')}</simpleMatchSet>`;
	return {
		...pairParts(question, named(question.left, left), named(question.right, right), writing.scale),
		interaction: `<matchInteraction responseIdentifier="RESPONSE"${shuffleText(question.shuffle) || ''} maxAssociations="0">${set(question.left, left)}${set(question.right, right)}</matchInteraction>`
	};
}

/** A label as the standard holds it: a single picture as such, and else a text. */
function labelXml(label: Side, name: string, writing: Writing): string {
	const picture = /^<img src="media:([^"]*)"([^>]*)\/>$/.exec(label.text);
	const inner = picture ? writing.flow(label.text) : '';
	const source = /src="([^"]*)"/.exec(inner)?.[1];
	if (picture && source) {
		const attribute = (key: string) => new RegExp(`\\b${key}="([^"]*)"`).exec(picture[2]!)?.[1];
		const size = ['width', 'height'].map((key) => (attribute(key) ? ` ${key}="${attribute(key)}"` : '')).join('');
		const type = mediaType(picture[1]!).startsWith('image/') ? mediaType(picture[1]!) : 'image/png';
		return `<gapImg identifier="${name}" matchMax="${label.uses ?? 0}"><object type="${type}" data="${source}"${size}>${attribute('alt') ?? ''}</object></gapImg>`;
	}
	return `<gapText identifier="${name}" matchMax="${label.uses ?? 0}">${escapeText(plainText(label.text))}</gapText>`;
}

/** The parts of labels to be laid on a picture. */
export function labelParts(question: LabelImageQuestion, writing: Writing): Parts {
	const all = identifiersFor([...question.labels, ...question.targets], 'L');
	const labels = all.slice(0, question.labels.length);
	const targets = all.slice(question.labels.length);
	const places = question.targets
		.map(
			(target, at) =>
				`<associableHotspot identifier="${targets[at]}" matchMax="${target.uses ?? 0}" shape="${target.shape}" coords="${coordinatesText(target)}"/>`
		)
		.join('');
	return {
		...pairParts(question, named(question.labels, labels), named(question.targets, targets), writing.scale),
		interaction: `<graphicGapMatchInteraction responseIdentifier="RESPONSE">${pictureXml(question.picture, writing)}${question.labels.map((label, at) => labelXml(label, labels[at]!, writing)).join('')}${places}</graphicGapMatchInteraction>`
	};
}

/** The parts of things to be put in order. */
export function orderParts(question: OrderingQuestion, { scale, flow }: Writing): Parts {
	const presented = question.presented.flatMap(
		(identifier) => question.items.find((item) => item.identifier === identifier) ?? []
	);
	const names = named(presented, identifiersFor(presented, 'O'));
	const choices = presented
		.map((item) => `<simpleChoice identifier="${names.get(item.identifier)}">${flow(item.text)}</simpleChoice>`)
		.join('');
	const order = question.items.map((item) => names.get(item.identifier)!);
	const declaration = declare('ordered', 'identifier', correct(order));
	const interaction = `<orderInteraction responseIdentifier="RESPONSE"${shuffleText(question.shuffle)}>${choices}</orderInteraction>`;
	if (question.rule === 'position') {
		const share = scale / order.length;
		const rules = order
			.map(
				(name, at) =>
					`<responseCondition><responseIf><match><index n="${at + 1}"><variable identifier="RESPONSE"/></index><baseValue baseType="identifier">${name}</baseValue></match>${addScore(float(share))}</responseIf></responseCondition>`
			)
			.join('');
		return { declaration, interaction, rules };
	}
	if (scale === 1) return { declaration, interaction, template: 'match_correct' };
	const rules = `<responseCondition><responseIf><match><variable identifier="RESPONSE"/><correct identifier="RESPONSE"/></match>${setScore(scale)}</responseIf></responseCondition>`;
	return { declaration, interaction, rules };
}
