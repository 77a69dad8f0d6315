import { inShape } from '../../kinds/areas';
import { parseNumber } from '../../numbers/numbers';
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

/** A condition made ready: says whether it holds for an answer. */
type Test = (responses: Responses) => boolean;

const none: string[] = [];

/** A condition that is made of others (3.6.3: conditionvar, and, or, not); null where it is not. */
function joinedTest(node: XmlElement, cardinalities: Cardinalities): Test | null {
	const tests = (nodes: XmlElement[]) => nodes.map((child) => testOf(child, cardinalities));
	switch (node.name) {
		case 'conditionvar': {
			// one answer cannot equal several texts at once: where they stand side by side, any of them is meant
			const parts = inPlaces(childrenOf(node), cardinalities);
			const each = tests(parts);
			const ident = parts[0]?.attributes.respident;
			const areTexts =
				parts.length > 1 &&
				(cardinalities.get(ident ?? '') ?? 'single') === 'single' &&
				parts.every((part) => part.name === 'varequal' && part.attributes.respident === ident);
			return (responses) => (areTexts ? each.some((test) => test(responses)) : each.every((test) => test(responses)));
		}
		case 'and': {
			const each = tests(inPlaces(childrenOf(node), cardinalities));
			return (responses) => each.every((test) => test(responses));
		}
		case 'or': {
			const each = tests(childrenOf(node));
			return (responses) => each.some((test) => test(responses));
		}
		case 'not': {
			const each = tests(childrenOf(node));
			return (responses) => !each.some((test) => test(responses));
		}
		default:
			return null;
	}
}

function testOf(node: XmlElement, cardinalities: Cardinalities): Test {
	const ident = node.attributes.respident ?? '';
	const place = Number(node.attributes.index ?? 0);
	const inPlace = place > 0 && cardinalities.get(ident) === 'ordered';
	const values = (responses: Responses) => {
		const given = responses.get(ident) ?? none;
		return inPlace ? given.slice(place - 1, place) : given;
	};
	const wanted = trimmed(node);
	const number = parseNumber(wanted);
	const anyCase = /^no$/i.test(node.attributes.case ?? 'no');
	const folded = (text: string) => (anyCase ? text.toLowerCase() : text);
	const foldedWanted = folded(wanted);
	const compare =
		(holds: (a: number, b: number) => boolean): Test =>
		(responses) =>
			number !== null &&
			values(responses).some((value) => {
				const single = parseNumber(value);
				return single !== null && holds(single, number);
			});
	const joined = joinedTest(node, cardinalities);
	if (joined) return joined;
	switch (node.name) {
		case 'varequal':
			return (responses) =>
				values(responses).some(
					(value) => folded(value.trim()) === foldedWanted || (number !== null && parseNumber(value) === number)
				);
		case 'varlt':
			return compare((a, b) => a < b);
		case 'varlte':
			return compare((a, b) => a <= b);
		case 'vargt':
			return compare((a, b) => a > b);
		case 'vargte':
			return compare((a, b) => a >= b);
		case 'varsubstring':
			return (responses) => values(responses).some((value) => folded(value).includes(foldedWanted));
		case 'varsubset': {
			const parts = words(wanted);
			const sorted = [...parts].sort().join(' ');
			// the two of a pair stand in one value, whichever of them comes first
			return (responses) =>
				parts.every((one) => values(responses).includes(one)) ||
				values(responses).some((value) => words(value).sort().join(' ') === sorted);
		}
		case 'varinside': {
			const shape = areaOf(node.attributes.areatype, wanted, '');
			return (responses) =>
				values(responses).some((value) => inShape(shape, value.split(/[\s,]+/).map(Number) as [number, number]));
		}
		case 'unanswered':
			return (responses) => values(responses).length === 0;
		case 'other':
			return () => true;
		default:
			// it is an obstacle only where an answer comes as far as this
			return () => {
				throw new UnknownCondition(node.name);
			};
	}
}

