import type { QuizSettings } from './quiz-settings';
import type { CarriedPart, CarriedRules } from './sheet';

/** A question as a part of a quiz refers to it. */
export interface FoundQuestion {
	identifier: string;
	/** The file that it stands in, where that is known. */
	file: string | null;
	/** Its place among the questions that are read from that file, from 1, where several may stand in one. */
	place?: number;
	/** What its score is multiplied by. */
	weight?: number | null;
	/** Whether it stands in a bank too. */
	inBank?: boolean;
	/** The titles of the sections that it stands in, where that is more than those of its part. */
	path?: string[];
}

/** One part of a quiz as a package gives it: the questions by identifier, and how many of them are drawn. */
export interface FoundPart {
	title: string;
	/** The titles of the sections that it stands in, its own last. */
	path: string[];
	/** The identifier of a bank that it draws from, wherever in the package that stands. */
	bank: string | null;
	questions: FoundQuestion[];
	/** How many are drawn, or null for all. */
	draw: number | null;
	pointsEach: number | null;
	/** Are the questions put in a random order; null where the source is silent. */
	shuffle: boolean | null;
	/** What else it says, in a file of ours. */
	sheet?: CarriedPart<FoundQuestion>;
}

/** A quiz as a package gives it. */
export interface FoundQuiz {
	identifier: string;
	title: string;
	parts: FoundPart[];
	source: { file: string; line: number };
	/** What the package says of what is around it. */
	settings?: Partial<QuizSettings>;
	/** What holds for all of its parts. */
	rules?: CarriedRules<FoundQuestion>;
}

/** A part of a quiz to be written; it names questions by their place in the list of questions, from 0. */
export interface PartToWrite {
	title: string;
	questions: number[];
	draw: number | null;
	pointsEach: number | null;
	shuffle: boolean;
	sheet?: CarriedPart<number>;
	/** The parts without quotas that together are exactly this one, where there are such. */
	exact?: { title: string; questions: number[]; draw: number }[];
	/** The groups of its questions that come whole, where the format has a place for them; all that it draws from are of one size. */
	groups?: number[][];
}

/** A quiz to be written. */
export interface QuizToWrite {
	identifier: string;
	title: string;
	parts: PartToWrite[];
	settings?: Partial<QuizSettings>;
	rules?: CarriedRules<number>;
	/** The points of every sitting, where all are worth the same. */
	points?: number | null;
	/** What of the quiz no format here has a place for, in sentences for people. */
	unsaid?: string[];
}

/** A quiz as it is written in a format, or null where it is not, with what is lost of it, in sentences for people. */
export interface FittedQuiz {
	quiz: QuizToWrite | null;
	what: string[];
}
