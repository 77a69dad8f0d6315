import { withCommon } from '../../model/question';
import type { HotspotQuestion, MatchingQuestion, OrderingQuestion } from '../../kinds';
import type { Shape } from '../../model/pieces';
import { middleOf } from '../../kinds/areas';
import { childOf, childrenOf, descendants, trimmed, type XmlElement } from '../../xml/tree';
import { bestFirst } from '../best';
import { creditsByTrying } from '../credits';
import { parseNumber } from '../../numbers/numbers';
import { areaOf } from './areas';
import { placeFeedback } from './feedback';
import { joinBlocks, materialBelow } from './material';
import { cardinalityOf, conditionsOn, run12, settlePoints12, simplified12, Unheld, type Reading12 } from './reading';

const labelsOf = (response: XmlElement) => descendants(response, 'response_label');
const permutations = (list: string[]): string[][] =>
	list.length < 2
		? [list]
		: list.flatMap((one, at) =>
				permutations([...list.slice(0, at), ...list.slice(at + 1)]).map((rest) => [one, ...rest])
			);

/** What a condition names of a response, in the order of its equalities or by their index. */
const namesOf = (condition: XmlElement, ident: string): string[] =>
	childrenOf(condition, 'varequal')
		.filter((node) => (node.attributes.respident ?? ident) === ident)
		.map((node, at) => ({ text: trimmed(node), place: Number(node.attributes.index ?? at + 1) }))
		.sort((a, b) => a.place - b.place)
		.map(({ text }) => text);

/** The orders that conditions name, each in the order of its equalities or by their index. */
function namedOrders({ processing }: Reading12, ident: string, idents: string[]): string[][] {
	const conditions = processing ? descendants(processing, 'conditionvar', 'and') : [];
	return conditions
		.map((condition) => namesOf(condition, ident))
		.filter((order) => order.length === idents.length && idents.every((one) => order.includes(one)));
}

/** The order that a condition names, with what it does not name where it names something in vain; null where none does. */
function namedOrder({ processing }: Reading12, ident: string, idents: string[]): string[] | null {
	const conditions = processing ? descendants(processing, 'conditionvar', 'and') : [];
	const [named] = conditions.map((condition) => namesOf(condition, ident)).filter((names) => names.length > 1);
	if (!named) return null;
	const unnamed = idents.filter((one) => !named.includes(one));
	return [...new Set(named)].flatMap((one) => (idents.includes(one) ? one : unnamed.splice(0, 1))).concat(unnamed);
}

/** Reads things to be put in order (ASI information model, 3.5.1: rcardinality Ordered). */
export function readOrder12(reading: Reading12, response: XmlElement): OrderingQuestion {
	const { common, item, cleaning } = reading;
	const ident = response.attributes.ident ?? '';
	const labels = labelsOf(response);
	const presented = labels.map((label) => label.attributes.ident ?? '');
	const score = (order: string[]) => run12(reading, new Map([[ident, order]])).score;
	const candidates = [
		...namedOrders(reading, ident, presented),
		...(presented.length <= 6 ? permutations(presented) : [])
	];
	const [best = presented] = bestFirst(candidates, score);
	const top = score(best);
	settlePoints12(reading, top);
	const lost = common.lostKeys ?? [];
	// what is named in vain is told, and what is named beside it keeps its place
	const half = top <= 0 && lost.length ? namedOrder(reading, ident, presented) : null;
	if (top <= 0 && !half) {
		reading.reports.push({
			rule: 'no-right-order',
			severity: 'broken',
			message: 'The file does not say which order is right. The order of the file was taken; put it right.',
			place: reading.place
		});
	}
	const order = top > 0 ? best : (half ?? presented);
	const places = (one: string[]) => one.filter((value, at) => value === order[at]).length / order.length;
	const tried = presented.length <= 5 ? permutations(presented) : [order, [...order].reverse()];
	const fits = (mark: (one: string[]) => number) => tried.every((one) => Math.abs(score(one) - top * mark(one)) < 1e-6);
	const all = fits((one) => (places(one) === 1 ? 1 : 0));
	const position = !all && fits(places);
	if (top > 0 && !all && !position)
		simplified12(reading, 'Its marking cannot be held exactly. All in place earns the points; look at the rule.');
	placeFeedback(
		item,
		common,
		[
			{ responses: new Map([[ident, order]]), full: true, option: null },
			{ responses: new Map([[ident, [...order].reverse()]]), full: false, option: null }
		],
		cleaning,
		reading.cardinalities
	);
	const texts = new Map(
		labels.map((label) => [label.attributes.ident ?? '', joinBlocks(materialBelow(label, cleaning))])
	);
	const shuffle = childOf(response, 'render_choice')?.attributes.shuffle;
	return withCommon(common, {
		kind: 'ordering',
		items: order.map((identifier) => ({ identifier, text: texts.get(identifier) ?? '' })),
		presented,
		rule: position ? 'position' : 'all',
		shuffle: shuffle === undefined ? null : /^yes$/i.test(shuffle)
	});
}

