import { blankRun } from '../../drafts/draft';
import { startsQuestion } from '../begin';
import { stemText } from '../block';
import { fieldOf, numberMark } from '../marks';
import type { Construct } from './construct';

/** The answer below a line that only says that it comes, also in several parts where there are as many blanks. */
export const awaitedAnswer: Construct = (state, line, at) => {
	const { block } = state;
	if (!block || block.awaited < 0) return false;
	const part = block.awaited;
	const counted = numberMark(line);
	const blanks = stemText(block).match(blankRun)?.length ?? 0;
	block.awaited = -1;
	if (counted && blanks > 1 && part < blanks && counted.number === part + 1) {
		const before = block.answers.pop()?.value;
		block.answers.push({ value: before ? `${before}; ${counted.rest.text}` : counted.rest.text, line: line.number });
		block.awaited = part + 1;
	} else if (
		part > 0 ||
		fieldOf(line) ||
		line.heading !== null ||
		(counted && startsQuestion(state, counted, line, at))
	)
		return false;
	else block.answers.push({ value: line.text, line: line.number });
	block.last = 'field';
	block.to = line.number;
	return true;
};
