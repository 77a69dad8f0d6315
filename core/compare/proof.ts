import type { Loss } from './loss';
import type { Question } from '../kinds';
import { differences, type Difference } from './canonical';

/** What became of one question on its way through a file. */
export interface ProofLine {
	/** Its place in what was sent, from 0. */
	at: number;
	outcome: 'identical' | 'changed-as-foretold' | 'changed-otherwise' | 'missing';
	differences: Difference[];
}

/**
 * Holds a question that was sent against the one that was read back, with what the loss table had said. `which` is
 * the place among the questions that were written for it.
 */
export function proofLine(at: number, sent: Question, found: Question | undefined, loss: Loss, which = 0): ProofLine {
	if (!found) return { at, outcome: 'missing', differences: [] };
	const differing = differences(sent, found);
	if (!differing.length) return { at, outcome: 'identical', differences: [] };
	const fitted = loss.fitted[which] ?? sent;
	// what could not be read is carried on as it came, and is not asked for what it says
	const off = differences(fitted, found).filter(
		({ field }) => fitted.kind !== 'unreadable' || !loss.fields.includes(field)
	);
	return off.length
		? { at, outcome: 'changed-otherwise', differences: off }
		: { at, outcome: 'changed-as-foretold', differences: differing };
}

/** Whether a proof came out as it was foretold: only then is what was written proved. */
export const asForetold = (proof: { otherwise: number; missing: number; quiz: string[] }): boolean =>
	proof.otherwise + proof.missing === 0 && !proof.quiz.length;
