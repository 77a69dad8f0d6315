import { markupOfNodes } from '../../markup/clean';
import { blankMarker } from '../../markup/markers';
import { plainText } from '../../markup/text';
import { withCommon, type Markup } from '../../model/question';
import type { Blank, FillBlanksQuestion, MatchingQuestion } from '../../kinds';
import { serialise } from '../../xml/serialise';
import { childOf, childrenOf, descendants, trimmed, type XmlElement } from '../../xml/tree';
import { parseXml } from '../../xml/parse';
import { bestFirst } from '../best';
import { subsets } from '../credits';
import { weigh, type Weighed } from '../weigh';
import { placeFeedback, type Trial } from './feedback';
import { isOfOptions, joinBlocks, materialBelow } from './material';
import {
	cardinalityOf,
	conditionsOn,
	numberType,
	partOf,
	responseNames,
	run12,
	saysBlanks,
	settlePoints12,
	simplified12,
	Unheld,
	type Reading12
} from './reading';
import { blankForm, isOpen } from './text';

/** Of more options than this not every set is tried. */
const mostTried = 10;
const isResponse = (node: XmlElement) => responseNames.includes(node.name);
/** The options of a response; a box to write in may hold labels too, which say where it stands and are no options. */
const labelsOf = (response: XmlElement) =>
	response.name === 'response_lid' ? descendants(response, 'response_label') : [];

/** What is right for a response, by trying what its conditions name; null where nothing earns. */
function rightOf(reading: Reading12, response: XmlElement): string[] | null {
	const ident = response.attributes.ident ?? '';
	const conditions = conditionsOn(reading, ident);
	const listed = labelsOf(response).map((label) => label.attributes.ident ?? '');
	const named = listed.length ? listed : conditions.map(trimmed);
	const numbers = conditions.map((node) => Number(trimmed(node))).filter(Number.isFinite);
	const middle = numbers.length > 1 ? [String((Math.min(...numbers) + Math.max(...numbers)) / 2)] : [];
	const score = (value: string[]) => run12(reading, new Map([[ident, value]])).score;
	const names = numberType(response) ? [...named, ...middle] : named;
	const earned = new Map(names.map((name) => [name, score([name])]));
	const [best] = bestFirst(names, (name) => earned.get(name)!);
	if (best !== undefined && earned.get(best)! > 0)
		return cardinalityOf(response) === 'multiple' ? names.filter((one) => earned.get(one)! > 0) : [best];
	if (cardinalityOf(response) === 'multiple' && listed.length <= mostTried) {
		const [set] = bestFirst(subsets(listed.length), (places) => score(places.map((at) => listed[at]!)));
		const ticked = (set ?? []).map((at) => listed[at]!);
		if (ticked.length && score(ticked) > 0) return ticked;
	}
	if (numberType(response)) {
		// where only all answers together earn anything, the number that fits the most of its conditions is right
		const fits = (value: number) =>
			conditions.filter((node) => {
				const bound = Number(trimmed(node));
				if (node.name === 'vargte') return value >= bound;
				if (node.name === 'vargt') return value > bound;
				if (node.name === 'varlte') return value <= bound;
				if (node.name === 'varlt') return value < bound;
				return value === bound;
			}).length;
		const whole = numberType(response) === 'integer';
		const near = [...numbers, Number(middle[0] ?? numbers[0] ?? 0)].flatMap((value) =>
			whole ? [Math.floor(value), Math.ceil(value)] : [value, value - 0.5, value + 0.5]
		);
		const [most] = bestFirst(near, fits);
		return conditions.length && most !== undefined ? [String(most)] : null;
	}
	const refused = new Set(
		(reading.processing ? descendants(reading.processing, 'not') : []).flatMap((node) => descendants(node, 'varequal'))
	);
	const keys = [
		...new Set(
			conditions
				.filter((node) => node.name === 'varequal' && !refused.has(node))
				.map(trimmed)
				.filter((key) => !listed.length || listed.includes(key))
		)
	];
	// where only all answers together earn anything, what is named is what is right
	return keys.length ? (cardinalityOf(response) === 'multiple' ? keys : keys.slice(0, 1)) : null;
}

