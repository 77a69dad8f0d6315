import { boolean } from 'yup';
import type { Edit } from './edit';

/** Options are shuffled, or stay as they stand; kinds without options are left alone. */
export const shuffle: Edit<{ on: boolean }> = {
	fields: { on: boolean().required() },
	deed: 'set the shuffling of',
	says: ({ on }) => (on ? 'shuffled' : 'not shuffled'),
	apply: (question, { on }) =>
		'shuffle' in question && question.shuffle !== on ? { ...question, shuffle: on } : question,
	keepsKey: true
};
