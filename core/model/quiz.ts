/** One part of a quiz as a package gives it: the questions by identifier, and how many of them are drawn. */
export interface FoundPart {
	title: string;
	/** The titles of the sections that it stands in, its own last. */
	path: string[];
	/** The identifier of a bank that it draws from, wherever in the package that stands. */
	bank: string | null;
	/**
	 * Identifiers of questions, with the file that each stands in where that is known, its place among the questions that
	 * are read from that file, from 1, where several may stand in one, what its score is multiplied by, and whether it
	 * stands in a bank too.
	 */
	questions: { identifier: string; file: string | null; place?: number; weight?: number | null; inBank?: boolean }[];
	/** How many are drawn, or null for all. */
	draw: number | null;
	pointsEach: number | null;
	/** Are the questions put in a random order; null where the source is silent. */
	shuffle: boolean | null;
}

/** A quiz as a package gives it. */
export interface FoundQuiz {
	identifier: string;
	title: string;
	parts: FoundPart[];
	source: { file: string; line: number };
}

/** A quiz to be written: its parts name the questions by their place in the list of questions. */
export interface QuizToWrite {
	identifier: string;
	title: string;
	parts: { title: string; questions: number[]; draw: number | null; pointsEach: number | null; shuffle: boolean }[];
	/** What the quiz says and no format has a place for, in sentences for people. */
	unsaid?: string[];
}

/** A quiz as it is written in a format, or null where it is not, with what is lost of it, in sentences for people. */
export interface FittedQuiz {
	quiz: QuizToWrite | null;
	what: string[];
}
