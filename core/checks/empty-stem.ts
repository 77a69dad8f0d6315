import { plainText } from '../markup/text';
import type { OneCheck } from './check';

/** The question asks nothing. */
export const emptyStem: OneCheck = {
	id: 'empty-stem',
	version: 1,
	scope: 'one',
	title: 'Empty stem',
	short: 'empty stem',
	severity: 'broken',
	why: 'Students would see options, or a box, and nothing that is asked.',
	find(question) {
		if (question.kind === 'unreadable' || plainText(question.stem) || /<(img|object|math)\b/.test(question.stem))
			return [];
		return [{ message: 'There is no text and no picture in the stem. Write what is asked.' }];
	}
};
