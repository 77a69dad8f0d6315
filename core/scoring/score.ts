import { kindOf, type Question } from '../kinds';
import { rounded } from '../kinds/answers';
import type { Response } from '../kinds/kind';
import type { Markup } from '../model/question';

/** A mark. `credit` is the share of the points and may be negative; it is null where a person has to mark. */
export interface Mark {
	credit: number | null;
	points: number | null;
	/** Why, in a sentence for people. */
	reason: string;
	/** What the student is told. */
	feedback: Markup[];
}

/**
 * Marks a response by the credit of the question. The best of several accepted answers counts. An answer that is not
 * given earns nothing. Essays are left to a person; information and unreadable questions carry no mark.
 */
export function score(question: Question, response: Response): Mark {
	const { credit, reason, feedback = [] } = kindOf(question).mark(question, response);
	const { general, correct, incorrect, partly } = question.feedback;
	const byCredit = credit === null ? undefined : credit >= 1 ? correct : credit > 0 ? (partly ?? incorrect) : incorrect;
	return {
		credit,
		points: credit === null || question.points === null ? null : rounded(credit * question.points),
		reason,
		feedback: [...feedback, byCredit, general].filter((told): told is string => !!told)
	};
}

/** The greatest credit that any answer earns, or null where a machine cannot say. */
export function bestCredit(question: Question): number | null {
	return kindOf(question).best(question);
}

/** A response that earns the most, or null where there is none. */
export function rightResponse(question: Question): Response | null {
	return kindOf(question).right(question);
}

/** A response that earns less than everything, or null where there is none. */
export function wrongResponse(question: Question): Response | null {
	return kindOf(question).wrong(question);
}
