import { withCommon, type QuestionCommon } from '../../model/question';
import { type Question } from '../../kinds';
import { blankMarker } from '../../markup/markers';
import { serialise } from '../../xml/serialise';

import { blankRun, type Draft } from './draft';
import { numberAnswer } from './number-answer';

const round = (value: number) => Math.round(value * 1e6) / 1e6;

/** A question of blanks, of which each run of underscores in the stem is one. `accepted` are the texts of each. */
export function blanksOf(draft: Draft, accepted: string[][], common: QuestionCommon): Question {
	const share = round(1 / accepted.length);
	let at = 0;
	return withCommon(common, {
		kind: 'fill-blanks',
		stem: common.stem.replace(blankRun, () => serialise([blankMarker(`B${(at += 1)}`)])),
		blanks: accepted.map((texts, place) => {
			const numbers = texts.map(numberAnswer);
			const identifier = `B${place + 1}`;
			return numbers.every((one) => one !== null)
				? { identifier, share, form: 'number', whole: false, accepted: numbers }
				: {
						identifier,
						share,
						form: 'text',
						accepted: texts.map((text) => ({ text, credit: 1, caseSensitive: false }))
					};
		}),
		bank: [],
		combination: 'sum',
		shuffle: null
	});
}
