import { cut } from '../marks';
import { takeStem } from '../stem';
import type { Construct } from './construct';

/** "Question: …", "Stem: …" below the number of a question and its fields. */
export const stemLabel: Construct = (state, line) => {
	const block = state.block;
	const found = /^(?:q(?:uestion)?(?:\s+text)?|stem|prompt|statement|text)\s*:\s+(?=\S)/i.exec(line.text);
	if (!found || !block || !state.waits(block)) return false;
	takeStem(state, block, cut(line, found[0].length));
	return true;
};
