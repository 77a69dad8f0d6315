import { isChoice, kindOf, type Question } from '../kinds';
import type { Bounds, Combination } from '../model/pieces';
import type { OneCheck } from './check';
import { inPercent, slack } from './saying';

const positive = (credits: readonly { credit: number }[]) =>
	credits.reduce((sum, { credit }) => sum + Math.max(0, credit), 0);
const isOpen = ({ combination, bounds }: { combination: Combination; bounds: Bounds }) =>
	combination !== 'all' && (bounds.upper === null || bounds.upper > 1 + slack);

/** What everything right earns together where nothing stops the sum; null where it is bounded, or is no sum. */
function sumOf(question: Question): number | null {
	if (isChoice(question)) {
		if (question.kind === 'multiple-response') return isOpen(question) ? positive(question.options) : null;
		return Math.max(0, ...question.options.map(({ credit }) => credit));
	}
	switch (question.kind) {
		case 'matching':
		case 'label-image':
			return isOpen(question) ? positive(question.pairs) : null;
		case 'hotspot': {
			const right = question.shapes.filter(({ credit }) => credit > 0).sort((a, b) => b.credit - a.credit);
			return isOpen(question) ? positive(question.picks ? right.slice(0, question.picks) : right) : null;
		}
		case 'fill-blanks':
			return question.combination === 'all' ? null : question.blanks.reduce((sum, { share }) => sum + share, 0);
		case 'short-answer':
		case 'numeric':
			return Math.max(0, ...question.accepted.map(({ credit }) => credit));
		default:
			return null;
	}
}

/** The best answer earns more than the whole. */
export const creditOver: OneCheck = {
	id: 'credit-over',
	version: 1,
	scope: 'one',
	title: 'Credit that goes beyond the full points',
	short: 'credit over',
	severity: 'broken',
	why: 'All that is right earns more together than the question is worth, and systems deal with that each in its own way: some cut it off, some give more points than there are.',
	find(question) {
		const sum = sumOf(question);
		return sum !== null && sum > 1 + slack
			? [
					{
						message: `All that is right earns ${inPercent(sum)} of the points. Lower the credit so that it comes to 100.`
					}
				]
			: [];
	},
	mend: {
		title: 'Lower the credit in proportion, so that the best answer earns all the points and no more',
		apply(question) {
			const sum = sumOf(question);
			if (sum === null || sum <= 1 + slack) return question;
			if (question.kind === 'fill-blanks')
				return { ...question, blanks: question.blanks.map((blank) => ({ ...blank, share: blank.share / sum })) };
			return kindOf(question).scaled(question, 1 / sum);
		}
	}
};
