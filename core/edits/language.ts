import { string } from 'yup';
import type { Edit } from './edit';

/** The language of each, as RFC 5646 has it; empty takes it away. */
export const language: Edit<{ language: string }> = {
	fields: {
		language: string()
			.trim()
			.matches(/^$|^[a-zA-Z]{2,8}(-[a-zA-Z0-9]{1,8})*$/, 'A language is written as en, de or pt-BR.')
			.max(35)
			.defined()
	},
	deed: 'set the language of',
	says: ({ language: tag }) => tag || 'none',
	apply: (question, { language: tag }) =>
		(question.language ?? '') === tag ? question : { ...question, language: tag || null },
	keepsKey: true
};
