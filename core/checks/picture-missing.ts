import type { Question } from '../kinds';
import type { FileWish, OneCheck } from './check';
import { withGranted } from './file-wishes';

/** What is not there, and is not on another server, of which a check of its own speaks. */
const goneOf = ({ attachments }: Question) =>
	attachments.filter(({ missing, name }) => missing && !/^(?:https?:)?\/\//i.test(name));

const wishes = (question: Question): FileWish[] =>
	goneOf(question).map((attachment) => ({ wants: 'named', attachment }));

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
		const gone = goneOf(question).map(({ name }) => name);
		if (!gone.length) return [];
		return [
			{
				message: `${gone.map((name) => `“${name}”`).join(', ')} ${gone.length > 1 ? 'are' : 'is'} not in the package. Ask for it, or change the question so that it does without.`,
				words: gone
			}
		];
	},
	mend: {
		title: 'Take the file of that name that came with the load',
		fits: (question) => goneOf(question).length > 0,
		wishes,
		apply: (question, tools) => withGranted(question, wishes(question), tools)
	}
};
