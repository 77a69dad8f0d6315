import type { Check } from './check';

/** Another question of the course is exactly the same. */
export const exactDuplicate: Check = {
	id: 'exact-duplicate',
	title: 'Exact duplicate in the course',
	short: 'duplicate',
	severity: 'doubtful',
	why: 'The course has a question with exactly the same content. A quiz that draws from both may ask a student the same thing twice.',
	find(question, context) {
		const other = question.kind === 'unreadable' ? null : context.duplicateOf(question);
		return other === null ? [] : [{ message: `It is the same as ${other}. Keep one of them.` }];
	}
};
