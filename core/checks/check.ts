import type { Question, UnreadableQuestion } from '../kinds';
import type { Attachment } from '../model/question';
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

/** A file that a mend asks for in the place of one of a question: a smaller form of a picture, or what came under its name. */
export interface FileWish {
	wants: 'smaller' | 'named';
	attachment: Attachment;
}

/** What a mend needs beside the question, and what the checks themselves know nothing of. */
export interface MendTools {
	/** Reads a question anew whose markup is not well-formed, with that put right; null where it cannot be read even so. */
	readAgain: (question: UnreadableQuestion) => Question | null;
	/** What is there for a wish; null where nothing is. Where it is missing, no files can be had. */
	fileFor?: (wish: FileWish) => Attachment | null;
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
	/** It is carried out only where somebody has turned it on. */
	isOff?: true;
}

/** What is known of a question beside what it says. */
export interface Known {
	/** A language model wrote it. */
	machine: boolean;
	/** Somebody has verified its key. */
	verified: boolean;
}

/** A check that looks at one question by itself. */
export interface OneCheck extends CheckCard {
	scope: 'one';
	find: (question: Question, known?: Known) => Finding[];
	/**
	 * The mend, in words and as a function that gives the mended question; with `fits` only some of what is found can be
	 * mended.
	 */
	mend?: {
		title: string;
		apply: (question: Question, tools: MendTools) => Question;
		fits?: (question: Question) => boolean;
		/** The files that it asks for; whoever mends has them ready before. */
		wishes?: (question: Question) => FileWish[];
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
	/** How many questions have this note, where they are counted and stand for one another; missing for one. */
	times?: number;
}

/** What checks over many use to note a question, and what is too large for a browser. */
export interface NoteTools {
	/** In which languages a text may be written, the likeliest first; empty where it does not say. */
	languagesOf: (text: string) => readonly string[];
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
	/**
	 * What is found goes by how many questions have a note, and is the same for all that have it: of each note one question
	 * is given, with how many there are, and what is said of it is said of all of them.
	 */
	tallied?: true;
	/** What has to be known of a question, as small as it can be, as JSON can hold it; null where it is left alone. */
	note: (question: Question, tools: NoteTools) => Note | null;
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

/**
 * A check that holds each question against every other that may be like it. Those that may be have a key in common; which
 * of them are, is kept pair by pair, so that after a change only the pairs of what was changed are looked at again.
 */
export interface PairCheck<Note = unknown> extends CheckCard {
	scope: 'pairs';
	within: 'category' | 'bank' | 'course';
	note: (question: Question, tools: NoteTools) => Note | null;
	/** The keys of a question: two that are alike have at least one in common. */
	keys: (note: Note) => readonly string[];
	alike: (a: Note, b: Note) => boolean;
	/** What is said of a question that others are like: what the first of these are called, of so many in all. */
	say: (others: readonly Noted<Note>[], all: number) => Finding;
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

/** A question in a pool, by a number that tells it apart in the whole quiz. */
export interface PooledQuestion {
	number: number;
	/** Its own points, where it says them. */
	points: number | null;
	/** What it is called, where its options name places or letters and must not be shuffled; missing where they may be. */
	bound?: string;
}

/** A quiz as the checks see it: its parts with what they can draw from. */
export interface CheckedQuiz {
	title: string;
	parts: (Pick<FoundQuiz['parts'][number], 'title' | 'draw' | 'pointsEach'> & {
		pool: readonly PooledQuestion[];
		/** It shuffles options, whatever the questions say; false where nothing is known of it. */
		shufflesOptions: boolean;
		/** What it draws from and is gone, in words. */
		lost: readonly string[];
	})[];
	/** What drawing has found of the quiz as a whole, where quotas, pairs, groups or overlaps make more of it than its parts show. */
	drawn?: DrawnQuiz;
}

/** What drawing finds of a quiz. */
export interface DrawnQuiz {
	/** Why it cannot be filled; null where it can. */
	stops: string | null;
	/** The least and the most points of a sitting, where it can be filled. */
	total: readonly [least: number, most: number] | null;
}

/** A check that looks at a quiz. */
export interface QuizCheck extends CheckCard {
	scope: 'quiz';
	find: (quiz: CheckedQuiz) => Finding[];
}

/** A check of any scope: what it is called, why it matters, how it finds, and how it mends where that is safe. */
export type Check = OneCheck | ManyCheck | PairCheck | TreeCheck | QuizCheck;

/** A check over many with its own kind of note, as the register holds it. */
export function overMany<Note>(check: ManyCheck<Note>): ManyCheck {
	return check as unknown as ManyCheck;
}

/** A check over pairs with its own kind of note, as the register holds it. */
export function overPairs<Note>(check: PairCheck<Note>): PairCheck {
	return check as unknown as PairCheck;
}
