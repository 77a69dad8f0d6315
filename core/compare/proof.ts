import type { Loss } from '../formats/format';
import type { Question } from '../model/question';
import { differences, type Difference } from './canonical';

/** What became of one question on its way through a file. */
export interface ProofLine {
	/** Its place in what was sent, from 0. */
	at: number;
	outcome: 'identical' | 'changed-as-foretold' | 'changed-otherwise' | 'missing';
	differences: Difference[];
}

/** Holds a question that was sent against the one that was read back, with what the loss table had said. */
export function proofLine(at: number, sent: Question, found: Question | undefined, loss: Loss): ProofLine {
	if (!found) return { at, outcome: 'missing', differences: [] };
	const differing = differences(sent, found);
	if (!differing.length) return { at, outcome: 'identical', differences: [] };
	return {
		at,
		outcome: differing.every(({ field }) => loss.fields.includes(field)) ? 'changed-as-foretold' : 'changed-otherwise',
		differences: differing
	};
}
