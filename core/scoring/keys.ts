import { isChoice, type Question } from '../model/question';
import { bestCredit } from './score';

/** Whether there is anything that a person could say is right: some answer earns points, or nothing is marked by a machine. */
export function hasKey(question: Question): boolean {
	if (question.kind === 'information' || question.kind === 'unreadable') return false;
	if (question.kind === 'essay' || question.kind === 'file-upload') return false;
	if (isChoice(question)) return question.options.some((option) => option.credit > 0);
	if (question.kind === 'calculated') return question.expression.trim() !== '';
	return (bestCredit(question) ?? 0) > 0;
}

/** A question as a person has edited it: once the key is marked, what the source named in vain is no key any more. */
export function withKeyMarked(before: Question, after: Question): Question {
	if (!isChoice(after) || !after.lostKeys.length || !hasKey(after)) return after;
	const credits = (question: Question) =>
		isChoice(question) ? question.options.map((option) => `${option.identifier} ${option.credit}`).join() : '';
	return credits(before) === credits(after) ? after : { ...after, lostKeys: [] };
}
