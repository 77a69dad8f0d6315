import { string } from 'yup';
import type { Edit } from './edit';

/** How hard each is said to be; empty takes it away. */
export const difficulty: Edit<{ difficulty: string }> = {
	fields: { difficulty: string().trim().max(60, 'A difficulty has 60 letters at the most.').defined() },
	deed: 'set the difficulty of',
	says: ({ difficulty: words }) => words || 'none',
	apply: (question, { difficulty: words }) => {
		if ((question.difficulty ?? '') === words) return question;
		const { difficulty: _, ...rest } = question;
		return words ? { ...rest, difficulty: words } : rest;
	},
	keepsKey: true
};
