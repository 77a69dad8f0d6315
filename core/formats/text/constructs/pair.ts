import { cut } from '../marks';
import type { Construct } from './construct';

const byArrow = /^(.+?)\s*(?:={1,2}>?|->|→|⇒|::)\s*(.+)$/;
/** A colon or a dash parts them too, where the lines before have shown that these are pairs. */
const byDash = /^(.{1,60}?)\s+[:–—-]\s+(.+)$/;

/** Two things that belong together, as "bowline = a loop". */
export const pair: Construct = (state, line, at) => {
	const { block } = state;
	if (!block || block.options.length || state.ended) return false;
	const found = byArrow.exec(line.text) ?? (block.last === 'pair' && !state.gap ? byDash.exec(line.text) : null);
	const matching = block.draft.kind === 'matching';
	if (!found || !(block.stem.length || matching)) return false;
	if (!block.pairs.length && !matching && !state.ahead.pairFollows(at, block)) return false;
	const right = line.text.indexOf(found[2]!, found[1]!.length);
	block.pairs.push([cut(line, 0, found[1]!.length), cut(line, right)]);
	block.pairSources.push(line);
	block.last = 'pair';
	block.to = line.number;
	return true;
};
