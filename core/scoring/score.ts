import { datasetOf, faultOf } from '../calculated/datasets';
import { parseNumber } from '../formats/numbers';
import { fold } from '../markup/text';
import { isChoice, type AcceptedNumber, type Markup, type Question } from '../model/question';
import { accepts, acceptsText, bestNumber, wrongNumber } from './answers';
import {
	blanksResponse,
	markBlanks,
	markCalculated,
	markOrder,
	markPairs,
	markPoints,
	pairsResponse,
	pointsResponse,
	type Marked
} from './kinds';

/** What a student answers: one of these, as the kind of question asks for. */
export interface Response {
	/** The identifiers of the options, or of the areas, that are ticked. */
	options?: string[];
	/** What is written. */
	text?: string;
	/** What stands in each blank, by its identifier: a text, or the identifiers of entries or of a word. */
	blanks?: Record<string, string[]>;
	/** What was put together, left and right. */
	pairs?: [string, string][];
	/** The identifiers in the order of the student. */
	order?: string[];
	/** Points in pixels of the picture. */
	points?: [number, number][];
	/** The seed of a calculated question's numbers. */
	seed?: string;
}

/** A mark. `credit` is the share of the points and may be negative; it is null where a person has to mark. */
export interface Mark {
	credit: number | null;
	points: number | null;
	/** Why, in a sentence for people. */
	reason: string;
	/** What the student is told. */
	feedback: Markup[];
}

const clamp = (value: number, lower: number | null, upper: number | null) =>
	Math.min(upper ?? Infinity, Math.max(lower ?? -Infinity, value));
const round = (value: number) => Math.round(value * 1e6) / 1e6;

/** An accepted number for people: "4.85 ± 0.02", "3.1 to 3.3", "above 5". */
export function acceptedNumberText(accepted: AcceptedNumber): string {
	if ('value' in accepted)
		return accepted.tolerance ? `${accepted.value} ± ${accepted.tolerance}` : `${accepted.value}`;
	const { min, max, includesMin, includesMax } = accepted;
	if (min === null && max === null) return 'any number';
	if (min === null) return `${includesMax ? 'up to' : 'below'} ${max}`;
	if (max === null) return `${includesMin ? 'from' : 'above'} ${min}`;
	return `${includesMin ? '' : 'above '}${min} to ${includesMax ? '' : 'below '}${max}`;
}

function choiceCredit(question: Extract<Question, { options: unknown }>, ticked: Set<string>): number {
	if (question.combination === 'all') {
		const right = question.options.filter((option) => option.credit > 0);
		return right.length > 0 && right.length === ticked.size && right.every((option) => ticked.has(option.identifier))
			? Math.min(1, round(right.reduce((sum, option) => sum + option.credit, 0)))
			: 0;
	}
	const sum = question.options
		.filter((option) => ticked.has(option.identifier))
		.reduce((total, option) => total + option.credit, 0);
	return round(clamp(clamp(sum, question.bounds.lower, question.bounds.upper), -1, 1));
}

function markOf(question: Question, response: Response): Marked | null {
	switch (question.kind) {
		case 'fill-blanks':
			return markBlanks(question, response);
		case 'matching':
		case 'label-image':
			return markPairs(question, response);
		case 'ordering':
			return markOrder(question, response);
		case 'hotspot':
			return markPoints(question, response);
		case 'calculated':
			return markCalculated(question, response);
		default:
			return null;
	}
}

/**
 * Marks a response by the credit of the question. The best of several accepted answers counts. An answer that is not
 * given earns nothing. Essays are left to a person; information and unreadable questions carry no mark.
 */
