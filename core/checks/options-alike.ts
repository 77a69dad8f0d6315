import { fold, plainText } from '../markup/text';
import { isChoice } from '../kinds';
import type { Option } from '../model/pieces';
import type { OneCheck } from './check';

const quotes = /["'“”„‟‘’‚‛«»‹›]/g;
const shownThings = (option: Option) => (option.text.match(/<(?:img|object|math)\b[^>]*>/g) ?? []).join('');

/** The words of an option without end punctuation and quotes; capitals and blanks still count. */
const bare = (option: Option) => fold(plainText(option.text).replace(quotes, '')).replace(/[\s.,;:!?…]+$/u, '');
/** The same without capitals and without blanks, but for those between figures, which part numbers. */
const stripped = (option: Option) =>
	`${bare(option)
		.toLowerCase()
		.replace(/(?<!\d)\s+|\s+(?!\d)/g, '')} ${shownThings(option)}`;

/** A letter or a short sign in which capitals mean something: m and M, mW, pH, m/s; or any behind a number. */
const isSign = (word: string, before: string | undefined) =>
	(word.match(/\p{L}/gu) ?? []).length <= 3 &&
	(word.length === 1 || /.\p{Lu}|[/·]/u.test(word) || /\d$/.test(before ?? ''));

/** Whether capitals carry the meaning: every word in which they differ is a sign in one of them. */
function isByCase(a: Option, b: Option): boolean {
	const [first, second] = [bare(a).split(' '), bare(b).split(' ')];
	if (first.length !== second.length) return false;
	const differing = first.flatMap((word, at) => (word === second[at] ? [] : [at]));
	return (
		differing.length > 0 &&
		differing.every((at) => isSign(first[at]!, first[at - 1]) || isSign(second[at]!, second[at - 1]))
	);
}

/** Two options say the same but for a capital, a blank, a stop or a quote. */
export const optionsAlike: OneCheck = {
	id: 'options-alike',
	version: 2,
	scope: 'one',
	title: 'Options that are nearly the same',
	short: 'alike',
	severity: 'doubtful',
	why: 'Two options that differ in a capital or a full stop are one to whoever reads them, and only one of them is marked right.',
	find(question) {
		if (!isChoice(question)) return [];
		const words = new Set<string>();
		question.options.forEach((option, at) => {
			for (const before of question.options.slice(0, at)) {
				const [a, b] = [plainText(before.text), plainText(option.text)];
				// to the letter the same is a repeated option
				if (!a || a === b || stripped(before) !== stripped(option) || isByCase(before, option)) continue;
				words.add(a).add(b);
			}
		});
		return words.size
			? [
					{
						message: `${[...words].map((word) => `“${word}”`).join(' and ')} differ in capitals, blanks, stops or quotes alone. Change or take out what is not meant.`,
						words: [...words]
					}
				]
			: [];
	}
};
