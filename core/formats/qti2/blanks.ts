import { cleanNodes, markupOfNodes } from '../../markup/clean';
import { blankMarker } from '../../markup/markers';
import { withCommon } from '../../model/question';
import type { Blank, FillBlanksQuestion } from '../../kinds';
import type { Side } from '../../model/pieces';
import { childrenOf, descendants, element, trimmed, type XmlElement, type XmlNode } from '../../xml/tree';
import { acceptedNumbers } from '../../numbers/numbers';
import { inShape } from '../../kinds/areas';
import { weigh } from '../weigh';
import { acceptedTexts, numbersIn, wrongText } from './entry';
import { feedbackByAnswers, markSets } from './marking';
import { reshapedReport } from '../reshaped';
import { placeName, shapeOf } from '../shapes';
import { pictureOf } from './points';
import { partsOf, rulesAbout, together, type Part } from './parts';
import type { ResponseDeclaration } from './process';
import { pointOf, UnknownRule, type Value } from './values';
import { lostNames, lostOf, noteLost, promptNodes, runAll, simplified, stemOf, usesOf, type Reading } from './reading';

const inline = new Set(['textEntryInteraction', 'inlineChoiceInteraction']);
/** The text of an interaction with gaps, without its prompt and its words. */
const flowOf = (node: XmlElement): XmlNode[] =>
	node.children.filter((one) => typeof one === 'string' || !['prompt', 'gapText', 'gapImg'].includes(one.name));
const round = (value: number) => Math.round(value * 1e6) / 1e6;

const reshaped = new Set([
	'matchInteraction',
	'associateInteraction',
	'gapMatchInteraction',
	'orderInteraction',
	'hottextInteraction'
]);
const onPictures = new Set(['hotspotInteraction', 'selectPointInteraction', 'graphicGapMatchInteraction']);

/** The picture of an interaction, to be seen in the stem. */
function shownPicture(reading: Reading, interaction: XmlElement): XmlElement {
	const { name, width, height, alt } = pictureOf(reading, interaction);
	const size = { ...(width ? { width: `${width}` } : {}), ...(height ? { height: `${height}` } : {}) };
	return element('p', {}, [element('img', { src: `media:${name}`, alt, ...size })]);
}

/** What stands in the stem for an interaction: its prompt, and its blanks where they are filled. */
function placed(reading: Reading, interaction: XmlElement, parts: Part[]): XmlNode[] {
	const { cleaning } = reading;
	const own = parts.filter((part) => part.interaction === interaction);
	const [only] = own;
	if (inline.has(interaction.name) && only) return [blankMarker(only.identifier)];
	const prompt = promptNodes(interaction, cleaning);
	if (interaction.name === 'orderInteraction')
		return [...prompt, ...own.map((part, at) => element('p', {}, [`${at + 1}. `, blankMarker(part.identifier)]))];
	if (interaction.name === 'gapMatchInteraction')
		return [
			...prompt,
			...cleanNodes(flowOf(interaction), {
				...cleaning,
				replace: (node) =>
					node.name === 'gap'
						? own.filter((part) => part.place === node).map((part) => blankMarker(part.identifier))
						: undefined
			})
		];
	if (interaction.name === 'matchInteraction' || interaction.name === 'associateInteraction')
		return [
			...prompt,
			...own.map((part) =>
				element('p', {}, [...cleanNodes(part.place!.children, cleaning), ' ', blankMarker(part.identifier)])
			)
		];
	if (interaction.name === 'graphicGapMatchInteraction')
		return [
			...prompt,
			shownPicture(reading, interaction),
			...own.map((part, at) => {
				const name = placeName(shapeOf(part.place!, ''), at, part.place!.attributes.hotspotLabel);
				return element('p', {}, [`${name}: `, blankMarker(part.identifier)]);
			})
		];
	if (onPictures.has(interaction.name)) prompt.push(shownPicture(reading, interaction));
	if (interaction.name === 'hottextInteraction') prompt.push(...cleanNodes(flowOf(interaction), cleaning));
	return [...prompt, ...own.map((part) => blankMarker(part.identifier, true))];
}

