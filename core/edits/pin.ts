import { string } from 'yup';
import { isChoice } from '../kinds';
import type { Edit } from './edit';

const names = { last: 'the last option pinned', none: 'no option pinned' };

/** Pins the last option of each in its place (“None of these”), or lets all go. */
export const pin: Edit<{ which: 'last' | 'none' }> = {
	fields: {
		which: string()
			.oneOf(['last', 'none'] as const)
			.required()
	},
	deed: 'pinned options of',
	says: ({ which }) => names[which],
	apply: (question, { which }) => {
		if (!isChoice(question) || question.kind === 'true-false') return question;
		const options = question.options.map((option, at) => ({
			...option,
			pinned: which === 'last' ? option.pinned || at === question.options.length - 1 : false
		}));
		const same = options.every((option, at) => option.pinned === question.options[at]!.pinned);
		return same ? question : { ...question, options };
	},
	keepsKey: true
};
