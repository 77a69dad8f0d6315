import { separatorLine } from '../ahead';
import type { Construct } from './construct';

/** A line of dashes or the like ends the question above it. */
export const separator: Construct = (state, line) => {
	if (!separatorLine.test(line.text)) return false;
	if (state.block) state.ended = true;
	return true;
};
