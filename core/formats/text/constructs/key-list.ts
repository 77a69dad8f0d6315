import { fold } from '../../../markup/text';
import { keyEntries, keyHeading } from '../keys';
import type { Line } from '../lines';
import type { TextState } from '../state';
import { answersOfTable } from '../tables';
import type { Construct } from './construct';

/** A heading of answers with the answers behind it, on one line. */
const keyLine = /^(?:the\s+)?(?:answer\s*key|answers|keys?|solutions?|correct answers)\s*[:–-]\s*(\S.*)$/i;

/** A line that heads a list of answers. */
export const keyListHeading: Construct = (state, line, at) => {
	const next = state.ahead.next(at);
	const comes = next !== undefined && (headsAnswers(state, next) || answersOfTable(next, true) !== null);
	const follows = comes || state.ahead.answersFollow(at);
	const heads = keyHeading.test(line.text) && (state.gap || state.blocks.length > 1) && follows;
	if (!heads) return false;
	state.inKey = true;
	state.block = null;
	return true;
};

/** A list of answers on one line, behind what it is called. */
export const keyListInLine: Construct = (state, line) => {
	const listed = keyLine.exec(line.text);
	if (!listed || keyEntries(listed[1]!).length < 2 || state.answersWithin()) return false;
	state.block = null;
	keyListEntry({ ...line, text: listed[1]!, list: null }, state);
	return true;
};

/** A line of a list of answers; the first line that is none ends the list. */
export const keyListLine: Construct = (state, line) =>
	state.inKey && (headsAnswers(state, line) || keyListEntry(line, state));

/** Whether a line within a list of answers heads those of one section: it says what a heading above the questions said. */
function headsAnswers(state: TextState, { text }: Line): boolean {
	const said = fold(text.replace(/^#+\s*/, '').replace(/:$/, '')).toLowerCase();
	return said !== '' && state.blocks.some(({ category }) => category.some((step) => fold(step).toLowerCase() === said));
}

function keyListEntry(line: Line, state: TextState): boolean {
	const list = line.list && line.list.kind !== 'bullet' ? `${line.list.label}. ${line.text}` : line.text;
	const entries = keyEntries(list.replace(/^[-•*]\s+/, ''));
	if (!entries.length) {
		state.inKey = false;
		return false;
	}
	for (const entry of entries) state.keys.push({ ...entry, line: line.number });
	return true;
}
