import type { OneCheck } from './check';

/** A script or a handler was taken out when the question was read. */
export const activeContent: OneCheck = {
	id: 'active-content',
	version: 1,
	scope: 'one',
	title: 'Script or handler removed',
	short: 'script removed',
	severity: 'doubtful',
	why: 'The source held something that a browser would run. It was taken out when the file was read and never ran; if the question needed it to work, it no longer does.',
	find(question) {
		if (!question.removed.length) return [];
		return [
			{
				message: `Taken out of its text: ${question.removed.join(', ')}. Read the question once more; if it makes sense without, accept it as it is.`
			}
		];
	},
	mend: {
		title: 'Accept the cleaned text',
		apply: (question) => ({ ...question, removed: [] })
	}
};