function weighed(reading: Reading12): Weighed {
	const parts = reading.responses.map((response) => ({
		identifier: response.attributes.ident ?? '',
		...(response.attributes[partOf] === undefined ? {} : { group: response.attributes[partOf] }),
		open: isOpen(reading, response) && response.name === 'response_str',
		right: rightOf(reading, response)
	}));
	const score = (responses: Map<string, string[] | null>) =>
		run12(reading, new Map([...responses].flatMap(([ident, value]) => (value ? [[ident, value] as const] : [])))).score;
	const found = weigh(parts, score, reading.full);
	if (!parts.some((part) => part.open)) settlePoints12(reading, found.top);
	if (!found.exact)
		simplified12(
			reading,
			'Its marking weighs the answers against each other, which cannot be held. Each was given what it adds when all others are right; look at the credit.'
		);
	const right = new Map(parts.flatMap((part) => (part.right ? [[part.identifier, part.right] as const] : [])));
	const trials: Trial[] = [
		{ responses: right, full: true, option: null },
		{ responses: new Map(parts.map((part) => [part.identifier, ['\u0001']])), full: false, option: null }
	];
	placeFeedback(reading.item, reading.common, trials, reading.cleaning, reading.cardinalities);
	return found;
}

/** The text in front of a response that stands with it in a flow of its own, or in it. */
function ownText(reading: Reading12, response: XmlElement): Markup {
	const inner = joinBlocks(materialBelow(response, reading.cleaning, isOfOptions));
	if (plainText(inner) || /<(img|object|math)\b/.test(inner)) return inner;
	const flow = flowAround(reading.presentation!, response);
	if (!flow || flow === reading.presentation || childrenOf(flow).filter(isResponse).length > 1) return '';
	return joinBlocks(materialBelow(flow, reading.cleaning, (name) => responseNames.includes(name)));
}

function flowAround(node: XmlElement, response: XmlElement): XmlElement | null {
	for (const child of childrenOf(node)) {
		if (child === response) return node;
		const found = isResponse(child) ? null : flowAround(child, response);
		if (found) return found;
	}
	return null;
}

/** Whether the responses ask to match: each with a text of its own, all with the same options to choose from. */
function isMatching(reading: Reading12): boolean {
	const { responses, cleaning } = reading;
	const quiet = { ...cleaning, media: (address: string) => address };
	const options = responses.map((response) =>
		labelsOf(response)
			.map((label) => plainText(joinBlocks(materialBelow(label, quiet))))
			.sort()
			.join('\n')
	);
	return (
		responses.length > 1 &&
		responses.every((one) => one.name === 'response_lid' && childOf(one, 'render_choice')) &&
		responses.every((one) => cardinalityOf(one) !== 'ordered') &&
		options.every((one) => one !== '' && one === options[0]) &&
		responses.every((response) => ownText({ ...reading, cleaning: quiet }, response) !== '')
	);
}

function readMatching(reading: Reading12): MatchingQuestion {
	const { common, responses, cleaning, presentation } = reading;
	const own = new Set(
		responses.map((response) => flowAround(presentation!, response)).filter((one) => one !== presentation)
	);
	const inside = new Set(
		responses.flatMap((response) =>
			plainText(joinBlocks(materialBelow(response, cleaning, isOfOptions))) ? [response] : []
		)
	);
	// a flow of its own holds the text of its response; a flow shared by all holds the stem
	const stem = (node: XmlElement): Markup[] =>
		childrenOf(node).flatMap((child) => {
			if (isResponse(child)) return [];
			if (child.name === 'material') return materialBelow({ ...node, children: [child] }, cleaning);
			const [only, ...more] = childrenOf(child).filter(isResponse);
			return own.has(child) && only && !more.length && !inside.has(only) ? [] : stem(child);
		});
	common.stem = joinBlocks(presentation ? stem(presentation) : []);
	const found = weighed(reading);
	const texts = labelsOf(responses[0]!).map((label) => joinBlocks(materialBelow(label, cleaning)));
	const place = new Map(texts.map((text, at) => [plainText(text), at]));
	const right = labelsOf(responses[0]!).map((label, at) => ({
		identifier: label.attributes.ident ?? '',
		text: texts[at]!,
		uses: null as number | null
	}));
	const left = responses.map((response) => ({
		identifier: response.attributes.ident ?? '',
		text: ownText(reading, response),
		uses: cardinalityOf(response) === 'multiple' ? null : 1
	}));
	const pairs = responses.flatMap((response, at) =>
		labelsOf(response).flatMap((label) => {
			const identifier = response.attributes.ident ?? '';
			const credit = found.credit(identifier, [label.attributes.ident ?? '']) * found.shares[at]!;
			const target = right[place.get(plainText(joinBlocks(materialBelow(label, cleaning)))) ?? -1];
			return credit && target
				? [{ left: identifier, right: target.identifier, credit: Math.round(credit * 1e6) / 1e6 }]
				: [];
		})
	);
	const { shuffle } = childOf(responses[0], 'render_choice')!.attributes;
	return withCommon(common, {
		kind: 'matching',
		left,
		right,
		pairs,
		combination: found.all ? 'all' : 'sum',
		bounds: { lower: null, upper: null },
		shuffle: shuffle === undefined ? null : /^yes$/i.test(shuffle)
	});
}

