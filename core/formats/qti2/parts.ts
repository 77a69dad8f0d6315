import { childrenOf, descendants, type XmlElement } from '../../xml/tree';
import { textsIn } from './entry';
import type { ResponseDeclaration, Value } from './process';
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

/** An interaction with one answer, or with several out of one list. */
function wholePart(reading: Reading, interaction: XmlElement): Part {
	const declaration = declarationOf(reading, interaction);
	const about = rulesAbout(reading.rules, declaration.identifier);
	const entries = descendants(interaction, 'inlineChoice', 'simpleChoice');
	const keys = keysOf(declaration);
	const candidates = entries.length
		? entries.map(identifierOf)
		: [...new Set([...keys, ...textsIn(about)])].filter(Boolean);
	const written = interaction.name === 'extendedTextInteraction' || interaction.name === 'uploadInteraction';
	const several = declaration.cardinality === 'multiple';
	let right = several && declaration.correct.length ? declaration.correct : keys.length ? [keys[0]!] : null;
	if (!right && candidates.length && reading.rules) {
		const score = (text: string) => runAll(reading, new Map([[declaration.identifier, [text]]])).score;
		const [best] = [...candidates].sort((a, b) => score(b) - score(a));
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

/** Things that are matched or laid into gaps: each place is filled from the list of those that fit there. */
function placesOf(reading: Reading, interaction: XmlElement): Part[] {
	const declaration = declarationOf(reading, interaction);
	const gaps = interaction.name === 'gapMatchInteraction';
	const [first, second] = childrenOf(interaction, 'simpleMatchSet');
	const places = gaps
		? descendants(interaction, 'gap')
		: childrenOf(first ?? { ...interaction, children: [] }, 'simpleAssociableChoice');
	const entries = gaps
		? childrenOf(interaction).filter((node) => node.name === 'gapText' || node.name === 'gapImg')
		: childrenOf(second ?? { ...interaction, children: [] }, 'simpleAssociableChoice');
	const keys = keysOf(declaration).map((key) => key.split(' '));
	return places.map((place) => {
		const own = identifierOf(place);
		const encode = (value: string) => (gaps ? `${value} ${own}` : `${own} ${value}`);
		const candidates = entries.map(identifierOf);
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

const whole = new Set([
	'textEntryInteraction',
	'inlineChoiceInteraction',
	'choiceInteraction',
	'extendedTextInteraction',
	'sliderInteraction',
	'uploadInteraction'
]);
const inPlaces = new Set(['matchInteraction', 'gapMatchInteraction']);

/** Whether interactions can be held together as the blanks of one question. */
export function areBlanks(interactions: XmlElement[]): boolean {
	return interactions.every(({ name }) => whole.has(name) || inPlaces.has(name) || name === 'orderInteraction');
}

/** The places of an interaction that become blanks. */
export function partsOf(reading: Reading, interaction: XmlElement): Part[] {
	if (inPlaces.has(interaction.name)) return placesOf(reading, interaction);
	return interaction.name === 'orderInteraction' ? orderOf(reading, interaction) : [wholePart(reading, interaction)];
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
