import type { Question } from '../kinds';

/** What becomes of a question in a format: kept, changed in a way that is said, or lost. */
export interface Loss {
	outcome: 'kept' | 'changed' | 'lost';
	/** What is changed or lost, each for people. */
	what: string[];
	/** The parts of the question that will differ once it is read back, by the names that `differences` gives them. */
	fields: string[];
	/** What is written for it: mostly one question, the very same where nothing is changed. */
	fitted: Question[];
}
