import { note } from '../block';
import { cut, optionMark, placeOfLabel } from '../marks';
import { addOptions } from '../options';
import type { Construct } from './construct';

/** "Options:" on a line of its own. */
export const optionsLabel: Construct = ({ block }, line) => {
	const label = /^(?:answer\s+)?(?:options|choices)\s*:?$/i.test(line.text);
	if (!label || !block?.stem.length || block.options.length) return false;
	note(block, 'left-out-text', `The line “${line.text}” was left out of the question.`);
	block.to = line.number;
	return true;
};

/** "Options: a) … b) …" on one line. */
export const optionsBehindLabel: Construct = ({ block }, line) => {
	const label = /^(?:answer\s+)?(?:options|choices)\s*:\s+(?=\S)/i.exec(line.text);
	const listed = label && block?.stem.length && !block.options.length ? optionMark(cut(line, label[0].length)) : null;
	if (!listed || placeOfLabel(listed.label, false) !== 0) return false;
	addOptions(block!, listed);
	return true;
};
