import { inShape } from '../../scoring/shapes';
import { parseNumber } from '../numbers';
import { areaOf } from './areas';
import { childOf, childrenOf, trimmed, type XmlElement } from '../../xml/tree';

/** What a student has answered: the values of each response by its ident. */
export type Responses = Map<string, string[]>;

/** How many answers each response takes, and whether their order counts, by its ident. */
export type Cardinalities = Map<string, 'single' | 'multiple' | 'ordered'>;

/** What response processing comes to. */
export interface Outcome {
	score: number;
	feedback: string[];
}

/** A condition that this program cannot follow; the message names it. */
export class UnknownCondition extends Error {}

const equality = new Set(['varequal']);
const words = (text: string) => text.split(/[\s,]+/).filter(Boolean);

/** Equalities on an ordered response that stand in a row: the first is for the first place, and so on (3.6.3: index). */
function inPlaces(parts: XmlElement[], cardinalities: Cardinalities): XmlElement[] {
	const next = new Map<string, number>();
	return parts.map((part) => {
		const ident = part.attributes.respident ?? '';
		if (!equality.has(part.name) || cardinalities.get(ident) !== 'ordered' || part.attributes.index !== undefined)
			return part;
		const place = (next.get(ident) ?? 0) + 1;
		next.set(ident, place);
		return { ...part, attributes: { ...part.attributes, index: String(place) } };
	});
}

function test(node: XmlElement, responses: Responses, cardinalities: Cardinalities): boolean {
	const ident = node.attributes.respident ?? '';
	const given = responses.get(ident) ?? [];
	const place = Number(node.attributes.index ?? 0);
	const values = place && cardinalities.get(ident) === 'ordered' ? given.slice(place - 1, place) : given;
	const wanted = trimmed(node);
	const compare = (holds: (a: number, b: number) => boolean) =>
		values.some((value) => {
			const [a, b] = [parseNumber(value), parseNumber(wanted)];
			return a !== null && b !== null && holds(a, b);
		});
	const same = (a: string, b: string) =>
		/^no$/i.test(node.attributes.case ?? 'no') ? a.toLowerCase() === b.toLowerCase() : a === b;
	switch (node.name) {
		case 'varequal': {
			const number = parseNumber(wanted);
			return values.some((value) => same(value.trim(), wanted) || (number !== null && parseNumber(value) === number));
		}
		case 'varlt':
			return compare((a, b) => a < b);
		case 'varlte':
			return compare((a, b) => a <= b);
		case 'vargt':
			return compare((a, b) => a > b);
		case 'vargte':
			return compare((a, b) => a >= b);
		case 'varsubstring':
			return values.some((value) =>
				/^no$/i.test(node.attributes.case ?? 'no')
					? value.toLowerCase().includes(wanted.toLowerCase())
					: value.includes(wanted)
			);
		case 'varsubset':
			// the two of a pair stand in one value, whichever of them comes first
			return (
				words(wanted).every((one) => values.includes(one)) ||
				values.some((value) => words(value).sort().join(' ') === words(wanted).sort().join(' '))
			);
		case 'varinside': {
			const shape = areaOf(node.attributes.areatype, wanted, '');
			return values.some((value) => inShape(shape, value.split(/[\s,]+/).map(Number) as [number, number]));
		}
		case 'unanswered':
			return values.length === 0;
		case 'other':
			return true;
		case 'conditionvar': {
			// one answer cannot equal several texts at once: where they stand side by side, any of them is meant
			const parts = inPlaces(childrenOf(node), cardinalities);
			if (
				(cardinalities.get(parts[0]?.attributes.respident ?? '') ?? 'single') === 'single' &&
				parts.length > 1 &&
				parts.every((part) => part.name === 'varequal' && part.attributes.respident === parts[0]!.attributes.respident)
			)
				return parts.some((part) => test(part, responses, cardinalities));
			return parts.every((part) => test(part, responses, cardinalities));
		}
		case 'and':
			return inPlaces(childrenOf(node), cardinalities).every((child) => test(child, responses, cardinalities));
		case 'or':
			return childrenOf(node).some((child) => test(child, responses, cardinalities));
		case 'not':
			return !childrenOf(node).some((child) => test(child, responses, cardinalities));
		default:
			throw new UnknownCondition(node.name);
	}
}

/** Whether a respcondition holds for an answer. Throws an UnknownCondition. */
export function holds(condition: XmlElement, responses: Responses, cardinalities: Cardinalities): boolean {
	const conditionvar = childOf(condition, 'conditionvar');
	return conditionvar !== undefined && test(conditionvar, responses, cardinalities);
}

/** The variable that the score goes into: SCORE, or else the first that is set. */
export function scoreVariable(processing: XmlElement): string {
	const names = [
		...childrenOf(processing, 'respcondition').flatMap((condition) => childrenOf(condition, 'setvar')),
		...childrenOf(childOf(processing, 'outcomes') ?? processing, 'decvar')
	].map((node) => node.attributes.varname ?? 'SCORE');
	return names.find((name) => name.toUpperCase() === 'SCORE') ?? names[0] ?? 'SCORE';
}

/**
 * Runs the response processing of an item on an answer (QTI 1.2 ASI information model, 3.6).
 * A condition that holds ends the run unless it says `continue`; one that only adds, and says nothing, goes on,
 * since sums are written so.
 * Throws an UnknownCondition.
 */
export function runProcessing(processing: XmlElement, responses: Responses, cardinalities: Cardinalities): Outcome {
	const variable = scoreVariable(processing);
	const declared = childrenOf(childOf(processing, 'outcomes') ?? processing, 'decvar').find(
		(node) => (node.attributes.varname ?? 'SCORE') === variable
	);
	let score = parseNumber(declared?.attributes.defaultval ?? '0') ?? 0;
	const feedback: string[] = [];
	for (const condition of childrenOf(processing, 'respcondition')) {
		if (!holds(condition, responses, cardinalities)) continue;
		const sets = childrenOf(condition, 'setvar');
		for (const set of sets) {
			if ((set.attributes.varname ?? 'SCORE') !== variable) continue;
			const value = parseNumber(trimmed(set)) ?? 0;
			const action = (set.attributes.action ?? 'Set').toLowerCase();
			if (action === 'add') score += value;
			else if (action === 'subtract') score -= value;
			else if (action === 'multiply') score *= value;
			else if (action === 'divide') score = value ? score / value : score;
			else score = value;
		}
		for (const shown of childrenOf(condition, 'displayfeedback'))
			if (shown.attributes.linkrefid) feedback.push(shown.attributes.linkrefid);
		const adds = sets.length > 0 && sets.every((set) => /^(add|subtract)$/i.test(set.attributes.action ?? ''));
		const goesOn = condition.attributes.continue === undefined ? adds : /^yes$/i.test(condition.attributes.continue);
		if (!goesOn) break;
	}
	const bound = (name: string) => parseNumber(declared?.attributes[name] ?? '');
	const [least, most] = [bound('minvalue'), bound('maxvalue')];
	if (least !== null && least < 0) score = Math.max(least, score);
	return { score: most !== null && most > 0 ? Math.min(most, score) : score, feedback };
}
