import { isChoice, type Question } from '../kinds';
import type { OneCheck } from './check';
import { inPercent, slack } from './saying';

/** What everything wrong takes away together where no bound stops it; 0 where one does. */
function takenBy(question: Question): number {
	if (!('bounds' in question) || !('combination' in question) || question.combination === 'all') return 0;
	if (question.bounds.lower !== null && question.bounds.lower >= -1 - slack) return 0;
	const credits = isChoice(question)
		? question.kind === 'multiple-response'
			? question.options
			: []
		: question.kind === 'hotspot'
			? question.shapes
			: question.pairs;
	return credits.reduce((sum, { credit }) => sum - Math.min(0, credit), 0);
}

/** Wrong answers may take more than the whole. */
export const negativeBelow: OneCheck = {
	id: 'negative-below',
	version: 1,
	scope: 'one',
	title: 'Wrong answers that take more than all the points',
	short: 'below nothing',
	severity: 'doubtful',
	why: 'Whoever chooses all that is wrong loses more than the question is worth, and pays for it with points of other questions.',
	find(question) {
		const taken = takenBy(question);
		return taken > 1 + slack
			? [
					{
						message: `All that is wrong takes ${inPercent(taken)} of the points, and nothing stops it. Let it go no lower than nothing.`
					}
				]
			: [];
	},
	mend: {
		title: 'Let the question earn nothing at the least',
		apply: (question) =>
			takenBy(question) > 1 + slack && 'bounds' in question
				? { ...question, bounds: { ...question.bounds, lower: 0 } }
				: question
	}
};