/** Reads several interactions of one item as the blanks of one question; each one's share is found by trying. */
export function readBlanks(reading: Reading, interactions: XmlElement[]): FillBlanksQuestion {
	const { common, rules, reports, place } = reading;
	const parts = interactions.flatMap((one) => partsOf(reading, one));
	if (new Set(parts.map((part) => part.identifier)).size < parts.length)
		throw new UnknownRule('It asks for several answers under one name, so they cannot be told apart.');
	common.stem = stemOf(reading, (node) => placed(reading, node, parts));
	if (parts.some(({ interaction }) => onPictures.has(interaction.name))) reports.push(reshapedReport(true, place));
	if (parts.some(({ interaction }) => reshaped.has(interaction.name))) reports.push(reshapedReport(false, place));
	const declarations = [...new Map(parts.map(({ declaration }) => [declaration.identifier, declaration])).values()];
	const declaredWorth = ({ mapping, areas, correct, cardinality }: ResponseDeclaration, value: Value) => {
		if (!value) return 0;
		if (areas)
			return areas.shapes.reduce(
				(sum, shape) => sum + (value.some((point) => inShape(shape, pointOf(String(point)))) ? shape.value : 0),
				0
			);
		if (mapping)
			return value.reduce<number>(
				(sum, one) => sum + (mapping.entries.find((entry) => entry.key === one)?.value ?? mapping.fallback),
				0
			);
		const fits = cardinality === 'ordered' ? correct.every((one, at) => one === value[at]) : true;
		return fits && correct.length === value.length && value.every((one) => correct.includes(String(one))) ? 1 : 0;
	};
	const rightAll = new Map(parts.map((part) => [part.identifier, part.right]));
	const outcomesOf = (values: Map<string, string[] | null>) => runAll(reading, together(parts, values));
	const weighed = weigh(
		parts.map(({ identifier, declaration, open, right }) => ({
			identifier,
			group: declaration.identifier,
			open,
			right
		})),
		rules
			? (values) => outcomesOf(values).score
			: (values) => {
					const responses = together(parts, values);
					return declarations.reduce((sum, one) => sum + declaredWorth(one, responses.get(one.identifier) ?? null), 0);
				},
		rules ? common.points : null
	);
	const { top, all, shares } = weighed;
	const opens = parts.filter((part) => part.open).length;
	if (common.points === null && rules && top > 0 && !opens) common.points = round(top);
	if (!weighed.exact)
		simplified(
			reading,
			'Its marking weighs the answers against each other, which cannot be held. Each was given what it adds when all others are right; look at the credit.'
		);
	noteLostOfLists(reading, parts);
	const blanks = parts.map((part, at) =>
		blankOf(reading, part, shares[at]!, (text) => weighed.credit(part.identifier, [text]))
	);
	const wrong = new Map<string, string[] | null>(parts.map((part) => [part.identifier, [wrongText]]));
	feedbackByAnswers(reading, [
		{ outcomes: outcomesOf(rightAll).outcomes, credit: 1 },
		...(parts.length - opens > 1 && !all
			? [
					{
						outcomes: outcomesOf(new Map([...wrong, [parts[0]!.identifier, parts[0]!.right]])).outcomes,
						credit: shares[0]!
					}
				]
			: []),
		{ outcomes: outcomesOf(wrong).outcomes, credit: 0 }
	]);
	return withCommon(common, { kind: 'fill-blanks', blanks, bank: [], combination: all ? 'all' : 'sum', shuffle: null });
}

/** Keeps what the keys of lists to choose from name in vain. */
function noteLostOfLists(reading: Reading, parts: Part[]): void {
	for (const declaration of new Set(parts.map((part) => part.declaration))) {
		const own = parts.filter((part) => part.declaration === declaration);
		if (declaration.baseType === 'point' || own.some((part) => part.entries === null)) continue;
		noteLost(
			reading,
			lostOf(
				declaration,
				own.flatMap((part) => part.candidates.map(part.encode))
			)
		);
	}
}

const share = (value: number) => Math.max(-1, Math.min(1, round(value)));

