import { isChoice } from '../../../kinds';

import { withoutFeedback } from './changing';
import type { Feature } from './feature';

/** General feedback. */
export const generalFeedback: Feature = {
	name: 'general-feedback',
	title: 'general feedback',
	otherwise: 'general feedback is left out',
	without: withoutFeedback('general')
};

/** Feedback to a right answer. */
export const correctFeedback: Feature = {
	name: 'correct-feedback',
	title: 'feedback to a right answer',
	otherwise: 'feedback to a right answer is left out',
	without: withoutFeedback('correct')
};

/** Feedback to a wrong answer. */
export const incorrectFeedback: Feature = {
	name: 'incorrect-feedback',
	title: 'feedback to a wrong answer',
	otherwise: 'feedback to a wrong answer is left out',
	without: withoutFeedback('incorrect')
};

/** Feedback to a partly right answer. */
export const partlyFeedback: Feature = {
	name: 'partly-feedback',
	title: 'feedback to a partly right answer',
	otherwise: 'feedback to a partly right answer is left out',
	without: withoutFeedback('partly')
};

/** Feedback of single options. */
export const optionFeedback: Feature = {
	name: 'option-feedback',
	title: 'feedback of single options',
	otherwise: 'feedback of single options is left out',
	without: (question) =>
		isChoice(question) && question.options.some((option) => option.feedback !== undefined)
			? { ...question, options: question.options.map(({ feedback: _, ...option }) => option) }
			: question
};
