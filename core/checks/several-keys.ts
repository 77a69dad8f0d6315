import { plainText } from '../markup/text';
import type { OneCheck } from './check';

/** More than one option earns everything where only one may be chosen. */
export const severalKeys: OneCheck = {
	id: 'several-keys',
	version: 1,
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
	}
};
