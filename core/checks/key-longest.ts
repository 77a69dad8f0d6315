import { plainText } from '../markup/text';
import { isChoice } from '../kinds';
import { overMany } from './check';
import { countOf, placeOfKey } from './key-place';

const fewest = 8;
const share = 0.8;
/** A key that is longer than the next by this much is seen to be. */
const longer = 1.2;

/** The key of nearly all choices of a category is the longest option. */
export const keyLongest = overMany<{ longest: boolean }>({
	id: 'key-longest',
	version: 1,
	scope: 'many',
	title: 'Key always the longest option',
	short: 'longest key',
	severity: 'doubtful',
	why: 'What is right was written with more care than what is wrong, and whoever takes the longest option is right without knowing anything.',
	within: 'category',
	tallied: true,
	note(question) {
		const place = placeOfKey(question, 2);
		if (place < 0 || !isChoice(question)) return null;
		const lengths = question.options.map(({ text }) => plainText(text).length);
		const next = Math.max(...lengths.filter((_, at) => at !== place));
		return { longest: lengths[place]! > 0 && lengths[place]! >= longer * next - 1e-9 };
	},
	among(noted) {
		const all = countOf(noted);
		const here = countOf(noted.filter(({ note }) => note.longest));
		if (all < fewest || here < share * all - 1e-9) return [];
		return noted
			.filter(({ note }) => note.longest)
			.map(({ id }) => ({
				id,
				message: `In ${here} of ${all} choices of this category the key is the longest option. Shorten the keys, or write out what is wrong as well.`
			}));
	}
});
