import { mapMarkup } from '../kinds';
import { plainText } from '../markup/text';
import type { OneCheck } from './check';

/** Instructions on how to answer, such as "Select one:" or "(Choose all that apply)", as they stand in a text. */
const phrase =
	/\(?\b(?:select|choose|pick|tick|mark|check)\s+(?:only\s+)?(?:one|all|the (?:best|correct|right)|two|three|any|as many)\b[^()<>.?!:]{0,50}?(?:[:.)]|$)\)?/i;

/** The instruction that stands in a text; null where there is none. */
export function boilerplateIn(text: string): string | null {
	const found = phrase.exec(text);
	// in the middle of a sentence it is what is asked
	return found && (found.index === 0 || /[\s(]$/.test(text.slice(0, found.index))) && /[:)]$|^\(/.test(found[0].trim())
		? found[0].trim()
		: null;
}

/** An instruction on how to answer stands in the stem. */
export const boilerplate: OneCheck = {
	id: 'boilerplate',
	version: 1,
	scope: 'one',
	title: 'Instruction in the stem',
	short: 'instruction',
	severity: 'untidy',
	why: 'How many options may be chosen is shown with the options. Typed into the stem as well, it stays there when the question changes, and then it is wrong.',
	find(question) {
		const words = boilerplateIn(plainText(question.stem));
		return words ? [{ message: `“${words}” stands in the stem. Take it out.`, words: [words] }] : [];
	},
	mend: {
		title: 'Take the instruction out of the stem',
		apply(question) {
			const words = boilerplateIn(plainText(question.stem));
			if (!words) return question;
			const pattern = new RegExp(`\\s*${words.replace(/[.*+?^${}()|[\]\\]/g, '\\$&').replace(/\s+/g, '\\s+')}`, 'i');
			return mapMarkup(question, (markup, field) =>
				field === 'stem'
					? markup
							.replace(pattern, '')
							.replace(/<p>\s*<\/p>/g, '')
							.trim()
					: markup
			);
		}
	}
};
