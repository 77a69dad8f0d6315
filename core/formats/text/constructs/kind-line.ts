import { kindLine, kindOf } from '../kind-words';
import type { Construct } from './construct';

/** A line below the stem that only says of which kind the question is. */
export const kindOfQuestion: Construct = (state, line, at) => {
	const { block } = state;
	const kind = kindLine.exec(line.text);
	if (!block || !kind || !block.stem.length || state.ended) return false;
	const whole = block.options.length > 0 || block.answers.length > 0 || block.pairs.length > 0;
	if (whole && state.gap && state.ahead.questionFollows(at)) return false;
	block.draft.kind = kindOf(kind[1]!) ?? block.draft.kind;
	block.to = line.number;
	return true;
};
