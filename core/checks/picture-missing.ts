import type { OneCheck } from './check';

/** A file that the question uses did not come along. */
export const pictureMissing: OneCheck = {
	id: 'picture-missing',
	version: 1,
	scope: 'one',
	title: 'Picture missing',
	short: 'picture missing',
	severity: 'broken',
	why: 'The question speaks of a picture or another file that did not come with it. Students would see an empty frame.',
	find(question) {
		const gone = question.attachments.filter((attachment) => attachment.missing).map((attachment) => attachment.name);
		if (!gone.length) return [];
		const outside = gone.every((name) => /^https?:/i.test(name));
		return [
			{
				message: `${gone.map((name) => `“${name}”`).join(', ')} ${outside ? 'is on another server and did not come with the question' : 'is not in the package'}. Ask for it, or change the question so that it does without.`,
				words: gone
			}
		];
	}
};
