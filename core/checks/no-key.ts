import { isChoice } from '../model/question';
import type { Check } from './check';

/** Nothing is marked as right. */
export const noKey: Check = {
	id: 'no-key',
	title: 'No key',
	short: 'no key',
	severity: 'broken',
	why: 'Nothing is marked as the right answer, so every student would get no points, whatever they answer.',
	find(question) {
		if (isChoice(question))
			return question.options.some((option) => option.credit > 0)
				? []
				: [{ message: 'No option is marked as right. Mark the key.' }];
		if (question.kind === 'short-answer' || question.kind === 'numeric')
			return question.accepted.some((one) => one.credit > 0)
				? []
				: [{ message: 'No answer is accepted. Write the answer that earns the points.' }];
		return [];
	}
};
