import { optionLetters } from '../checks/option-letters';
import { optionPlace } from '../checks/option-place';
import type { Question } from '../kinds';
import type { Rules } from './decision';

const isPart = (credit: number) => credit !== 0 && credit !== 1;

/** What a rule for many may change in a question, and what can be decided for one alone. */
export const settings = ['points', 'shuffle', 'tags', 'credit'] as const;

/** One of those. */
export type Setting = (typeof settings)[number];

function creditsOf(question: Question): number[] {
	if ('options' in question) return question.options.map((option) => option.credit);
	return 'accepted' in question ? question.accepted.map((accepted) => accepted.credit) : [];
}

/** The credits in a question that are neither nothing nor all, each once, as shares: those that a course may not allow. */
export function partCredits(question: Question): number[] {
	return [...new Set(creditsOf(question).filter(isPart))].slice(0, 40);
}

/** Whether options are shuffled, where the kind has that and the source says it. */
export const shuffleOf = (question: Question): boolean | null => ('shuffle' in question ? question.shuffle : null);

/** What was set for a question alone since it was read, by a person or by a mend: no rule for many changes that. */
export function setAlone(read: Question, now: Question): Setting[] {
	const found: Setting[] = [];
	if (read.points !== now.points) found.push('points');
	if (shuffleOf(read) !== shuffleOf(now)) found.push('shuffle');
	if (read.tags.some((tag) => !now.tags.includes(tag))) found.push('tags');
	if (String(creditsOf(read)) !== String(creditsOf(now))) found.push('credit');
	return found;
}

/** Whether the options of a question name one another by letter or place, which is a snag only once they are shuffled. */
export function isOrderBound(question: Question): boolean {
	if (!('options' in question) || question.shuffle === true) return false;
	const finds = (shuffle: boolean | null) =>
		[optionLetters, optionPlace].some((check) => check.find({ ...question, shuffle }).length > 0);
	return finds(true) && !finds(question.shuffle);
}

const nearest = (credit: number, steps: number[]) =>
	isPart(credit)
		? steps.reduce(
				(best, step) => (Math.abs(step / 100 - credit) < Math.abs(best - credit) ? step / 100 : best),
				Infinity
			)
		: credit;

function withCredits(question: Question, steps: number[]): Question {
	const move = <T extends { credit: number }>(list: T[]): T[] =>
		list.map((one) => ({ ...one, credit: nearest(one.credit, steps) }));
	if ('options' in question) return { ...question, options: move(question.options) };
	if (question.kind === 'short-answer') return { ...question, accepted: move(question.accepted) };
	if (question.kind === 'numeric') return { ...question, accepted: move(question.accepted) };
	return question;
}

/** Whether the rules change anything in the questions themselves. */
export function adjustsQuestions(rules: Rules): boolean {
	return (
		rules.points !== null ||
		rules.shuffle !== 'keep' ||
		rules.tags.length > 0 ||
		(rules.creditOtherwise === 'nearest' && rules.creditSteps.length > 0)
	);
}

/**
 * A question as the rules of taking in want it: points, shuffle, tags, credit on the steps that are allowed. What was set
 * for it alone stays as it is.
 */
export function adjusted(question: Question, rules: Rules, alone: readonly Setting[] = []): Question {
	let next = question;
	if (rules.points !== null && !alone.includes('points') && takesPoints(next.kind))
		next = { ...next, points: rules.points };
	if (rules.shuffle !== 'keep' && !alone.includes('shuffle') && 'shuffle' in next)
		next = { ...next, shuffle: rules.shuffle === 'on' };
	const tags = alone.includes('tags') ? [] : rules.tags.filter((tag) => !next.tags.includes(tag));
	if (tags.length) next = { ...next, tags: [...next.tags, ...tags] };
	const moves = rules.creditOtherwise === 'nearest' && rules.creditSteps.length > 0 && !alone.includes('credit');
	if (moves && partCredits(next).length) next = withCredits(next, rules.creditSteps);
	return next;
}

/** Whether questions of a kind can be worth points. */
export const takesPoints = (kind: Question['kind']) => kind !== 'information' && kind !== 'unreadable';