export function score(question: Question, response: Response): Mark {
	const done = (credit: number | null, reason: string, extra: Markup[] = []): Mark => {
		const { general, correct, incorrect, partly } = question.feedback;
		const told = credit === null ? undefined : credit >= 1 ? correct : credit > 0 ? (partly ?? incorrect) : incorrect;
		return {
			credit,
			points: credit === null || question.points === null ? null : round(credit * question.points),
			reason,
			feedback: [...extra, told, general].filter((one): one is string => !!one)
		};
	};
	if (question.kind === 'essay') return done(null, 'A person has to mark this.');
	if (question.kind === 'information') return done(null, 'There is nothing to answer here.');
	if (question.kind === 'unreadable') return done(null, 'This question cannot be read here, so it cannot be marked.');
	if (isChoice(question)) {
		const ticked = new Set(response.options ?? []);
		if (!ticked.size) return done(0, 'Nothing is chosen.');
		const several = question.kind === 'multiple-response';
		const credit = choiceCredit(question, several ? ticked : new Set([...ticked].slice(0, 1)));
		const chosen = question.options.filter((option) => ticked.has(option.identifier));
		const right = chosen.filter((option) => option.credit > 0).length;
		const all = question.options.filter((option) => option.credit > 0).length;
		return done(
			credit,
			several
				? `${right} of ${all} right options chosen, ${chosen.length - right} wrong.`
				: credit >= 1
					? 'That is the key.'
					: credit > 0
						? 'That earns a part of the points.'
						: 'That is not the key.',
			chosen.flatMap((option) => option.feedback ?? [])
		);
	}
	const marked = markOf(question, response);
	if (marked) return done(marked.credit, marked.reason);
	if (question.kind !== 'short-answer' && question.kind !== 'numeric') return done(null, 'A person has to mark this.');
	const text = response.text ?? '';
	if (!fold(text)) return done(0, 'Nothing is written.');
	if (question.kind === 'short-answer') {
		const given = fold(text);
		const hits = question.accepted.filter((one) => acceptsText(one, given));
		const best = hits.length ? Math.max(...hits.map((one) => one.credit)) : 0;
		return done(
			best,
			hits.length
				? `“${given}” is accepted${best < 1 ? ` for ${Math.round(best * 100)} percent` : ''}.`
				: `“${given}” is not among the accepted answers.`
		);
	}
	const value = parseNumber(text);
	if (value === null) return done(0, `“${fold(text)}” is not a number.`);
	if (question.whole && !Number.isInteger(value)) return done(0, `${value} is not a whole number.`);
	const hits = question.accepted.filter((one) => accepts(one, value));
	const best = hits.reduce<AcceptedNumber | null>((a, b) => (a === null || b.credit > a.credit ? b : a), null);
	return done(
		best?.credit ?? 0,
		best ? `${value} lies within ${acceptedNumberText(best)}.` : `${value} lies outside what is accepted.`
	);
}

/** The greatest credit that any answer earns, or null where a machine cannot say. */
export function bestCredit(question: Question): number | null {
	if (isChoice(question)) {
		const credits = question.options.map((option) => option.credit);
		if (question.kind !== 'multiple-response') return round(Math.max(0, ...credits));
		const sum = credits.filter((credit) => credit > 0).reduce((total, credit) => total + credit, 0);
		return round(Math.min(1, clamp(sum, null, question.bounds.upper)));
	}
	if (question.kind === 'short-answer' || question.kind === 'numeric')
		return round(Math.max(0, ...question.accepted.map((one) => one.credit)));
	const best = rightResponse(question);
	return best && question.kind !== 'calculated' ? Math.max(0, markOf(question, best)?.credit ?? 0) : null;
}

/** A response that earns the most, or null where there is none. */
export function rightResponse(question: Question): Response | null {
	if (isChoice(question)) {
		const right = question.options.filter((option) => option.credit > 0).sort((a, b) => b.credit - a.credit);
		if (!right.length) return null;
		return {
			options: (question.kind === 'multiple-response' ? right : right.slice(0, 1)).map((option) => option.identifier)
		};
	}
	if (question.kind === 'short-answer') {
		const best = [...question.accepted].sort((a, b) => b.credit - a.credit)[0];
		return best && best.credit > 0 ? { text: best.text } : null;
	}
	if (question.kind === 'numeric') {
		const text = bestNumber(question.accepted, question.whole);
		return text === null ? null : { text };
	}
	if (question.kind === 'fill-blanks') return blanksResponse(question);
	if (question.kind === 'matching' || question.kind === 'label-image') return pairsResponse(question);
	if (question.kind === 'ordering') return { order: question.items.map((item) => item.identifier) };
	if (question.kind === 'hotspot') return pointsResponse(question);
	if (question.kind === 'calculated' && faultOf(question) === null)
		return { text: String(datasetOf(question, '1').answer), seed: '1' };
	return null;
}

/** A response that earns less than everything, or null where there is none. */
export function wrongResponse(question: Question): Response | null {
	if (isChoice(question)) {
		const worst = [...question.options].sort((a, b) => a.credit - b.credit)[0];
		return worst && worst.credit < 1 ? { options: [worst.identifier] } : null;
	}
	if (question.kind === 'short-answer') return { text: 'anything else' };
	if (question.kind === 'numeric') {
		const text = wrongNumber(question.accepted);
		return text === null ? null : { text };
	}
	if (question.kind === 'fill-blanks') return blanksResponse(question, true);
	if (question.kind === 'matching' || question.kind === 'label-image') {
		const rights = question.kind === 'matching' ? question.right : question.targets;
		const lefts = question.kind === 'matching' ? question.left : question.labels;
		for (const left of lefts)
			for (const right of rights)
				if (
					!question.pairs.some(
						(one) => one.left === left.identifier && one.right === right.identifier && one.credit > 0
					)
				)
					return { pairs: [[left.identifier, right.identifier]] };
		return null;
	}
	if (question.kind === 'ordering')
		return question.items.length > 1 ? { order: question.items.map((item) => item.identifier).reverse() } : null;
	if (question.kind === 'hotspot') {
		if (question.mode === 'points') return { points: [[-1, -1]] };
		const wrong = question.shapes.find((shape) => shape.credit <= 0);
		return wrong ? { options: [wrong.identifier] } : null;
	}
	if (question.kind === 'calculated' && faultOf(question) === null)
		return { text: String(datasetOf(question, '1').answer * 3 + 1000), seed: '1' };
	return null;
}