/** Says whether a respcondition holds for an answer. What it gives throws an UnknownCondition. */
export function conditionTest(condition: XmlElement, cardinalities: Cardinalities): Test {
	const conditionvar = childOf(condition, 'conditionvar');
	return conditionvar ? testOf(conditionvar, cardinalities) : () => false;
}

/** The variable that the score goes into: SCORE, or else the first that is set. */
export function scoreVariable(processing: XmlElement): string {
	const names = [
		...childrenOf(processing, 'respcondition').flatMap((condition) => childrenOf(condition, 'setvar')),
		...childrenOf(childOf(processing, 'outcomes') ?? processing, 'decvar')
	].map((node) => node.attributes.varname ?? 'SCORE');
	return names.find((name) => name.toUpperCase() === 'SCORE') ?? names[0] ?? 'SCORE';
}

interface Step {
	holds: Test;
	acts: { action: string; value: number }[];
	feedback: string[];
	goesOn: boolean;
	/** It is for what no other condition is for. */
	other: boolean;
}

/** Response processing made ready, so that it can be tried on many answers. */
interface Prepared {
	cardinalities: Cardinalities;
	initial: number;
	least: number | null;
	most: number | null;
	steps: Step[];
}

function prepare(processing: XmlElement, cardinalities: Cardinalities): Prepared {
	const variable = scoreVariable(processing);
	const declared = childrenOf(childOf(processing, 'outcomes') ?? processing, 'decvar').find(
		(node) => (node.attributes.varname ?? 'SCORE') === variable
	);
	const bound = (name: string) => parseNumber(declared?.attributes[name] ?? '');
	const steps = childrenOf(processing, 'respcondition').map((condition): Step => {
		const sets = childrenOf(condition, 'setvar');
		const conditionvar = childOf(condition, 'conditionvar');
		const adds = sets.length > 0 && sets.every((set) => /^(add|subtract)$/i.test(set.attributes.action ?? ''));
		return {
			holds: conditionTest(condition, cardinalities),
			acts: sets
				.filter((set) => (set.attributes.varname ?? 'SCORE') === variable)
				.map((set) => ({
					action: (set.attributes.action ?? 'Set').toLowerCase(),
					value: parseNumber(trimmed(set)) ?? 0
				})),
			feedback: childrenOf(condition, 'displayfeedback').flatMap((shown) => shown.attributes.linkrefid || []),
			other: conditionvar !== undefined && childOf(conditionvar, 'other') !== undefined,
			goesOn: condition.attributes.continue === undefined ? adds : /^yes$/i.test(condition.attributes.continue)
		};
	});
	const [least, most] = [bound('minvalue'), bound('maxvalue')];
	return {
		cardinalities,
		initial: parseNumber(declared?.attributes.defaultval ?? '0') ?? 0,
		least,
		most: most !== null && most > 0 ? most : null,
		steps
	};
}

const prepared = new WeakMap<XmlElement, Prepared>();

/**
 * Runs the response processing of an item on an answer (QTI 1.2 ASI information model, 3.6).
 * A condition that holds ends the run unless it says `continue`; one that only adds, and says nothing, goes on,
 * since sums are written so. What is said of `other` answers (3.6.3) holds where no condition before it did.
 * Throws an UnknownCondition.
 */
export function runProcessing(processing: XmlElement, responses: Responses, cardinalities: Cardinalities): Outcome {
	let ready = prepared.get(processing);
	if (ready?.cardinalities !== cardinalities) {
		ready = prepare(processing, cardinalities);
		prepared.set(processing, ready);
	}
	let score = ready.initial;
	const feedback: string[] = [];
	let held = false;
	for (const step of ready.steps) {
		if ((step.other && held) || !step.holds(responses)) continue;
		held ||= !step.other;
		for (const { action, value } of step.acts) {
			if (action === 'add') score += value;
			else if (action === 'subtract') score -= value;
			else if (action === 'multiply') score *= value;
			else if (action === 'divide') score = value ? score / value : score;
			else score = value;
		}
		feedback.push(...step.feedback);
		if (!step.goesOn) break;
	}
	if (ready.least !== null) score = Math.max(ready.least, score);
	return { score: ready.most === null ? score : Math.min(ready.most, score), feedback };
}
