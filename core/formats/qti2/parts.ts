import { lookup } from '../../model/lookup';
import type { Shape } from '../../model/pieces';
import { inShape, middleOf } from '../../kinds/areas';
import { childrenOf, descendants, element, type XmlElement } from '../../xml/tree';
import { bestFirst } from '../best';
import { placeName, shapeOf } from '../shapes';
import { textsIn } from './entry';
import { aroundPoints, namedShapes } from './points';
import type { ResponseDeclaration } from './process';
import { pointOf, UnknownRule, type Value } from './values';
import { declarationOf, runAll, usesOf, type Reading } from './reading';

/** A place of one of several interactions that is filled for itself, with the answers that can be tried there. */
export interface Part {
	/** How the blank is called that it becomes. */
	identifier: string;
	interaction: XmlElement;
	declaration: ResponseDeclaration;
	candidates: string[];
	/** What is chosen from, where it is filled by choosing. */
	entries: XmlElement[] | null;
	several: boolean;
	shuffle: boolean | null;
	/** Nothing in the file says what is right: a person marks it. */
	open: boolean;
	right: string[] | null;
	/** A value of this place as the response of the interaction has it. */
	encode: (value: string) => string;
	/** The element in whose place the blank stands, where it is not the interaction itself. */
	place?: XmlElement;
}

/** A value for a place of an ordered response that nothing was put into. */
const nothing = '\u0003';

const shuffleOf = ({ attributes }: XmlElement) =>
	attributes.shuffle === undefined ? null : attributes.shuffle === 'true';
const identifierOf = (node: XmlElement) => node.attributes.identifier ?? '';

/** The rules that speak of a response, so that the texts in them can be tried. */
export function rulesAbout(rules: XmlElement | undefined, identifier: string): XmlElement | undefined {
	if (!rules) return undefined;
	const speaks = (node: XmlElement) =>
		childrenOf(node).some((child) => child.name === 'variable' && child.attributes.identifier === identifier);
	const all: XmlElement[] = [];
	const visit = (node: XmlElement) => {
		if (speaks(node)) all.push(node);
		else for (const child of childrenOf(node)) visit(child);
	};
	visit(rules);
	return { ...rules, children: all };
}

/** The keys of a declaration, the best first. */
const keysOf = ({ correct, mapping }: ResponseDeclaration): string[] => [
	...correct,
	...(mapping ? [...mapping.entries].sort((a, b) => b.value - a.value).flatMap((one) => one.key) : [])
];

/** What is chosen from in an interaction: its options, its words, or its places in a picture by their names. */
function entriesOf(interaction: XmlElement): XmlElement[] {
	if (interaction.name !== 'hotspotInteraction')
		return descendants(interaction, 'inlineChoice', 'simpleChoice', 'hottext');
	return childrenOf(interaction, 'hotspotChoice').map((node, at) =>
		placeEntry(shapeOf(node, identifierOf(node)), at, node.attributes.hotspotLabel)
	);
}

const placeEntry = (shape: Shape, at: number, label?: string) =>
	element('simpleChoice', { identifier: shape.identifier }, [placeName(shape, at, label)]);

/** An interaction with one answer, or with several out of one list. */
function wholePart(reading: Reading, interaction: XmlElement): Part {
	const declaration = declarationOf(reading, interaction);
	const about = rulesAbout(reading.rules, declaration.identifier);
	const entries = entriesOf(interaction);
	const keys = keysOf(declaration);
	const candidates = entries.length
		? entries.map(identifierOf)
		: [...new Set([...keys, ...textsIn(about)])].filter(Boolean);
	const written = interaction.name === 'extendedTextInteraction' || interaction.name === 'uploadInteraction';
	const several = declaration.cardinality === 'multiple';
	let right = several && declaration.correct.length ? declaration.correct : keys.length ? [keys[0]!] : null;
	if (!right && candidates.length && reading.rules) {
		const score = (text: string) => runAll(reading, new Map([[declaration.identifier, [text]]])).score;
		const [best] = bestFirst(candidates, score);
		right = best !== undefined && score(best) > 0 ? [best] : null;
	}
	return {
		identifier: declaration.identifier,
		interaction,
		declaration,
		candidates,
		entries: entries.length ? entries : null,
		several: several && interaction.attributes.maxChoices !== '1',
		shuffle: shuffleOf(interaction),
		open: written && !candidates.length,
		right,
		encode: (value) => value
	};
}

const outside = 'ELSEWHERE';

/** A point to be given: chosen from the places that the file knows of, and one that is none of them. */
function pointPart(reading: Reading, interaction: XmlElement): Part {
	const declaration = declarationOf(reading, interaction);
	const { areas, correct, identifier } = declaration;
	const mapped = namedShapes(declaration, rulesAbout(reading.rules, identifier));
	const shapes = mapped.length ? mapped : aroundPoints(declaration);
	const points = new Map(shapes.map((shape) => [shape.identifier, middleOf(shape).join(' ')]));
	const candidates = [...points.keys(), outside];
	const encode = (value: string) => points.get(value) ?? '-1 -1';
	const several = declaration.cardinality === 'multiple' && interaction.attributes.maxChoices !== '1';
	const score = (value: string) => runAll(reading, new Map([[identifier, [encode(value)]]])).score;
	const worth = (value: string) =>
		areas?.shapes.find((shape) => shape.identifier === value)?.value ?? (reading.rules ? score(value) : 0);
	const named = shapes
		.filter((shape) => worth(shape.identifier) > 0 || correct.some((point) => inShape(shape, pointOf(point))))
		.map((shape) => shape.identifier);
	const right = bestFirst(named, worth);
	return {
		identifier,
		interaction,
		declaration,
		candidates,
		entries: shapes.length
			? [
					...shapes.map((shape, at) => placeEntry(shape, at)),
					element('simpleChoice', { identifier: outside }, ['Another place'])
				]
			: null,
		several,
		shuffle: null,
		open: !shapes.length,
		right: right.length ? (several ? right : right.slice(0, 1)) : null,
		encode
	};
}

