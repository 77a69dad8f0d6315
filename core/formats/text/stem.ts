import { withoutBrackets } from './brackets';
import type { Block } from './block';
import { kindLabel, kindOf } from './kind-words';
import type { Line } from './lines';
import { withoutStress } from './markdown';
import { cut } from './marks';
import { withoutAnswer } from './options';
import type { TextState } from './state';

/** Takes a line into the stem of a question, without what else it says: its kind, its points, an answer in front of it. */
export function takeStem(state: TextState, block: Block, line: Line): void {
	const unlabelled = block.stem.length || !kindLabel.test(line.text) ? withoutAnswer(line, block) : line;
	let kept = withoutBrackets(unlabelled, block.draft);
	const said = /^T\s*[/|]?\s*F\b\s*[.:]?\s+(?=[A-Z“"])/.exec(kept.text);
	if (said) {
		block.draft.kind = 'true-false';
		kept = cut(kept, said[0].length);
	}
	const after = /\s+(?:T\s*\/\s*F|true\s*\/\s*false)\s*$|\s{2,}(?:T\s+F|true\s+false)\s*$/i.exec(kept.text);
	if (after) {
		block.draft.kind = 'true-false';
		kept = cut(kept, 0, after.index);
	}
	const lead = block.stem.length ? null : /^question\s*:\s+(?=\S)/i.exec(kept.text);
	if (lead) kept = cut(kept, lead[0].length);
	const labelled = block.stem.length ? null : kindLabel.exec(kept.text);
	if (labelled) {
		block.draft.kind = kindOf(labelled[1]!) ?? block.draft.kind;
		kept = cut(kept, labelled[0].length);
	}
	const written = /^_+\s*(T|F|True|False)\s*_+\s+(?=\S)/i.exec(kept.text);
	if (written && !block.stem.length) {
		block.answers.push({ value: written[1]!, line: line.number });
		kept = cut(kept, written[0].length);
	}
	if (kept.text || kept.markup) {
		const bare = withoutStress(kept.markup);
		block.stem.push({
			line: bare === null ? kept : { ...kept, markup: bare },
			gap: state.gap && block.stem.length > 0
		});
	}
	block.last = 'stem';
	block.to = line.number;
}
