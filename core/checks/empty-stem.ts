import { replaceBlanks } from '../markup/markers';
import { plainText } from '../markup/text';
import type { Markup } from '../model/question';
import type { OneCheck } from './check';

/** Whether a stem has a word, a number or a sign beside its blanks and lines to write on, or something to see, to hear or to reckon with. */
const says = (stem: Markup) =>
	/<(img|object|math|audio|video)\b/.test(stem) ||
	/[^\s\p{Cf}\p{Pc}\p{Pd}.…·*]/u.test(plainText(replaceBlanks(stem, () => ' ')));

/** The question asks nothing. */
export const emptyStem: OneCheck = {
	id: 'empty-stem',
	version: 2,
	scope: 'one',
	title: 'Empty stem',
	short: 'empty stem',
	severity: 'broken',
	why: 'Students would see options, or a box, and nothing that is asked.',
	find(question) {
		if (question.kind === 'unreadable' || says(question.stem)) return [];
		return [{ message: 'There is no text and no picture in the stem. Write what is asked.' }];
	}
};
