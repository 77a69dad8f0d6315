import type { Question } from '../../../kinds';

/** Something that a question can have and that not every format can hold. */
export interface Feature {
	name: string;
	/** A few words for tables. */
	title: string;
	/** What becomes of it where it cannot be held, for people. */
	otherwise: string;
	/** The question without it; the same object where it has none of it. */
	without: (question: Question) => Question;
}
