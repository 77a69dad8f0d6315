import type { Question, UnreadableQuestion } from '../kinds';
import type { Severity } from '../reports/report';

/** What a check knows beside the question. */
export interface CheckContext {
	/** How another question of the course with exactly this content is called, or null. */
	duplicateOf: (question: Question) => string | null;
}

/** One finding of a check. */
export interface Finding {
	/** What is wrong and what to do, for people. */
	message: string;
	/** The words concerned, as a student would read them. */
	words?: string[];
	/** The line of the file at which it is to be seen, where that is not the first of the question. */
	line?: number;
}

/** What a mend needs beside the question, and what the checks themselves know nothing of. */
export interface MendTools {
	/** Reads a question anew whose markup is not well-formed, with that put right; null where it cannot be read even so. */
	readAgain: (question: UnreadableQuestion) => Question | null;
}

/** A check: what it is called, why it matters, how it finds, and how it mends where that is safe. */
export interface Check {
	/** Kebab case, the same for ever: findings in databases carry it. */
	id: string;
	/** A few words for lists. */
	title: string;
	/** One or two words for a mark beside a question. */
	short: string;
	severity: Severity;
	/** Why it matters, in a sentence or two. */
	why: string;
	find: (question: Question, context: CheckContext) => Finding[];
	/**
	 * The mend, in words and as a function that gives the mended question; with `fits` only some of what is found can be
	 * mended.
	 */
	mend?: {
		title: string;
		apply: (question: Question, tools: MendTools) => Question;
		fits?: (question: Question) => boolean;
	};
}
