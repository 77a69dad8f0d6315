import { plainText } from '../markup/text';
import { isChoice } from '../kinds';
import type { OneCheck } from './check';

const letters =
	/^(?:both|only|neither|either|all of)?\s*\(?[A-H]\)?\s*(?:,\s*\(?[A-H]\)?\s*)*(?:and|or|&|nor)\s*\(?[A-H]\)?(?:\s+(?:only|together|above|are (?:right|correct)))?\.?$|^(?:options?|answers?)\s+[A-H]\b/i;

/** An option speaks of others by their letters. */
export const optionLetters: OneCheck = {
	id: 'option-letters',
	version: 1,
	scope: 'one',
	title: 'Option that names letters',
	short: 'letters',
	severity: 'doubtful',
	why: 'An option such as “A and C” is wrong as soon as the options are shuffled, or shown without letters.',
	find(question) {
		if (!isChoice(question) || question.shuffle === false) return [];
		const words = question.options.map((option) => plainText(option.text)).filter((text) => letters.test(text));
		return words.length
			? [
					{
						message: `${words.map((word) => `“${word}”`).join(', ')} ${words.length > 1 ? 'speak' : 'speaks'} of other options by their letters. Write out what is meant, or keep the options in their order.`,
						words
					}
				]
			: [];
	},
	mend: {
		title: 'Keep the options in their order',
		apply: (question) => (isChoice(question) ? { ...question, shuffle: false } : question)
	}
};
