import { bestCredit } from '../scoring/score';
import { isChoice } from '../model/question';
import type { Check } from './check';

const round = (value: number) => Math.round(value * 1e6) / 1e6;

/** No answer reaches all the points. */
export const creditShort: Check = {
	id: 'credit-short',
	title: 'Credit that cannot reach the full points',
	short: 'credit short',
	severity: 'broken',
	why: 'Even the best answer earns less than the points of the question, so nobody can reach the total.',
	find(question) {
		const best = bestCredit(question);
		if (best === null || best <= 0 || best >= 1 - 1e-4) return [];
		return [
			{
				message: `The best answer earns ${Math.round(best * 100)} percent of the points. Raise the credit so that it comes to 100.`
			}
		];
	},
	mend: {
		title: 'Raise the credit in proportion, so that the best answer earns all the points',
		apply(question) {
			const best = bestCredit(question);
			if (best === null || best <= 0) return question;
			const raise = <T extends { credit: number }>(one: T): T =>
				one.credit > 0 ? { ...one, credit: Math.min(1, round(one.credit / best)) } : one;
			if (isChoice(question))
				return { ...question, options: question.options.map(raise), bounds: { ...question.bounds, upper: null } };
			if (question.kind === 'short-answer') return { ...question, accepted: question.accepted.map(raise) };
			if (question.kind === 'numeric') return { ...question, accepted: question.accepted.map(raise) };
			return question;
		}
	}
};
