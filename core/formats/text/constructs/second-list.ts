import { stemText } from '../block';
import { numberMark } from '../marks';
import type { Construct } from './construct';

const asksToMatch = /\b(?:match|pair|connect|link)\b/i;

/**
 * A numbered thing below lettered ones, under a stem that asks to match them, where the answer below pairs letters with
 * numbers: "A. Bowline", "B. Reef knot", "1. Loop", "2. Joins two ends", "Answer: A-1, B-2". It begins no question.
 */
export const secondList: Construct = (state, line, at) => {
	const { block, ahead } = state;
	const marked = numberMark(line);
	if (!block || !marked || state.ended || block.options.length < 2 || block.answers.length) return false;
	if (marked.number !== block.statements.length + 1) return false;
	if (!block.options.every(({ label }) => /^[A-Za-z]$/.test(label)) || !asksToMatch.test(stemText(block))) return false;
	if (!block.statements.length && !ahead.pairsLetters(at)) return false;
	block.statements.push({
		label: String(marked.number),
		style: marked.style,
		text: [marked.rest.markup],
		plain: marked.rest.text,
		right: false,
		stressed: false,
		feedback: [],
		line: line.number
	});
	block.last = 'field';
	block.to = line.number;
	return true;
};
