import { datasetOf } from '../kinds/calculated/datasets';
import { ExpressionError } from '../kinds/calculated/expression';
import type { CalculatedQuestion, Question } from '../kinds';
import type { AcceptedNumber } from '../model/pieces';
import type { OneCheck } from './check';

const widest = 0.5;
const tried = 5;

const wide = (accepted: readonly AcceptedNumber[]): string[] =>
	accepted.flatMap((entry) =>
		'value' in entry && entry.credit > 0 && entry.value !== 0 && entry.tolerance > widest * Math.abs(entry.value)
			? [`${entry.value} ± ${entry.tolerance}`]
			: []
	);

/** The tolerance of a calculated question where it is wide for all numbers that were drawn. */
function wideOfCalculated({ tolerance, ...question }: CalculatedQuestion): string[] {
	if (tolerance.mode === 'relative')
		return tolerance.value > widest ? [`${Math.round(tolerance.value * 100)} percent around the answer`] : [];
	try {
		const answers = Array.from(
			{ length: tried },
			(_, seed) => datasetOf({ tolerance, ...question }, `wide ${seed}`).answer
		);
		return answers.every((answer) => answer !== 0 && tolerance.value > widest * Math.abs(answer))
			? [`${answers[0]!} ± ${tolerance.value}`]
			: [];
	} catch (error) {
		// that is the calculation's own snag
		if (error instanceof ExpressionError) return [];
		throw error;
	}
}

function found(question: Question): string[] {
	if (question.kind === 'numeric') return wide(question.accepted);
	if (question.kind === 'calculated') return wideOfCalculated(question);
	if (question.kind !== 'fill-blanks') return [];
	return question.blanks.flatMap((blank) => (blank.form === 'number' ? wide(blank.accepted) : []));
}

/** Almost any number is accepted. */
export const toleranceWide: OneCheck = {
	id: 'tolerance-wide',
	version: 1,
	scope: 'one',
	title: 'Tolerance that lets nearly everything pass',
	short: 'wide tolerance',
	severity: 'doubtful',
	why: 'An answer may be off by more than half of the right value and is still right. Mostly a percentage was written as a number, or a point is missing.',
	find(question) {
		const words = found(question);
		return words.length
			? [
					{
						message: `${words.join('; ')} ${words.length > 1 ? 'are' : 'is'} accepted. Say how far off an answer may really be.`,
						words
					}
				]
			: [];
	}
};
