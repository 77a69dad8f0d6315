import { escapeText } from '../../../xml/serialise';
import type { Construct } from './construct';

/** "True" and "False" as options, each on its own line and without a letter; a star marks the right one. */
export const truthOption: Construct = (state, line) => {
	const { block } = state;
	const truth = /^(\*)?\s*(true|false)\s*(\*)?\.?$/i.exec(line.text);
	if (!block || !truth || !block.stem.length || block.options.length >= 2 || state.ended) return false;
	const first = block.options[0];
	if (first && !/^(true|false)$/i.test(first.plain)) return false;
	block.options.push({
		label: '',
		style: 'plain',
		text: [escapeText(truth[2]!)],
		plain: truth[2]!,
		right: truth[1] !== undefined || truth[3] !== undefined,
		stressed: line.stressed,
		feedback: [],
		line: line.number
	});
	block.last = 'option';
	block.to = line.number;
	return true;
};

/** "True / False" on one line: which kind the question is. */
export const trueOrFalse: Construct = ({ block }, line) => {
	if (!block?.stem.length || !/^(true)\s*[/|]\s*(false)$/i.test(line.text)) return false;
	block.draft.kind = 'true-false';
	block.to = line.number;
	return true;
};
