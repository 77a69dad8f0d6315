import { plainText } from '../markup/text';
import { isChoice, mapMarkup, type Question } from '../kinds';
import type { OneCheck } from './check';

const number = /^\s*(?:Q(?:uestion)?\s*\.?\s*)?\d{1,3}\s*[.):]\s+(?=[\p{Lu}“"«])/u;
const letters = (at: number) => (at < 26 ? `${String.fromCharCode(65 + at)}|${String.fromCharCode(97 + at)}|` : '');
const label = (at: number) => `\\(?(?:${letters(at)}${at + 1})[.)]`;
const typedLabel = (at: number) => new RegExp(`^\\s*${label(at)}\\s+(?=\\S)`);
/** The same within rich text: behind the tags that it begins with. */
const inMarkup = (pattern: RegExp) => new RegExp(`^((?:\\s|<[^>]+>)*)${pattern.source.slice(1)}`, pattern.flags);

/** The places of the options that begin with their own letter or number; none where only one does, as a word may. */
function labelled(question: Question): number[] {
	if (!isChoice(question)) return [];
	const found = question.options.flatMap((option, at) => (typedLabel(at).test(plainText(option.text)) ? [at] : []));
	return found.length > 1 && found.length * 2 >= question.options.length ? found : [];
}

/** A number is typed into the stem, or letters into the options. */
export const typedNumbering: OneCheck = {
	id: 'typed-numbering',
	version: 1,
	scope: 'one',
	title: 'Number or letter typed into the text',
	short: 'numbering',
	severity: 'untidy',
	why: 'Numbers and letters are put in front when the question is shown. Typed into the text they stand there twice, and are wrong once the order changes.',
	find(question) {
		const stem = number.exec(plainText(question.stem))?.[0].trim();
		const options = isChoice(question) ? labelled(question).map((at) => plainText(question.options[at]!.text)) : [];
		return [
			...(stem ? [{ message: `The stem begins with the number “${stem}”. Take it out.`, words: [stem] }] : []),
			...(options.length
				? [
						{
							message: `${options.map((text) => `“${text}”`).join(', ')} begin with a letter or number of their own. Take it out.`,
							words: options
						}
					]
				: [])
		];
	},
	mend: {
		title: 'Take numbers and letters out of the text',
		apply(question) {
			const places = new Set(labelled(question));
			const bare = mapMarkup(question, (markup, field) =>
				field === 'stem' ? markup.replace(inMarkup(number), '$1') : markup
			);
			if (!isChoice(bare)) return bare;
			return {
				...bare,
				options: bare.options.map((option, at) =>
					places.has(at) ? { ...option, text: option.text.replace(inMarkup(typedLabel(at)), '$1') } : option
				)
			};
		}
	}
};
