import { answersOfTable, optionsOfTable, pairsOfTable, tableInText } from './tables';
import type { Line } from './lines';
import { readQuestionTable } from './question-table';
import { introduce } from './said';
import type { TextState } from './state';

/** Takes a table: a list of answers, options or pairs of the question at hand, questions of their own, or a part of the stem. */
export function takeTable(state: TextState, line: Line): void {
	const block = state.block;
	const answers = answersOfTable(line, state.inKey);
	if (answers) {
		state.keys.push(...answers);
		state.block = null;
		return;
	}
	if (block && (optionsOfTable(block, line) || pairsOfTable(block, line))) return;
	const read = readQuestionTable(line, state.category(), state.file, state.format);
	if (read) {
		if (!state.begun) introduce(state);
		state.begun = true;
		state.found.reports.push(...read.reports);
		for (const one of read.questions)
			state.ready.push({ after: state.blocks.length, found: { ...one, from: line.number, to: line.number } });
		state.block = null;
		return;
	}
	if (block) block.stem.push({ line: tableInText(line), gap: true });
	else state.before.push(tableInText(line));
}
