import { categoryOf } from '../../table/cells';
import { othersHaveFeedback, type Block } from '../block';
import { applyField } from '../fields';
import type { Line } from '../lines';
import { fieldOf } from '../marks';
import type { TextState } from '../state';
import { numberWithUnit } from '../units';
import type { Construct } from './construct';

/** A model answer of so many words is one to be read by a person, and not to be matched letter by letter. */
const fewestModelWords = 5;
/** A line to be filled in at the head of a paper, which is no title. */
const toBeFilledIn = /_{3,}|^(?:date|class|group|score|marks?|grade)\b\s*:?/i;
const ofNextQuestion = new Set(['points', 'tags', 'difficulty', 'kind']);

/** A field with its name in front, as "Points: 2". */
export const field: Construct = (state, line, at) => {
	const found = fieldOf(line);
	return found !== null && takeField(state, found.name, found.value, line, at);
};

/** Takes a field into the question that it is of: the one at hand, or the next. */
export function takeField(state: TextState, name: string, value: Line, line: Line, at: number): boolean {
	const { block } = state;
	const forNext = !block || (state.gap && state.ahead.questionFollows(at)) || state.ended;
	if (name === 'category') return category(state, value, line, forNext);
	if (name === 'title') return title(state, value, forNext);
	if (!block) {
		if (!ofNextQuestion.has(name)) return false;
		applyField(state.pending, name, value);
		return true;
	}
	block.to = line.number;
	if (name === 'tolerance') return tolerance(block, value);
	if (name === 'order') block.draft.kind ??= 'ordering';
	if (name === 'model' && !block.options.length && value.text.split(' ').length >= fewestModelWords)
		block.draft.kind ??= 'essay';
	if (name === 'answer' || name === 'model' || name === 'order') return answer(block, value, line);
	if (name === 'general' && block.last === 'option' && isOfOption(state, block, line, at)) {
		block.options.at(-1)!.feedback.push(value.markup);
		block.last = 'option-feedback';
		return true;
	}
	if (name === 'general' || name === 'correct' || name === 'incorrect' || name === 'partly') {
		const before = block.draft.feedback[name];
		block.draft.feedback[name] = before ? `${before} ${value.markup}` : value.markup;
		block.last = 'feedback';
		return true;
	}
	if (name === 'hint') block.draft.hints.push(value.markup);
	else applyField(block.draft, name, value);
	block.last = 'field';
	return true;
}

function category(state: TextState, value: Line, line: Line, forNext: boolean): boolean {
	const { block } = state;
	const path = categoryOf(value.text, [' / ', '/', ' > ', '>', ' :: ', '::', '\\']);
	if (block && !state.gap && !state.ended) {
		state.blocks.at(-1)!.category = path;
		block.last = 'field';
		block.to = line.number;
	} else {
		state.sticky = path;
		state.block = block && !forNext ? block : null;
	}
	return true;
}

function title(state: TextState, value: Line, forNext: boolean): boolean {
	const { block } = state;
	if (toBeFilledIn.test(value.text)) return false;
	if (forNext && !(block && !state.ended && state.ahead.titlesBehind)) state.pending.title = value.text;
	else block!.draft.title = value.text;
	return true;
}

function tolerance(block: Block, value: Line): boolean {
	const found = numberWithUnit(value.text)?.number;
	if (!found || !('value' in found)) return false;
	block.draft.tolerance = Math.abs(found.value);
	block.last = 'field';
	return true;
}

/** An answer; where nothing stands behind the name, it stands below. */
function answer(block: Block, value: Line, line: Line): boolean {
	block.last = 'field';
	if (value.text) block.answers.push({ value: value.text, line: line.number });
	else block.awaited = block.answers.length ? -1 : 0;
	return true;
}

/** Whether feedback below an option is that of the option. */
function isOfOption(state: TextState, block: Block, line: Line, at: number): boolean {
	return (line.indent > block.indent && !state.gap) || othersHaveFeedback(block) || state.ahead.moreOptions(at, block);
}
