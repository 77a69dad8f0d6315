import type { Check } from './check';

/** Another question is exactly the same. */
export const exactDuplicate: Check = {
	id: 'exact-duplicate',
	title: 'Exact duplicate',
	short: 'duplicate',
	severity: 'doubtful',
	why: 'Another question has exactly the same content. A quiz that draws from both may ask a student the same thing twice.',
	find(question, context) {
		const other = question.kind === 'unreadable' ? null : context.duplicateOf(question);
		return other === null ? [] : [{ message: `It says the same as ${other}. Keep one of them.` }];
	}
};
