import type { CleanContext } from '../../markup/clean';
import type { Question } from '../../kinds';
import type { QuestionCommon } from '../../model/question';
import type { Report } from '../../reports/report';
import { descendants, trimmed, type XmlElement } from '../../xml/tree';
import { parseNumber } from '../../numbers/numbers';
import { runProcessing, type Cardinalities, type Outcome, type Responses } from './process';

/** The responses of an item (QTI 1.2 ASI information model, 3.5). */
export const responseNames = [
	'response_lid',
	'response_str',
	'response_num',
	'response_xy',
	'response_grp',
	'response_extension'
];

/** The attribute by which a response that was taken apart says what it is a part of; no file has it. */
export const partOf = 'part of';

/** What reading an item has found: the question and what there is to say about it. */
export interface ReadItem {
	question: Question;
	reports: Report[];
}

/** An item while it is read. */
export interface Reading12 {
	common: QuestionCommon;
	cleaning: CleanContext;
	item: XmlElement;
	presentation: XmlElement | undefined;
	processing: XmlElement | undefined;
	responses: XmlElement[];
	cardinalities: Cardinalities;
	metadata: Map<string, string>;
	/** The score that stands for all the points, where the file says it. */
	full: number | null;
	reports: Report[];
	place: { file: string; line: number };
	/** Notes that the question uses a file; gives the name under which it is attached. */
	attach: (address: string) => string | null;
}

/** A question of the item cannot be held; the message says why, in a sentence for people. */
export class Unheld extends Error {}

/** How many answers a response takes. */
export function cardinalityOf(response: XmlElement): 'single' | 'multiple' | 'ordered' {
	const given = (response.attributes.rcardinality ?? 'Single').toLowerCase();
	return given === 'multiple' || given === 'ordered' ? given : 'single';
}

/** Runs the item's processing on answers. */
export function run12({ processing, cardinalities }: Reading12, responses: Responses): Outcome {
	return processing ? runProcessing(processing, responses, cardinalities) : { score: 0, feedback: [] };
}

/** The conditions that compare the answer to one response. */
export function conditionsOn({ processing }: Reading12, ident: string): XmlElement[] {
	if (!processing) return [];
	return descendants(
		processing,
		'varequal',
		'varsubstring',
		'varsubset',
		'varlt',
		'varlte',
		'vargt',
		'vargte',
		'varinside'
	).filter((node) => (node.attributes.respident ?? ident) === ident);
}

/** What the conditions on responses of options name that these do not have: keys that are lost. */
export function namedInVain(reading: Reading12): string[] {
	const { processing, responses } = reading;
	const refused = new Set(
		(processing ? descendants(processing, 'not') : []).flatMap((node) => descendants(node, 'varequal', 'varsubset'))
	);
	const lost = responses.flatMap((response) => {
		const known = new Set(descendants(response, 'response_label').map((label) => label.attributes.ident ?? ''));
		const isOfOptions = response.name === 'response_lid' || response.name === 'response_grp';
		if (!isOfOptions || !known.size || response.attributes[partOf] !== undefined) return [];
		return conditionsOn(reading, response.attributes.ident ?? '')
			.filter((node) => (node.name === 'varequal' || node.name === 'varsubset') && !refused.has(node))
			.flatMap((node) => (response.name === 'response_grp' ? trimmed(node).split(/[\s,]+/) : [trimmed(node)]))
			.filter((name) => name && !known.has(name));
	});
	return [...new Set(lost)];
}

/** Whether a response takes a number, and whether a whole one. */
export function numberType(response: XmlElement): 'integer' | 'decimal' | null {
	const [fib] = descendants(response, 'render_fib');
	const type = (response.attributes.numtype ?? fib?.attributes.fibtype ?? 'String').toLowerCase();
	if (type === 'integer') return 'integer';
	return response.name === 'response_num' || ['decimal', 'scientific'].includes(type) ? 'decimal' : null;
}

/** The numbers that conditions speak of. */
export const criticalNumbers = (conditions: XmlElement[]) =>
	conditions.map((node) => parseNumber(trimmed(node))).filter((value) => value !== null);

/** A report that the marking could not be held as it is. */
export function simplified12({ reports, place }: Reading12, message: string): void {
	reports.push({ rule: 'marking-simplified', severity: 'doubtful', message, place });
}

/**
 * Settles the points where the file does not say them: they are the best score that its rules give, but for scores of
 * one and of a hundred, which are shares of whatever the points are.
 */
export function settlePoints12({ common, full }: Reading12, best: number): void {
	if (common.points === null && full === null && best > 0 && best !== 1 && best !== 100) common.points = best;
}

/** Whether the item says that its answers are blanks of a text, as those do that are written here. */
export const saysBlanks = ({ presentation }: Reading12) =>
	presentation !== undefined && descendants(presentation, 'flow').some((node) => node.attributes.class === 'blanks');
