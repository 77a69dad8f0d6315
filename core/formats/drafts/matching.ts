import { withCommon, type QuestionCommon } from '../../model/question';
import { type Question } from '../../kinds';

import { type Draft } from './draft';

const round = (value: number) => Math.round(value * 1e6) / 1e6;

/** A question of pairs, with what belongs to none of them. */
export function matchingOf(draft: Draft, common: QuestionCommon): Question {
	const rights: string[] = [];
	for (const text of [...draft.pairs.map((pair) => pair[1]), ...draft.distractors])
		if (!rights.includes(text)) rights.push(text);
	const share = round(1 / draft.pairs.length);
	return withCommon(common, {
		kind: 'matching',
		left: draft.pairs.map(([text], at) => ({ identifier: `L${at + 1}`, text, uses: 1 })),
		right: rights.map((text, at) => ({ identifier: `R${at + 1}`, text, uses: null })),
		pairs: draft.pairs.map(([, right], at) => ({
			left: `L${at + 1}`,
			right: `R${rights.indexOf(right) + 1}`,
			credit: share
		})),
		combination: 'sum',
		bounds: { lower: null, upper: null },
		shuffle: draft.shuffle
	});
}
