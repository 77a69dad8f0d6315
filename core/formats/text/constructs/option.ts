import { numberMark, optionMark } from '../marks';
import { takesOption } from '../option-lines';
import { addOptions } from '../options';
import type { Construct } from './construct';

/** A letter, number or sign in front of an option of the question at hand. */
export const option: Construct = (state, line, at) => {
	const { block, ahead, gap } = state;
	const marked = optionMark(line) ?? ahead.bareLetter(line, at);
	if (!marked || !block) return false;
	if (!takesOption(block, marked, { line, at, ahead, gap, alsoQuestion: numberMark(line) !== null })) return false;
	if (!(gap && block.options.length === 0 && block.stem.length === 0)) addOptions(block, marked);
	return true;
};