/** What is put together with what: the places that are filled, what they are filled with, and how a pair is written. */
function sidesOf(
	interaction: XmlElement,
	keys: string[][]
): { places: XmlElement[]; entries: XmlElement[]; pair: (place: string, entry: string) => string } {
	const labels = () => childrenOf(interaction).filter((node) => node.name === 'gapText' || node.name === 'gapImg');
	const backward = (place: string, entry: string) => `${entry} ${place}`;
	if (interaction.name === 'gapMatchInteraction')
		return { places: descendants(interaction, 'gap'), entries: labels(), pair: backward };
	if (interaction.name === 'graphicGapMatchInteraction')
		return { places: childrenOf(interaction, 'associableHotspot'), entries: labels(), pair: backward };
	if (interaction.name === 'associateInteraction') {
		// the first of each right pair is the place that the second is put to
		const all = childrenOf(interaction, 'simpleAssociableChoice');
		const order = new Map(all.map((node, at) => [identifierOf(node), at]));
		const firsts = new Set(keys.map((key) => [...key].sort((a, b) => (order.get(a) ?? 0) - (order.get(b) ?? 0))[0]));
		return {
			places: all.filter((node) => firsts.has(identifierOf(node))),
			entries: all.filter((node) => !firsts.has(identifierOf(node))),
			pair: (place, entry) => [place, entry].sort().join(' ')
		};
	}
	const [first, second] = childrenOf(interaction, 'simpleMatchSet').map((set) =>
		childrenOf(set, 'simpleAssociableChoice')
	);
	return { places: first ?? [], entries: second ?? [], pair: (place, entry) => `${place} ${entry}` };
}

/** Things that are put together or laid into gaps: each place is filled from the list of those that fit there. */
function placesOf(reading: Reading, interaction: XmlElement): Part[] {
	const declaration = declarationOf(reading, interaction);
	const keys = keysOf(declaration).map((key) => key.split(' '));
	const { places, entries, pair } = sidesOf(interaction, keys);
	const candidates = entries.map(identifierOf);
	return places.map((place) => {
		const own = identifierOf(place);
		const encode = (value: string) => pair(own, value);
		const right = candidates.filter((one) => keys.some((key) => key.join(' ') === encode(one)));
		const several = usesOf(place) !== 1 && right.length > 1;
		return {
			identifier: `${declaration.identifier}.${own}`,
			interaction,
			declaration,
			candidates,
			entries,
			several,
			shuffle: shuffleOf(interaction),
			open: false,
			right: right.length ? (several ? right : right.slice(0, 1)) : null,
			encode,
			place
		};
	});
}

/** Things that are put in order: each place of the right order is filled from the list of all of them. */
function orderOf(reading: Reading, interaction: XmlElement): Part[] {
	const declaration = declarationOf(reading, interaction);
	const entries = childrenOf(interaction, 'simpleChoice');
	const places = declaration.correct.length ? declaration.correct : entries.map(identifierOf);
	return places.map((right, at) => ({
		identifier: `${declaration.identifier}.${at + 1}`,
		interaction,
		declaration,
		candidates: entries.map(identifierOf),
		entries,
		several: false,
		shuffle: shuffleOf(interaction),
		open: false,
		right: declaration.correct.length ? [right] : null,
		encode: (value) => value
	}));
}

type PartsReader = (reading: Reading, interaction: XmlElement) => Part[];
const asOne: PartsReader = (reading, interaction) => [wholePart(reading, interaction)];

/** How each interaction that may stand beside others becomes blanks. */
const readers = lookup<PartsReader>({
	textEntryInteraction: asOne,
	inlineChoiceInteraction: asOne,
	choiceInteraction: asOne,
	extendedTextInteraction: asOne,
	sliderInteraction: asOne,
	uploadInteraction: asOne,
	hottextInteraction: asOne,
	hotspotInteraction: asOne,
	selectPointInteraction: (reading, interaction) => [pointPart(reading, interaction)],
	matchInteraction: placesOf,
	associateInteraction: placesOf,
	gapMatchInteraction: placesOf,
	graphicGapMatchInteraction: placesOf,
	orderInteraction: orderOf
});

/** The places of an interaction that become blanks. Throws an UnknownRule for one that cannot stand beside others. */
export function partsOf(reading: Reading, interaction: XmlElement): Part[] {
	const read = readers[interaction.name];
	if (!read)
		throw new UnknownRule(
			`It asks for an answer through “${interaction.name}” among others, which cannot be held together as one question.`
		);
	return read(reading, interaction);
}

/** The responses of interactions, put together from what stands in their places. */
export function together(parts: Part[], values: Map<string, string[] | null>): Map<string, Value> {
	const found = new Map<string, Value>();
	for (const { identifier, declaration, encode } of parts) {
		const given = values.get(identifier) ?? null;
		const own = given?.map(encode) ?? (declaration.cardinality === 'ordered' ? [nothing] : []);
		const before = found.get(declaration.identifier) ?? [];
		found.set(declaration.identifier, [...before, ...own]);
	}
	for (const [identifier, value] of found) if (!value?.some((one) => one !== nothing)) found.set(identifier, null);
	return found;
}
