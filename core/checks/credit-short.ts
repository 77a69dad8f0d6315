import { bestCredit } from '../scoring/score';
import { kindOf } from '../kinds';
import type { OneCheck } from './check';
import { slack } from './saying';

/** No answer reaches all the points. */
export const creditShort: OneCheck = {
	id: 'credit-short',
	version: 2,
	scope: 'one',
	title: 'Credit that cannot reach the full points',
	short: 'credit short',
	severity: 'broken',
	why: 'Even the best answer earns less than the points of the question, so nobody can reach the total.',
	find(question) {
		const best = bestCredit(question);
		if (best === null || best <= 0 || best >= 1 - slack) return [];
		return [
			{
				message: `The best answer earns ${Math.round(best * 100)} percent of the points. Raise the credit so that it comes to 100.`
			}
		];
	},
	mend: {
		title: 'Raise the credit in proportion, so that the best answer earns all the points',
		// a blank without a key a person has to fill
		fits: (question) => (bestCredit(kindOf(question).scaled(question, 2)) ?? 0) > (bestCredit(question) ?? 0),
		apply(question) {
			const best = bestCredit(question);
			if (best === null || best <= 0 || best >= 1 - slack) return question;
			return kindOf(question).scaled(question, 1 / best);
		}
	}
};
