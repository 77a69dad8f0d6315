import { isChoice, kindOf, type Question } from '../kinds';

/** Whether there is a key that a person can look at and verify: some answer earns points by the program's marking. */
export function hasKey(question: Question): boolean {
	return kindOf(question).hasKey(question);
}

/** A question as a person has edited it: once the key is marked, what the source named in vain is no key any more. */
export function withKeyMarked(before: Question, after: Question): Question {
	if (!isChoice(after) || !after.lostKeys.length || !hasKey(after)) return after;
	const credits = (question: Question) =>
		isChoice(question) ? question.options.map((option) => `${option.identifier} ${option.credit}`).join() : '';
	return credits(before) === credits(after) ? after : { ...after, lostKeys: [] };
}