/** Reads a place in a picture (ASI information model, 3.5.5: response_xy, or areas to choose from). */
export function readPoints12(reading: Reading12, response: XmlElement): HotspotQuestion {
	const { common, item, cleaning, full, attach } = reading;
	const ident = response.attributes.ident ?? '';
	const image = descendants(response, 'matimage')[0] ?? descendants(reading.presentation!, 'matimage')[0];
	const address = image?.attributes.uri ?? image?.attributes.entityref ?? '';
	const conditions = conditionsOn(reading, ident);
	const labels = labelsOf(response).filter((label) => trimmed(label) || label.attributes.rarea);
	const byLabel = conditions.some((node) => node.name === 'varequal');
	let shapes: Shape[];
	let values: string[];
	if (byLabel) {
		shapes = labels.map((label) => areaOf(label.attributes.rarea, trimmed(label), label.attributes.ident ?? ''));
		values = shapes.map((shape) => shape.identifier);
	} else {
		const inside = conditions.filter((node) => node.name === 'varinside');
		const seen = new Map(
			inside.map((node) => [
				`${node.attributes.areatype} ${trimmed(node)}`,
				areaOf(node.attributes.areatype, trimmed(node), '')
			])
		);
		shapes = [...seen.values()].map((shape, at) => ({
			...shape,
			identifier:
				labels.find(
					(label) => areaOf(label.attributes.rarea, trimmed(label), '').coordinates.join() === shape.coordinates.join()
				)?.attributes.ident ?? `A${at + 1}`
		}));
		if (!shapes.length)
			shapes = labels.map((label) => areaOf(label.attributes.rarea, trimmed(label), label.attributes.ident ?? ''));
		values = shapes.map((shape) => middleOf(shape).join(','));
	}
	if (!shapes.length) throw new Unheld('It asks to point at a picture, and no place in it is said to be right.');
	const several = cardinalityOf(response) === 'multiple';
	const mark = (ticked: number[]) => run12(reading, new Map([[ident, ticked.map((at) => values[at]!)]])).score;
	const expected = values.flatMap((_, at) => (mark([at]) > 0 ? [at] : []));
	const found = creditsByTrying(values.length, several, full, mark, expected);
	settlePoints12(reading, found.full);
	if (!found.exact)
		simplified12(
			reading,
			'Its marking cannot be held exactly. Each place was given what it adds to the score; look at the credit.'
		);
	placeFeedback(
		item,
		common,
		[
			{ responses: new Map([[ident, values.filter((_, at) => found.credits[at]! > 0)]]), full: true, option: null },
			{ responses: new Map([[ident, ['-1,-1']]]), full: false, option: null }
		],
		cleaning,
		reading.cardinalities
	);
	const most = parseNumber(childOf(response, 'render_hotspot')?.attributes.maxnumber ?? '');
	return withCommon(common, {
		kind: 'hotspot',
		picture: {
			name: (address && attach(address)) || address,
			width: parseNumber(image?.attributes.width ?? ''),
			height: parseNumber(image?.attributes.height ?? ''),
			alt: trimmed(image)
		},
		shapes: shapes.map((shape, at) => ({ ...shape, credit: found.credits[at]! })),
		mode: byLabel ? 'areas' : 'points',
		picks: several ? (most ?? 0) : 1,
		outside: 0,
		combination: found.combination,
		bounds: found.bounds
	});
}

/** Reads pairs within a group (ASI information model, 3.5.6: response_grp with match_group). */
export function readGroup12(reading: Reading12, response: XmlElement): MatchingQuestion {
	const { common, item, cleaning, full } = reading;
	const ident = response.attributes.ident ?? '';
	const labels = labelsOf(response);
	const targets = new Set(
		labels.flatMap((label) => (label.attributes.match_group ?? '').split(/[\s,]+/).filter(Boolean))
	);
	const side = (label: XmlElement) => ({
		identifier: label.attributes.ident ?? '',
		text: joinBlocks(materialBelow(label, cleaning)),
		uses: parseNumber(label.attributes.match_max ?? '') || null
	});
	const left = labels.filter((label) => label.attributes.match_group).map(side);
	const right = labels.filter((label) => !label.attributes.match_group).map(side);
	if (!left.length || !right.length || !right.some((one) => targets.has(one.identifier)))
		throw new Unheld('It asks to make pairs within a group, and does not say what can be paired with what.');
	const named = new Set(
		conditionsOn(reading, ident).map((node) =>
			trimmed(node)
				.split(/[\s,]+/)
				.sort()
				.join(' ')
		)
	);
	const all = left.flatMap((one) => right.map((other) => ({ left: one.identifier, right: other.identifier })));
	const tried = all.filter((pair) => named.has([pair.left, pair.right].sort().join(' ')));
	const mark = (ticked: number[]) =>
		run12(reading, new Map([[ident, ticked.map((at) => `${tried[at]!.left},${tried[at]!.right}`)]])).score;
	const expected = tried.map((_, at) => at);
	const found = creditsByTrying(tried.length, true, full, mark, expected);
	settlePoints12(reading, found.full);
	placeFeedback(
		item,
		common,
		[
			{
				responses: new Map([[ident, tried.map((pair) => `${pair.left},${pair.right}`)]]),
				full: true,
				option: null
			},
			{ responses: new Map([[ident, ['\u0001']]]), full: false, option: null }
		],
		cleaning,
		reading.cardinalities
	);
	const shuffle = childOf(response, 'render_choice')?.attributes.shuffle;
	return withCommon(common, {
		kind: 'matching',
		left,
		right,
		pairs: tried.flatMap((pair, at) => (found.credits[at] ? [{ ...pair, credit: found.credits[at] }] : [])),
		combination: found.combination,
		bounds: found.bounds,
		shuffle: shuffle === undefined ? null : /^yes$/i.test(shuffle)
	});
}
