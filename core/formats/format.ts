import type { Codec } from '../container/codec';
import type { FitOptions, Limits } from './fit/fit';
import type { QuizLimits } from './fit/quiz-limits';
import type { Recipe } from './recipe/recipe';
import type { Container } from '../container/container';
import type { FoundQuiz, QuizToWrite } from '../model/quiz';
import type { Loss } from '../compare/loss';
import type { Question } from '../kinds';
import type { Report } from '../reports/report';
import type { Banks } from './banks';
import type { SeenIdentifiers } from './identifiers';

/** The names of the formats that are read or written. */
export type FormatName =
	| 'qti12'
	| 'qti12-xml'
	| 'qti20'
	| 'qti21'
	| 'qti22'
	| 'qti30'
	| 'cc11'
	| 'cc12'
	| 'cc13'
	| 'text'
	| 'csv'
	| 'xlsx'
	| 'docx'
	| 'json'
	| 'xml'
	| 'archive'
	| 'recipe';

/** What a reader gives, one thing at a time, in the order of the package. */
export type ReadEvent =
	| { type: 'format'; format: FormatName; title: string }
	| { type: 'title'; title: string }
	| { type: 'question'; question: Question; fragment: string; reports: Report[]; categories?: OtherCategories }
	| { type: 'quiz'; quiz: FoundQuiz }
	| { type: 'category'; path: string[] }
	| { type: 'other'; other: OtherFile }
	| { type: 'report'; report: Report; question?: string }
	| { type: 'progress'; bytesRead: number; bytesTotal: number };

/** A question that was read, with its source and what there is to say about it. */
export type ReadQuestion = Extract<ReadEvent, { type: 'question' }>;

/** Where else a package puts a question: the sections that it stands in, and the category that its metadata says. */
export interface OtherCategories {
	sections?: string[];
	metadata?: string[];
}

/** A file of a package that holds no questions and that no question uses: it is not ours, and is left where it is. */
export interface OtherFile {
	path: string;
	/** The type that the manifest gives it, or an empty text. */
	type: string;
}

/** What a writer is given. Questions are asked for one at a time; `media` gives the bytes of an attachment by its hash. */
export interface ToWrite {
	identifier: string;
	title: string;
	count: number;
	question: (at: number) => Promise<Question>;
	quizzes: QuizToWrite[];
	/** The categories in their order, those with nothing in them too, for formats that list them. */
	categories?: readonly (readonly string[])[];
	media: (hash: string) => AsyncIterable<Uint8Array>;
	/** The machine's own codec, where there is one that is faster than code. */
	codec?: Codec;
	/** What is chosen for kinds that the format does not know. */
	options?: FitOptions;
}

/** A format: how it is called, what it can hold, and how it is written where it is. */
export interface Format {
	name: FormatName;
	title: string;
	/** The ending of its files, with the dot. */
	ending: string;
	/** What it can hold; the loss table and the documentation are made from it. */
	limits: Limits;
	/** How much of a quiz it has a place for. */
	quizLimits: QuizLimits;
	/** Says what becomes of one question. */
	loss: (question: Question, options?: FitOptions) => Loss;
	/** The order in which the questions stand in the file, by their places from 0, where it is not that in which they are given. */
	order?: (count: number, quizzes: QuizToWrite[]) => number[];
	/** Gives the bytes of the file in pieces, and tells how many questions are written. The same input gives the same bytes. */
	write: (what: ToWrite, written?: (count: number) => void) => AsyncGenerator<Uint8Array>;
}

/** What a document reader needs to know about the package around its document. */
export interface DocumentContext {
	container: Container;
	/** The path of the document in the package. */
	file: string;
	format: FormatName;
	/** An address in the document as a path in the package, or null where it leads outside. */
	resolve: (address: string) => string | null;
	/** What the manifest says of the document. */
	category: string[];
	keywords: string[];
	difficulty: string | null;
	/** The questions of each bank that has been read; readers add to it. */
	banks: Banks;
	/** What a user has said of a file of no standard shape. */
	recipe?: Recipe;
	/** The identifiers of the questions that have been read; readers add to it. */
	identifiers: SeenIdentifiers;
}

/** A reader for documents of one root element. */
export type DocumentReader = (context: DocumentContext) => AsyncGenerator<ReadEvent>;
