import { markupOfNodes } from '../../markup/clean';
import { withCommon } from '../../model/question';
import type { LabelImageQuestion, MatchingQuestion, OrderingQuestion } from '../../kinds';
import type { Pair, Side } from '../../model/pieces';
import { childrenOf, descendants, trimmed, type XmlElement } from '../../xml/tree';
import { shapeOf } from '../shapes';
import { feedbackByAnswers, markSets } from './marking';
import { pictureOf } from './points';
import type { ResponseDeclaration } from './process';
import { UnknownRule } from './values';
import {
	isTemplate,
	lostNames,
	lostOf,
	noteLost,
	printed,
	promptNodes,
	runner,
	simplified,
	stemOf,
	usesOf,
	type Reading
} from './reading';

const mostTried = 400;

function sideOf(reading: Reading, node: XmlElement): Side {
	return {
		identifier: node.attributes.identifier ?? '',
		text: markupOfNodes(node.children, { ...reading.cleaning, replace: printed }),
		uses: usesOf(node)
	};
}

/** The pairs of a response with their credit, by trying. */
function pairsOf(
	reading: Reading,
	declaration: ResponseDeclaration,
	left: string[],
	right: string[],
	direction = true
): Pick<MatchingQuestion, 'pairs' | 'combination' | 'bounds'> {
	const all = left.flatMap((one) => right.map((other) => ({ left: one, right: other })));
	const text = (pair: { left: string; right: string }) =>
		direction ? `${pair.left} ${pair.right}` : [pair.left, pair.right].sort().join(' ');
	const named = new Set([
		...declaration.correct,
		...(declaration.mapping?.entries.map((entry) => entry.key) ?? []),
		...(reading.rules ? descendants(reading.rules, 'baseValue').map(trimmed) : [])
	]);
	const fallback = declaration.mapping?.fallback ?? 0;
	if (fallback !== 0 && all.length > mostTried)
		throw new UnknownRule('It takes points off for each of so many wrong pairs that they cannot be held.');
	const tried = all.filter((pair) => fallback !== 0 || all.length <= 10 || named.has(text(pair)));
	const found = markSets(reading, declaration, tried.map(text), declaration.cardinality !== 'single');
	const pairs: Pair[] = tried.flatMap((pair, at) =>
		found.credits[at] === 0 ? [] : [{ ...pair, credit: found.credits[at]! }]
	);
	noteLost(reading, lostNames(lostOf(declaration, all.map(text)), [...left, ...right]));
	return { pairs, combination: found.combination, bounds: found.bounds };
}

/** Reads pairs between two sets, or within one (2.1, 7.2.3 and 7.2.4). */
export function readMatch(
	reading: Reading,
	interaction: XmlElement,
	declaration: ResponseDeclaration
): MatchingQuestion {
	const { common, cleaning, reports, place } = reading;
	common.stem = stemOf(reading, (node) => promptNodes(node, cleaning));
	const shuffle = interaction.attributes.shuffle === undefined ? null : interaction.attributes.shuffle === 'true';
	if (interaction.name === 'matchInteraction') {
		const [first, second] = childrenOf(interaction, 'simpleMatchSet');
		const left = childrenOf(first ?? interaction, 'simpleAssociableChoice').map((node) => sideOf(reading, node));
		const right = childrenOf(second ?? { ...interaction, children: [] }, 'simpleAssociableChoice').map((node) =>
			sideOf(reading, node)
		);
		const pairs = pairsOf(
			reading,
			declaration,
			left.map((one) => one.identifier),
			right.map((one) => one.identifier)
		);
		return withCommon(common, { kind: 'matching', left, right, shuffle, ...pairs });
	}
	const sides = childrenOf(interaction, 'simpleAssociableChoice').map((node) => sideOf(reading, node));
	const order = new Map(sides.map((side, at) => [side.identifier, at]));
	const firsts = new Set(
		[
			...declaration.correct,
			...(declaration.mapping?.entries.filter((one) => one.value > 0).map((one) => one.key) ?? [])
		]
			.map((pair) => pair.split(' '))
			.map((pair) => [...pair].sort((a, b) => (order.get(a) ?? 0) - (order.get(b) ?? 0))[0]!)
	);
	reports.push({
		rule: 'reshaped',
		severity: 'untidy',
		message:
			'Students make pairs within one list. Here the first of each right pair stands on the left, all others on the right; the pairs stay the same.',
		place
	});
	const left = sides.filter((side) => firsts.has(side.identifier));
	const right = sides.filter((side) => !firsts.has(side.identifier));
	const pairs = pairsOf(
		reading,
		declaration,
		left.map((one) => one.identifier),
		right.map((one) => one.identifier),
		false
	);
	return withCommon(common, { kind: 'matching', left, right, shuffle, ...pairs });
}

