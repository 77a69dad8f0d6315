import { beginQuestion, startsQuestion } from '../begin';
import { numberMark } from '../marks';
import type { Construct } from './construct';

/** A number that begins a question. */
export const question: Construct = (state, line, at) => {
	const marked = numberMark(line);
	if (!marked || !startsQuestion(state, marked, line, at)) return false;
	state.inKey = false;
	beginQuestion(state, marked, line, at);
	return true;
};
