import type { Question, UnreadableQuestion } from '../kinds';
import type { FoundQuiz } from '../model/quiz';
import type { Severity } from '../reports/report';

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

/** What every check says of itself. */
interface CheckCard {
	/** Kebab case, the same for ever: findings in databases carry it. */
	id: string;
	/**
	 * Goes up by one whenever the check finds other things than before, or says them in other words: questions that were
	 * checked by an older version are checked again, in the background.
	 */
	version: number;
	/** A few words for lists. */
	title: string;
	/** One or two words for a mark beside a question. */
	short: string;
	severity: Severity;
	/** Why it matters, in a sentence or two. */
	why: string;
}

/** A check that looks at one question by itself. */
export interface OneCheck extends CheckCard {
	scope: 'one';
	find: (question: Question) => Finding[];
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

/** A question among others, as a check over many has noted it. */
export interface Noted<Note> {
	/** Tells it from the others; of two, the one with the lower number came first. */
	id: number;
	/** What it is called in messages: its title, or the start of its stem. */
	name: string;
	/** The steps of its category. */
	category: readonly string[];
	note: Note;
}

/** What a check over many finds in one of them. */
export interface FindingAmong extends Finding {
	id: number;
}

/**
 * A check that holds questions against one another. It never sees more than one question at a time: of each it notes what
 * it needs, which is kept, and what it finds it finds among the notes. So that a change is checked within a second, only
 * the notes of those are looked at again that the changed question is held against.
 */
export interface ManyCheck<Note = unknown> extends CheckCard {
	scope: 'many';
	/** Within what questions are held against one another. */
	within: 'category' | 'bank' | 'course';
	/** What has to be known of a question, as small as it can be, as JSON can hold it; null where it is left alone. */
	note: (question: Question) => Note | null;
	/** Only questions with the same key are held against one another; where it is missing, all that are within. */
	key?: (note: Note) => string;
	/** What is wrong among them, in any order; each question at most once. */
	among: (noted: readonly Noted<Note>[]) => FindingAmong[];
	/** The mend of one of them, given all; null where it can stay as it is. */
	mend?: {
		title: string;
		apply: (question: Question, own: Noted<Note>, noted: readonly Noted<Note>[]) => Question;
	};
}

/** A category as the checks over the tree see it: its steps, and how many questions stand in it and under it. */
export interface CheckedCategory {
	path: readonly string[];
	questions: number;
}

/** What a check over the tree finds: in which category, by its steps, and nothing in them for the bank as a whole. */
export interface FindingInTree extends Finding {
	subject: readonly string[];
}

/** A check that looks at the categories of a bank. */
export interface TreeCheck extends CheckCard {
	scope: 'tree';
	find: (categories: readonly CheckedCategory[]) => FindingInTree[];
}

/** A quiz as the checks see it: its parts with what they can draw from, and each question's points. */
export interface CheckedQuiz {
	title: string;
	parts: (Pick<FoundQuiz['parts'][number], 'title' | 'draw' | 'pointsEach'> & {
		/** The questions of the part, by numbers that tell them apart in the whole quiz, with their points where they say them. */
		pool: readonly { number: number; points: number | null }[];
	})[];
}

/** A check that looks at a quiz. */
export interface QuizCheck extends CheckCard {
	scope: 'quiz';
	find: (quiz: CheckedQuiz) => Finding[];
}

/** A check of any scope: what it is called, why it matters, how it finds, and how it mends where that is safe. */
export type Check = OneCheck | ManyCheck | TreeCheck | QuizCheck;

/** A check over many with its own kind of note, as the register holds it. */
export function overMany<Note>(check: ManyCheck<Note>): ManyCheck {
	return check as unknown as ManyCheck;
}
