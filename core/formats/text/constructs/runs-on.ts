import { startQuestion } from '../begin';
import { note, type Block } from '../block';
import { reasonUnderAnswer, unknownField } from '../fields';
import type { Line } from '../lines';
import { takeStem } from '../stem';
import type { Construct } from './construct';

/** A short line without the sign that ends a sentence or a question, as headings are. */
const sectionLike = /^.{1,80}[^?.!…_]$/;

/** A line below a question that has ended: it waits for what comes. */
export const afterQuestion: Construct = (state, line) => {
	if (!state.ended) return false;
	state.before.push(line);
	return true;
};

/** A short bold line between two questions heads what comes. */
export const boldHeading: Construct = (state, line, at) => {
	const heads = state.gap && line.stressed && state.block!.stem.length > 0 && sectionLike.test(line.text);
	if (!heads || !state.ahead.questionFollows(at)) return false;
	state.before.push(line);
	state.ended = true;
	return true;
};

/** A paragraph behind a whole question: one without a number, or what belongs to none. */
export const newParagraph: Construct = (state, line, at) => {
	const block = state.block!;
	const whole = block.options.length > 0 || block.answers.length > 0 || block.pairs.length > 0;
	if (!state.gap || !block.stem.length || !whole) return false;
	const above = sectionLike.test(line.text) && state.ahead.questionFollows(at);
	if ((!above && state.ahead.optionsFollow(at)) || /\?\s*$/.test(line.text)) {
		startQuestion(state, block.number, false, block.style, line);
		note(
			state.block,
			'no-number',
			`It has no number (line ${line.number}); it was read as a question of its own.`,
			'doubtful'
		);
		takeStem(state, state.block!, line);
		return true;
	}
	state.before.push(line);
	state.ended = !state.ahead.moreOptions(at, block);
	return true;
};

/**
 * A paragraph of a word processor behind options that it has listed itself, with the next question below it: it is no item
 * of the list, so that it does not belong to the last option.
 */
export const paragraphBetween: Construct = (state, line, at) => {
	const block = state.block!;
	const option = block.options.at(-1);
	if (block.last !== 'option' || !option || !/^(?:list|bullet)$/.test(option.style)) return false;
	if (state.format !== 'docx' || line.list || line.number === option.line) return false;
	if (!state.ahead.questionFollows(at)) return false;
	state.before.push(line);
	state.ended = true;
	return true;
};

/** A line that runs on from an option, feedback or a pair. */
function continues(block: Block, line: Line): boolean {
	const option = block.options.at(-1);
	if (block.last === 'option') {
		option!.text.push(line.markup);
		option!.plain += ` ${line.text}`;
	} else if (block.last === 'option-feedback') option!.feedback.push(line.markup);
	else if (block.last === 'feedback')
		block.draft.feedback.general = `${block.draft.feedback.general ?? ''} ${line.markup}`.trim();
	else if (block.last === 'pair') {
		const pair = block.pairs.at(-1)!;
		block.pairSources.push(line);
		pair[1] = { ...pair[1], text: `${pair[1].text} ${line.text}`, markup: `${pair[1].markup} ${line.markup}` };
	} else return false;
	return true;
}

/** Any other line runs on from what was read last; below a field it may be one of another name, or the reason of an answer. */
export const runsOn: Construct = (state, line) => {
	const block = state.block!;
	if (!continues(block, line)) {
		const underField = block.last === 'field' && !state.gap;
		if (underField && unknownField(block, line)) block.last = 'field';
		else if (underField && block.stem.length && !block.answers.length) state.before.push(line);
		// a picture below an answer is no reason for it: it stands above the next question
		else if (underField && block.answers.length && !line.text) state.before.push(line);
		else if (underField && block.answers.length) reasonUnderAnswer(block, line);
		else takeStem(state, block, line);
	}
	block.to = line.number;
	return true;
};
