import { startQuestion } from '../begin';
import { cut } from '../marks';
import { takeStem } from '../stem';
import type { Construct } from './construct';

/** "Q: …" and "A: …", without numbers. */
export const flashCard: Construct = (state, line) => {
	const found = /^(?:(?:bonus|extra|final)\s+)?(Q|A)(?:uestion|nswer)?\s*:\s+(?=\S)/i.exec(line.text);
	if (!found) return false;
	const block = state.block;
	if (found[1]!.toUpperCase() === 'Q') {
		if (block?.numbered && state.waits(block)) return false;
		startQuestion(state, (block?.number ?? state.blocks.length) + 1, false, 'card', line);
		takeStem(state, state.block!, cut(line, found[0].length));
		return true;
	}
	if (!block || block.answers.length) return false;
	// behind options that are written in another way, "A:" is no option
	const last = block.options.at(-1);
	if (last ? block.options.length < 2 || last.style === ':' : block.style !== 'card') return false;
	block.answers.push({ value: cut(line, found[0].length).text, line: line.number });
	block.last = 'field';
	block.to = line.number;
	return true;
};