/** The presentation as a stem with the places of its blanks; what stands in one flow stands in one line. */
function stemWithBlanks(reading: Reading12): Markup {
	const { cleaning } = reading;
	const nodesOf = (markup: Markup) => parseXml(`<x>${markup}</x>`).root?.children ?? [];
	const lines = (node: XmlElement): Markup[] => {
		const out: Markup[] = [];
		let line = '';
		const alone = childrenOf(node).filter((child) => child.name === 'material' || isResponse(child)).length === 1;
		for (const child of childrenOf(node)) {
			if (child.name === 'material') {
				const [piece = ''] = materialBelow({ ...node, children: [child] }, cleaning);
				const text = descendants(child, 'mattext')[0];
				const raw = text ? text.children.join('') : '';
				line += `${/^\s/.test(raw) || (line.endsWith('/>') && /^[<\p{L}\p{N}(“]/u.test(piece)) ? ' ' : ''}${piece}${/\s$/.test(raw) ? ' ' : ''}`;
			} else if (isResponse(child)) {
				const inner = materialBelow(child, cleaning, isOfOptions);
				const block = inner.length > 0 || (alone && childOf(child, 'render_choice') !== undefined);
				const marker = serialise([blankMarker(child.attributes.ident ?? '', block)]);
				if (block) {
					out.push(line, ...inner, marker);
					line = '';
				} else line += `${line && !/\s$/.test(line) ? ' ' : ''}${marker}`;
			} else if (childrenOf(child).length) {
				out.push(line, ...lines(child));
				line = '';
			}
		}
		return [...out, line].filter((one) => one.trim());
	};
	const all = reading.presentation ? lines(reading.presentation) : [];
	return markupOfNodes(nodesOf(joinBlocks(all)), { ...cleaning, ours: true });
}

/** Reads several responses of one item: as a matching where all have the same options, and else as blanks. */
export function readSeveral12(reading: Reading12): FillBlanksQuestion | MatchingQuestion {
	const { responses, common, cleaning } = reading;
	const odd = responses.find(
		(response) =>
			!['response_lid', 'response_str', 'response_num'].includes(response.name) ||
			cardinalityOf(response) === 'ordered' ||
			(response.name === 'response_lid' && !childOf(response, 'render_choice'))
	);
	if (odd)
		throw new Unheld(
			`It asks for ${responses.length} answers in one question, one of them through “${odd.name}”, which cannot be held together.`
		);
	const idents = responses.map((response) => response.attributes.ident ?? '');
	if (new Set(idents).size < idents.length)
		throw new Unheld('It asks for several answers under one name, so they cannot be told apart.');
	if (!saysBlanks(reading) && isMatching(reading)) return readMatching(reading);
	common.stem = stemWithBlanks(reading);
	const found = weighed(reading);
	const blanks = responses.map((response, at): Blank => {
		const identifier = idents[at]!;
		const credit = (value: string) => found.credit(identifier, [value]);
		const share = found.shares[at]!;
		if (response.name !== 'response_lid') return { ...blankForm(reading, response, credit), share };
		const several = cardinalityOf(response) === 'multiple';
		const right = rightOf(reading, response) ?? [];
		const { shuffle } = childOf(response, 'render_choice')!.attributes;
		return {
			identifier,
			share,
			form: 'list',
			several,
			shuffle: shuffle === undefined ? null : /^yes$/i.test(shuffle),
			entries: labelsOf(response).map((label) => {
				const name = label.attributes.ident ?? '';
				return {
					identifier: name,
					text: joinBlocks(materialBelow(label, cleaning)),
					credit: several ? (right.includes(name) ? Math.round(1e6 / right.length) / 1e6 : 0) : credit(name)
				};
			})
		};
	});
	return withCommon(common, {
		kind: 'fill-blanks',
		blanks,
		bank: [],
		combination: found.all ? 'all' : 'sum',
		shuffle: null
	});
}
