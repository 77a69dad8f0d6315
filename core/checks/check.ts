import type { Question } from '../model/question';
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
	/** The mend, in words and as a function that gives the mended question. */
	mend?: { title: string; apply: (question: Question) => Question };
}
