import { plainText } from '../markup/text';
import { isChoice } from '../kinds';
import type { Option } from '../model/pieces';
import type { OneCheck } from './check';
import { isBoundToPlace } from './phrases/place';

const isLoose = (option: Option) => !option.pinned && isBoundToPlace(plainText(option.text));

/** An option makes sense only in its place, and may be shuffled out of it. */
export const optionPlace: OneCheck = {
	id: 'option-place',
	version: 4,
	scope: 'one',
	title: 'Option that makes sense only in its place',
	short: 'place',
	severity: 'doubtful',
	why: '“All of the above” has to come last. Where the options may be shuffled it can come first, and then it means nothing.',
	find(question) {
		if (!isChoice(question) || question.shuffle === false) return [];
		const words = question.options.filter(isLoose).map((option) => plainText(option.text));
		return words.length
			? [
					{
						message: `${words.map((word) => `“${word}”`).join(', ')} may be shuffled out of its place. Pin it there.`,
						words
					}
				]
			: [];
	},
	mend: {
		title: 'Pin the option in its place',
		apply: (question) =>
			isChoice(question)
				? {
						...question,
						options: question.options.map((option) => (isLoose(option) ? { ...option, pinned: true } : option))
					}
				: question
	}
};
