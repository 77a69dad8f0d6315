import type { Question } from '../model/question';
import type { Rules } from './decision';

const isPart = (credit: number) => credit !== 0 && credit !== 1;

/** The credits in a question that are neither nothing nor all, each once, as shares: those that a course may not allow. */
export function partCredits(question: Question): number[] {
	const all =
		'options' in question
			? question.options.map((option) => option.credit)
			: 'accepted' in question
				? question.accepted.map((one) => one.credit)
				: [];
	return [...new Set(all.filter(isPart))].slice(0, 40);
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

/** A question as the rules of taking in want it: points, shuffle, tags, credit on the steps that are allowed. */
export function adjusted(question: Question, rules: Rules): Question {
	let next = question;
	if (rules.points !== null && next.kind !== 'information' && next.kind !== 'unreadable')
		next = { ...next, points: rules.points };
	if (rules.shuffle !== 'keep' && 'shuffle' in next) next = { ...next, shuffle: rules.shuffle === 'on' };
	const tags = rules.tags.filter((tag) => !next.tags.includes(tag));
	if (tags.length) next = { ...next, tags: [...next.tags, ...tags] };
	if (rules.creditOtherwise === 'nearest' && rules.creditSteps.length && partCredits(next).length)
		next = withCredits(next, rules.creditSteps);
	return next;
}
