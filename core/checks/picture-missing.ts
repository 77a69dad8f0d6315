import type { OneCheck } from './check';

/** A file that the question uses did not come along. */
export const pictureMissing: OneCheck = {
	id: 'picture-missing',
	version: 2,
	scope: 'one',
	title: 'Picture missing',
	short: 'picture missing',
	severity: 'broken',
	why: 'The question speaks of a picture or another file that did not come with it. Students would see an empty frame.',
	find(question) {
		const gone = question.attachments
			// what is on another server is said by a check of its own
			.filter(({ missing, name }) => missing && !/^(?:https?:)?\/\//i.test(name))
			.map(({ name }) => name);
		if (!gone.length) return [];
		return [
			{
				message: `${gone.map((name) => `“${name}”`).join(', ')} ${gone.length > 1 ? 'are' : 'is'} not in the package. Ask for it, or change the question so that it does without.`,
				words: gone
			}
		];
	}
};
