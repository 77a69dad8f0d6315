import { array, string } from 'yup';
import type { Edit } from './edit';

const tags = array(
	string().trim().min(1, 'A tag has at least a letter.').max(120, 'A tag has 120 letters at the most.').required()
)
	.max(40, '40 tags at once are the most.')
	.default([]);

/** Adds tags that a question does not have yet, and takes away others. */
export const retag: Edit<{ add: string[]; remove: string[] }> = {
	fields: { add: tags, remove: tags },
	deed: 'tagged',
	says: ({ add, remove }) => [...add.map((tag) => `+ ${tag}`), ...remove.map((tag) => `− ${tag}`)].join(', '),
	apply: (question, { add, remove }) => {
		const kept = question.tags.filter((tag) => !remove.includes(tag));
		const more = add.filter((tag) => !kept.includes(tag));
		return more.length || kept.length < question.tags.length ? { ...question, tags: [...kept, ...more] } : question;
	},
	keepsKey: true
};
