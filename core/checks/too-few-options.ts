import type { OneCheck } from './check';

/** A choice with nothing to choose from. */
export const tooFewOptions: OneCheck = {
	id: 'too-few-options',
	version: 1,
	scope: 'one',
	title: 'Fewer than two options',
	short: 'too few options',
	severity: 'broken',
	why: 'With one option or none there is nothing to choose, so the question tells nothing of who answers it.',
	find(question) {
		if (question.kind !== 'multiple-choice' && question.kind !== 'multiple-response') return [];
		const count = question.options.length;
		return count < 2
			? [
					{
						message: `${count ? 'There is one option alone' : 'There are no options'}. Write what there is to choose from.`
					}
				]
			: [];
	}
};