/** Reads labels that are laid on a picture (2.1, 7.4.4). */
export function readLabels(
	reading: Reading,
	interaction: XmlElement,
	declaration: ResponseDeclaration
): LabelImageQuestion {
	const { common, cleaning } = reading;
	common.stem = stemOf(reading, (node) => promptNodes(node, cleaning));
	const labels = childrenOf(interaction)
		.filter((node) => node.name === 'gapImg' || node.name === 'gapText')
		.map((node) => sideOf(reading, node));
	const targets = childrenOf(interaction, 'associableHotspot').map((node) => ({
		...shapeOf(node, node.attributes.identifier ?? ''),
		uses: usesOf(node)
	}));
	const pairs = pairsOf(
		reading,
		declaration,
		labels.map((one) => one.identifier),
		targets.map((one) => one.identifier)
	);
	return withCommon(common, {
		kind: 'label-image',
		picture: pictureOf(reading, interaction),
		labels,
		targets,
		...pairs
	});
}

const orders = (list: string[]): string[][] =>
	list.length < 2
		? [list]
		: list.flatMap((one, at) => orders([...list.slice(0, at), ...list.slice(at + 1)]).map((rest) => [one, ...rest]));

/** Whether the right order names each of the things, so that none stays out; what it names in vain may mean any of them. */
export function ordersAll(interaction: XmlElement, { correct }: ResponseDeclaration): boolean {
	const all = childrenOf(interaction, 'simpleChoice').map((choice) => choice.attributes.identifier ?? '');
	return !correct.length || correct.length >= all.length || all.every((one) => correct.includes(one));
}

/** The things in the right order; what no place of it names comes where it names something in vain, and then at the end. */
function orderBy(correct: string[], presented: string[]): string[] {
	const unnamed = presented.filter((one) => !correct.includes(one));
	return [...new Set(correct)].flatMap((one) => (presented.includes(one) ? one : unnamed.splice(0, 1))).concat(unnamed);
}

/** Reads things to be put in order (2.1, 7.2.2). */
export function readOrder(
	reading: Reading,
	interaction: XmlElement,
	declaration: ResponseDeclaration
): OrderingQuestion {
	const { common, cleaning, rules } = reading;
	common.stem = stemOf(reading, (node) => promptNodes(node, cleaning));
	const choices = childrenOf(interaction, 'simpleChoice');
	const presented = choices.map((choice) => choice.attributes.identifier ?? '');
	const order = orderBy(declaration.correct, presented);
	const run = runner(reading, declaration.identifier);
	let rule: OrderingQuestion['rule'] = 'all';
	let full = 1;
	if (rules && !isTemplate(rules, 'match_correct')) {
		full = run(order).score;
		if (common.points === null) common.points = full > 0 ? full : null;
		const tried =
			order.length <= 5 ? orders(order) : [order, [...order].reverse(), [order[1]!, order[0]!, ...order.slice(2)]];
		const places = (one: string[]) => one.filter((value, at) => value === order[at]).length / order.length;
		const fits = (mark: (one: string[]) => number) =>
			tried.every((one) => Math.abs(run(one).score - full * mark(one)) < 1e-6);
		if (fits((one) => (places(one) === 1 ? 1 : 0))) rule = 'all';
		else if (fits(places)) rule = 'position';
		else simplified(reading, 'Its marking cannot be held exactly. All in place earns the points; look at the rule.');
	} else if (rules) common.points ??= 1;
	feedbackByAnswers(reading, [
		{ outcomes: run(order).outcomes, credit: 1 },
		{ outcomes: run([...order].reverse()).outcomes, credit: 0 }
	]);
	if (!declaration.correct.length)
		reading.reports.push({
			rule: 'no-right-order',
			severity: 'broken',
			message: 'The file does not say which order is right. The order of the file was taken; put it right.',
			place: reading.place
		});
	const texts = new Map(
		choices.map((choice) => [
			choice.attributes.identifier ?? '',
			markupOfNodes(choice.children, { ...cleaning, replace: printed })
		])
	);
	noteLost(reading, lostOf({ ...declaration, mapping: null }, presented));
	return withCommon(common, {
		kind: 'ordering',
		items: order.map((identifier) => ({ identifier, text: texts.get(identifier) ?? '' })),
		presented,
		rule,
		shuffle: interaction.attributes.shuffle === undefined ? null : interaction.attributes.shuffle === 'true'
	});
}
