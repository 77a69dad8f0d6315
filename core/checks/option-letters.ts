import { plainText } from '../markup/text';
import { isChoice, type ChoiceQuestion } from '../kinds';
import type { OneCheck } from './check';
import { optionsNamedIn } from './phrases/letters';

const placeOf = (sign: string) => (/\d/.test(sign) ? Number(sign) : sign.charCodeAt(0) - 64);

/** Whether the stem has a list of its own with these letters or numbers, of which the options speak. */
const isListed = (stem: string, signs: readonly string[]) =>
	signs.every((sign) => new RegExp(`(?:^|[\\s(])${sign}\\s*[.):]`, 'u').test(stem));

/** The options that speak of others. */
function speaking(question: ChoiceQuestion): string[] {
	const stem = plainText(question.stem);
	return question.options
		.map((option) => plainText(option.text))
		.filter((text) => {
			const signs = optionsNamedIn(text);
			return (
				signs.length > 0 && signs.every((sign) => placeOf(sign) <= question.options.length) && !isListed(stem, signs)
			);
		});
}

/** An option speaks of others by their letters. */
export const optionLetters: OneCheck = {
	id: 'option-letters',
	version: 3,
	scope: 'one',
	title: 'Option that names letters',
	short: 'letters',
	severity: 'doubtful',
	why: 'An option such as “A and C” is wrong as soon as the options are shuffled, or shown without letters.',
	find(question) {
		if (!isChoice(question) || question.shuffle === false) return [];
		const words = speaking(question);
		return words.length
			? [
					{
						message: `${words.map((word) => `“${word}”`).join(', ')} ${words.length > 1 ? 'speak' : 'speaks'} of other options by their letters or numbers. Write out what is meant, or keep the options in their order.`,
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
