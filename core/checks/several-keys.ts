import { plainText } from '../markup/text';
import { isChoice, type Question } from '../kinds';
import type { OneCheck } from './check';
import { withKind } from './kind-hint';
import { asksForSeveral } from './phrases/several';

const isFound = (question: Question) =>
	(question.kind === 'multiple-choice' || question.kind === 'true-false') &&
	question.options.filter(({ credit }) => credit >= 1).length > 1;

/** More than one option earns everything where only one may be chosen. */
export const severalKeys: OneCheck = {
	id: 'several-keys',
	version: 2,
	scope: 'one',
	title: 'Several keys, one meant',
	short: 'several keys',
	severity: 'doubtful',
	why: 'Students choose one option, and more than one earns all the points. Mostly one of them is a slip.',
	find(question) {
		if (question.kind !== 'multiple-choice' && question.kind !== 'true-false') return [];
		const keys = question.options.filter((option) => option.credit >= 1).map((option) => plainText(option.text));
		if (keys.length < 2) return [];
		return [
			{
				message: `${keys.length} options earn all the points, and one may be chosen: ${keys.map((key) => `“${key}”`).join(', ')}. Leave one of them, or make it a multiple response.`,
				words: keys
			}
		];
	},
	mend: {
		title: 'Make it a multiple response, as its words say, with the credit shared equally',
		fits: (question) => isFound(question) && asksForSeveral(plainText(question.stem)) !== null,
		apply: (question) =>
			isFound(question) && isChoice(question) && asksForSeveral(plainText(question.stem)) !== null
				? withKind(question, 'multiple-response')
				: question
	}
};
