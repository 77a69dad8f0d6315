import { parseNumber } from '../formats/numbers';
import { fold } from '../markup/text';
import { isChoice, type AcceptedNumber, type Markup, type Question } from '../model/question';

/** What a student answers: the identifiers of the options that are ticked, or what is written. */
export interface Response {
	options?: string[];
	text?: string;
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

/** Whether a number is one that is accepted. */
export function accepts(accepted: AcceptedNumber, value: number): boolean {
	if ('value' in accepted) {
		const slack = 1e-9 * Math.max(1, Math.abs(accepted.value), accepted.tolerance);
		return Math.abs(value - accepted.value) <= accepted.tolerance + slack;
	}
	const { min, max, includesMin, includesMax } = accepted;
	return (
		(min === null || value > min || (includesMin && value === min)) &&
		(max === null || value < max || (includesMax && value === max))
	);
}

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
	const text = response.text ?? '';
	if (!fold(text)) return done(0, 'Nothing is written.');
	if (question.kind === 'short-answer') {
		const given = fold(text);
		const hits = question.accepted.filter((one) =>
			one.caseSensitive ? fold(one.text) === given : fold(one.text).toLowerCase() === given.toLowerCase()
		);
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
	return null;
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
		const best = [...question.accepted].sort((a, b) => b.credit - a.credit)[0];
		if (!best || best.credit <= 0) return null;
		if ('value' in best) return { text: String(best.value) };
		const { min, max } = best;
		const value =
			min !== null && max !== null
				? (min + max) / 2
				: min !== null
					? min + (best.includesMin ? 0 : 1)
					: max !== null
						? max - (best.includesMax ? 0 : 1)
						: 0;
		return { text: String(question.whole ? Math.round(value) : value) };
	}
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
		const ends = question.accepted.flatMap((one) =>
			'value' in one ? [one.value + one.tolerance] : [one.max ?? one.min ?? 0]
		);
		for (const step of [1, 7, 1001]) {
			const value = Math.ceil(Math.max(0, ...ends)) + step;
			if (!question.accepted.some((one) => accepts(one, value))) return { text: String(value) };
		}
	}
	return null;
}
