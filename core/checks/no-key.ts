import { isChoice } from '../model/question';
import { faultOf } from '../calculated/datasets';
import { blanksResponse } from '../scoring/kinds';
import type { Check } from './check';

/** Nothing is marked as right. */
export const noKey: Check = {
	id: 'no-key',
	title: 'No key',
	short: 'no key',
	severity: 'broken',
	why: 'Nothing is marked as the right answer, so every student would get no points, whatever they answer.',
	find(question) {
		if (isChoice(question))
			// where the key names no option, that is said of it
			return question.lostKeys.length || question.options.some((option) => option.credit > 0)
				? []
				: [{ message: 'No option is marked as right. Mark the key.' }];
		if (question.kind === 'short-answer' || question.kind === 'numeric')
			return question.accepted.some((one) => one.credit > 0)
				? []
				: [{ message: 'No answer is accepted. Write the answer that earns the points.' }];
		if (question.kind === 'fill-blanks') {
			const right = blanksResponse(question).blanks!;
			const open = question.blanks.filter((blank) => blank.form !== 'open' && !right[blank.identifier]?.length);
			const patterned = open.filter(
				(blank) => !(blank.form === 'text' && blank.accepted.some((one) => one.match === 'pattern' && one.credit > 0))
			);
			return patterned.length
				? [
						{
							message: `${patterned.length === 1 ? 'One blank has' : `${patterned.length} blanks have`} no right answer (${patterned.map((blank) => blank.identifier).join(', ')}). Say what is accepted there.`
						}
					]
				: [];
		}
		if (question.kind === 'matching' || question.kind === 'label-image')
			return question.pairs.some((pair) => pair.credit > 0)
				? []
				: [{ message: 'No pair is marked as right. Say what belongs together.' }];
		if (question.kind === 'hotspot')
			return question.shapes.some((shape) => shape.credit > 0)
				? []
				: [{ message: 'No place in the picture is marked as right. Mark the key.' }];
		if (question.kind === 'calculated') {
			const fault = faultOf(question);
			return fault === null ? [] : [{ message: `Its answer cannot be worked out: ${fault}. Look at the calculation.` }];
		}
		return [];
	}
};
