import { isChoice, type Question } from '../kinds';

/**
 * The question with an option made its key: the only one where one is chosen; where several are, it is one of them or no
 * longer, those that are share the credit alike, and what a wrong one took away it takes away still.
 */
export function withKey(question: Question, identifier: string): Question {
	if (!isChoice(question)) return question;
	if (question.kind !== 'multiple-response')
		return {
			...question,
			lostKeys: [],
			options: question.options.map((option) => ({ ...option, credit: option.identifier === identifier ? 1 : 0 }))
		};
	const right = new Set(question.options.filter(({ credit }) => credit > 0).map((option) => option.identifier));
	if (right.has(identifier)) right.delete(identifier);
	else right.add(identifier);
	const share = right.size ? 1 / right.size : 0;
	const penalised = question.options.some(({ credit }) => credit < 0);
	return {
		...question,
		lostKeys: [],
		options: question.options.map((option) => ({
			...option,
			credit: right.has(option.identifier) ? share : penalised ? -share : 0
		}))
	};
}