function blankOf({ rules, cleaning }: Reading, part: Part, shareOf: number, credit: (text: string) => number): Blank {
	const { declaration, candidates, several } = part;
	const base = { identifier: part.identifier, share: shareOf };
	if (part.open) return { ...base, form: 'open' };
	if (part.entries) {
		const key = new Set(part.right);
		// of several to be ticked, each right one is worth its part of what all of them earn
		const ofSeveral = (identifier: string) =>
			declaration.mapping || declaration.areas ? credit(identifier) : key.has(identifier) ? round(1 / key.size) : 0;
		return {
			...base,
			form: 'list',
			several,
			shuffle: part.shuffle,
			entries: part.entries.map((choice) => {
				const identifier = choice.attributes.identifier ?? '';
				return {
					identifier,
					text: markupOfNodes(
						choice.children.filter((node) => typeof node === 'string' || !node.name.startsWith('feedback')),
						cleaning
					),
					credit: several ? ofSeveral(identifier) : credit(identifier)
				};
			})
		};
	}
	if (['integer', 'float'].includes(declaration.baseType)) {
		const { critical, centres } = numbersIn(rulesAbout(rules, declaration.identifier), candidates);
		return {
			...base,
			form: 'number',
			whole: declaration.baseType === 'integer',
			accepted: acceptedNumbers(critical, (value) => credit(String(value)), centres)
		};
	}
	const mapped = declaration.mapping?.entries;
	const accepted = acceptedTexts(candidates, credit).map((text) => {
		const entry = mapped?.find(({ key }) => key === text.text);
		return entry ? { ...text, caseSensitive: entry.caseSensitive } : text;
	});
	return { ...base, form: 'text', accepted };
}

/** Reads words that are laid into the gaps of a text (2.1, 7.3.5). */
export function readGaps(
	reading: Reading,
	interaction: XmlElement,
	declaration: ResponseDeclaration
): FillBlanksQuestion {
	const { common, cleaning } = reading;
	const words = childrenOf(interaction).filter((node) => node.name === 'gapText' || node.name === 'gapImg');
	const gaps = descendants(interaction, 'gap').map((gap) => gap.attributes.identifier ?? '');
	common.stem = stemOf(reading, (node) => [
		...promptNodes(node, cleaning),
		...cleanNodes(flowOf(node), {
			...cleaning,
			replace: (one) => (one.name === 'gap' ? [blankMarker(one.attributes.identifier ?? '')] : undefined)
		})
	]);
	const bank: Side[] = words.map((word) => ({
		identifier: word.attributes.identifier ?? '',
		text: markupOfNodes(word.children, cleaning),
		uses: usesOf(word)
	}));
	const pairs = bank.flatMap((word) => gaps.map((gap) => ({ word: word.identifier, gap })));
	const named = new Set([
		...declaration.correct,
		...(declaration.mapping?.entries.map((entry) => entry.key) ?? []),
		...(reading.rules ? descendants(reading.rules, 'baseValue').map(trimmed) : [])
	]);
	const fallback = declaration.mapping?.fallback ?? 0;
	const tried = pairs.filter(({ word, gap }) => fallback !== 0 || pairs.length <= 10 || named.has(`${word} ${gap}`));
	const found = markSets(
		reading,
		declaration,
		tried.map(({ word, gap }) => `${word} ${gap}`),
		true
	);
	if (!found.credits.length) common.points ??= null;
	const known = pairs.map(({ word, gap }) => `${word} ${gap}`);
	noteLost(reading, lostNames(lostOf(declaration, known), [...bank.map((word) => word.identifier), ...gaps]));
	const best = gaps.map((gap) =>
		Math.max(0, ...tried.flatMap((pair, at) => (pair.gap === gap ? [found.credits[at]!] : [])))
	);
	const shares = best.map((one) => (best.some((other) => other > 0) ? one : 1 / gaps.length));
	return withCommon(common, {
		kind: 'fill-blanks',
		bank,
		combination: found.combination,
		shuffle: interaction.attributes.shuffle === undefined ? null : interaction.attributes.shuffle === 'true',
		blanks: gaps.map((gap, at) => ({
			identifier: gap,
			share: round(found.combination === 'all' ? 1 / gaps.length : shares[at]!),
			form: 'word',
			words: tried.flatMap((pair, place) =>
				pair.gap === gap && found.credits[place] !== 0
					? [
							{
								word: pair.word,
								credit:
									found.combination === 'all'
										? 1
										: share(found.credits[place]! / (shares[at] || Math.abs(found.credits[place]!)))
							}
						]
					: []
			)
		}))
	});
}
