import { isOpen } from '../block';
import { sectionWords } from '../sections';
import type { Construct } from './construct';

const essayLine = /^essay\W*$/i;

/** A line in front of the first question, or between two: it waits for what comes. */
export const beforeQuestion: Construct = (state, line) => {
	if (state.block) return false;
	state.before.push(line);
	return true;
};

/** A line that begins a section, as "Part B: two points each", with a question below it. */
export const sectionLine: Construct = (state, line, at) => {
	const { block } = state;
	if (!block || !sectionWords(line.text).begins || (isOpen(block) && essayLine.test(line.text))) return false;
	if (!(state.gap || line.stressed) || !state.ahead.questionFollows(at)) return false;
	state.before.push(line);
	state.ended = true;
	return true;
};
