import { bestCredit } from '../scoring/score';
import { kindOf } from '../kinds';
import type { OneCheck } from './check';

/** No answer reaches all the points. */
export const creditShort: OneCheck = {
	id: 'credit-short',
	version: 1,
	scope: 'one',
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
			return kindOf(question).scaled(question, 1 / best);
		}
	}
};
