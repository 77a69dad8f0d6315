import { escapeText } from '../../../xml/serialise';
import type { Markup } from '../../../model/question';
import { tidy } from '../../../numbers/numbers';

/** The address by which an item names an attachment of its question. */
export type Address = (name: string) => string;

/** The parts of an item that depend on its kind. */
export interface Parts {
	declaration: string;
	interaction: string;
	/** The body in front of the interaction, where it is not the stem as it is. */
	body?: string;
	/** The marking: a template's name, rules, or nothing. */
	template?: 'match_correct' | 'map_response' | 'map_response_point';
	rules?: string;
	/** Rules that say which option's feedback is shown. */
	extra?: string;
	outcomes?: string;
	/** Declarations and rules by which an item is worked out anew. */
	templates?: { declarations: string; processing: string };
}

/** What writers of parts need: the score that stands for all points, addresses, and rich text as XML. */
export interface Writing {
	scale: number;
	address: Address;
	/** Rich text as it may stand where blocks and lines may. */
	flow: (markup: Markup) => string;
	/** Rich text as blocks only. */
	blocks: (markup: Markup) => string;
	textLabels: boolean;
}

/** A number as it is written. */
export const number = (value: number) => String(tidy(value));

/** A rule that sets the score. */
export const setScore = (value: number) =>
	`<setOutcomeValue identifier="SCORE"><baseValue baseType="float">${number(value)}</baseValue></setOutcomeValue>`;

/** A rule that adds an expression to the score. */
export const addScore = (expression: string) =>
	`<setOutcomeValue identifier="SCORE"><sum><variable identifier="SCORE"/>${expression}</sum></setOutcomeValue>`;

/** A base value of type float. */
export const float = (value: number) => `<baseValue baseType="float">${number(value)}</baseValue>`;

/** The declared right answer, or nothing where there is none. */
export const correct = (values: string[]) =>
	values.length
		? `<correctResponse>${values.map((value) => `<value>${escapeText(value)}</value>`).join('')}</correctResponse>`
		: '';

/** A response declaration with what stands in it. */
export const declare = (cardinality: string, baseType: string, inner: string, identifier = 'RESPONSE') =>
	`<responseDeclaration identifier="${identifier}" cardinality="${cardinality}" baseType="${baseType}"${inner ? `>${inner}</responseDeclaration>` : '/>'}`;

/** An identifier as QTI allows it (2.1 information model, section 3: a name without a colon), made from any text. */
export function safeIdentifier(text: string, otherwise: string): string {
	return /^[A-Za-z_][A-Za-z0-9_.-]*$/.test(text) ? text : otherwise;
}

/** Identifiers that QTI allows for things of one list, each once, by the identifiers that they have. */
export function identifiersFor(list: { identifier: string }[], letter: string): string[] {
	const seen = new Set<string>();
	return list.map((named, at) => {
		let identifier = safeIdentifier(named.identifier, `${letter}${at + 1}`);
		while (seen.has(identifier)) identifier = `${identifier}_${at + 1}`;
		seen.add(identifier);
		return identifier;
	});
}

/** Attributes for the bounds of a mapping. */
export const boundsText = ({ lower, upper }: { lower: number | null; upper: number | null }, scale: number) =>
	`${lower === null ? '' : ` lowerBound="${number(lower * scale)}"`}${upper === null ? '' : ` upperBound="${number(upper * scale)}"`}`;

/** The attribute for shuffling, where something is said of it. */
export const shuffleText = (shuffle: boolean | null) => (shuffle === null ? '' : ` shuffle="${shuffle}"`);

/** A list with the highest credit first. */
export const byCredit = <T extends { credit: number }>(list: T[]) => [...list].sort((a, b) => b.credit - a.credit);
