import { fold } from '../../../markup/text';
import { beginQuestion } from '../begin';
import { keyHeading } from '../keys';
import type { Line } from '../lines';
import { cut, numberMark } from '../marks';
import { takeSection } from '../said';
import type { Construct } from './construct';

/** A heading, by the style of a word processor or by signs in front of it: a category, a question, or a list of answers. */
export const heading: Construct = (state, line, at) => {
	const markdown = /^(#{1,6})\s+(.*?)\s*#*$/.exec(line.text);
	const level = line.heading ?? markdown?.[1]!.length ?? null;
	if (level === null) return false;
	const title = fold(markdown ? markdown[2]! : line.text);
	if (level === 0) {
		state.before.unshift({ ...line, heading: 0 });
		return true;
	}
	const shown: Line = markdown
		? cut(
				line,
				markdown[1]!.length,
				markdown[1]!.length + 1 + line.text.slice(markdown[1]!.length + 1).replace(/\s*#*$/, '').length
			)
		: line;
	const asQuestion = numberMark({ ...shown, heading: null, list: null });
	if (asQuestion && (/^q/i.test(title) || state.ahead.headingsAsk(level))) {
		beginQuestion(state, asQuestion, shown, at);
		return true;
	}
	if (keyHeading.test(title)) {
		state.inKey = true;
		state.block = null;
		return true;
	}
	if (!title) return true;
	takeSection(state, line, title);
	while (state.headings.length && state.headings.at(-1)!.level >= level) state.headings.pop();
	state.headings.push({ level, title });
	state.sticky = [];
	state.block = null;
	state.inKey = false;
	return true;
};
