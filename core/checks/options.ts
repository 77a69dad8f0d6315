import { plainText } from '../markup/text';
import { isChoice, type ChoiceQuestion } from '../kinds';
import type { Option } from '../model/pieces';
import type { OneCheck } from './check';

const contentOf = (option: Option) =>
	plainText(option.text) + (option.text.match(/<(img|object|math)\b[^>]*>/g) ?? []).join('');

function faulty(question: ChoiceQuestion): { empty: Option[]; repeated: Option[] } {
	const empty = question.options.filter((option) => !contentOf(option));
	const repeated = question.options.filter(
		(option, at) =>
			contentOf(option) && question.options.findIndex((other) => contentOf(other) === contentOf(option)) < at
	);
	return { empty, repeated };
}

/** Whether an option can go without the loss of anything: it earns nothing, or another one says and earns the same. */
function dispensable(question: ChoiceQuestion, option: Option): boolean {
	if (!contentOf(option)) return option.credit === 0;
	return question.options.some(
		(other) => other !== option && contentOf(other) === contentOf(option) && other.credit === option.credit
	);
}

/** An option is empty, or says the same as another. */
export const emptyOrRepeatedOption: OneCheck = {
	id: 'empty-or-repeated-option',
	version: 2,
	scope: 'one',
	title: 'Empty or repeated option',
	short: 'options',
	severity: 'doubtful',
	why: 'An empty option cannot be meant; and of two that read the same, only one can be the key, so a right answer may be marked wrong.',
	find(question) {
		if (!isChoice(question)) return [];
		const { empty, repeated } = faulty(question);
		const words = repeated.map((option) => plainText(option.text));
		return [
			...(empty.length
				? [
						{
							message: `${empty.length === 1 ? 'One option is' : `${empty.length} options are`} empty. Write ${empty.length === 1 ? 'it' : 'them'}, or take ${empty.length === 1 ? 'it' : 'them'} out.`
						}
					]
				: []),
			...(words.length
				? [
						{
							message: `${words.map((word) => `“${word}”`).join(', ')} stands there more than once. Change or take out what is repeated.`,
							words
						}
					]
				: [])
		];
	},
	mend: {
		title: 'Take out options that are empty and earn nothing, and repeated ones that earn the same',
		// what only a person can decide stays whole
		fits: (question) => isChoice(question) && allFaulty(question).every((option) => dispensable(question, option)),
		apply(question) {
			if (!isChoice(question)) return question;
			const gone = new Set(allFaulty(question));
			if (![...gone].every((option) => dispensable(question, option))) return question;
			return gone.size ? { ...question, options: question.options.filter((option) => !gone.has(option)) } : question;
		}
	}
};

/** Those that are empty, and those that say the same as one before them. */
function allFaulty(question: ChoiceQuestion): Option[] {
	const { empty, repeated } = faulty(question);
	return [...empty, ...repeated];
}
