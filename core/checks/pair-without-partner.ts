import { plainText } from '../markup/text';
import type { Question } from '../kinds';
import type { OneCheck } from './check';
import { quoted } from './saying';

/** What has to have a partner and has none, in words; what may be used no time is declared a distractor. */
function alone(question: Question): string[] {
	if (question.kind !== 'matching' && question.kind !== 'label-image') return [];
	const earning = question.pairs.filter(({ credit }) => credit > 0);
	// where nothing is paired at all, the key is missing, which is said of it
	if (!earning.length) return [];
	if (question.kind === 'matching') {
		const paired = new Set(earning.map(({ left }) => left));
		return question.left
			.filter(({ identifier, uses }) => !paired.has(identifier) && uses !== 0)
			.map(({ text, identifier }) => plainText(text) || identifier);
	}
	const paired = new Set(earning.map(({ right }) => right));
	return question.targets.flatMap(({ identifier, uses }, at) =>
		paired.has(identifier) || uses === 0 ? [] : [`place ${at + 1}`]
	);
}

/** Something that is to be put together with another, and belongs to nothing. */
export const pairWithoutPartner: OneCheck = {
	id: 'pair-without-partner',
	version: 1,
	scope: 'one',
	title: 'Item without a partner',
	short: 'no partner',
	severity: 'broken',
	why: 'Students look for what belongs to it, and nothing does; whatever they choose is wrong.',
	find(question) {
		const words = alone(question);
		return words.length
			? [
					{
						message: `Nothing belongs to ${quoted(words)}. Say what does, or take ${words.length > 1 ? 'them' : 'it'} out.`,
						words
					}
				]
			: [];
	}
};
