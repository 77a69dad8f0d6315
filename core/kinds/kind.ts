import type { ObjectShape } from 'yup';
import type { Markup, QuestionCommon } from '../model/question';
import type { Picture } from '../model/pieces';
import type { Part } from './part';

/** What a student answers: one of these, as the kind of question asks for. */
export interface Response {
	/** The identifiers of the options, or of the areas, that are ticked. */
	options?: string[];
	/** What is written. */
	text?: string;
	/** What stands in each blank, by its identifier: a text, or the identifiers of entries or of a word. */
	blanks?: Record<string, string[]>;
	/** What was put together, left and right. */
	pairs?: [string, string][];
	/** The identifiers in the order of the student. */
	order?: string[];
	/** Points in pixels of the picture. */
	points?: [number, number][];
	/** The seed of a calculated question's numbers. */
	seed?: string;
}

/** A share of the points, why, in a sentence for people, and what is told beside it; the credit is null where a person has to mark. */
export interface Marked {
	credit: number | null;
	reason: string;
	feedback?: Markup[];
}

/** Puts a rich text through a change; `field` is its name for people: "option 2". */
export type ChangeMarkup = (markup: Markup, field: string) => Markup;

/** How the pictures of a question are told in its canonical form: by their content where it is known. */
export type SettledPicture = (picture: Picture) => Record<string, unknown>;

/** What one student's copy of a question is made with. */
export interface Deal {
	/** Names the sitting and the question in it. */
	seed: string;
	shuffled: <T>(list: T[]) => T[];
	/** Whether the part of the quiz lets options be shuffled. */
	shuffleOptions: boolean;
}

/**
 * All that the program knows of one kind of question: a file in this folder, and a line in its register (index.ts). What
 * is missing does not compile. `Of` is the question as its fields describe it, `Dealt` what a student gets of it.
 */
export interface KindOf<Of extends QuestionCommon, Dealt extends QuestionCommon = Of> {
	/** The name for people. */
	name: string;
	/** Its own fields, as Yup has them; the type of the question and the published JSON Schema are made from them. */
	fields: ObjectShape;
	/** Who marks it: the program, a person, or nobody, since there is nothing to answer. */
	marks: 'program' | 'person' | 'nobody';
	/** The same question with its own rich texts changed, in the order in which a student meets them; what holds none is shared. */
	rich: (question: Of, change: ChangeMarkup) => Of;
	/** What it asks and offers beside its stem, as rich text or plain: for likeness and search. */
	wording: (question: Of) => string[];
	/**
	 * Its own content in the one form in which two questions are compared (fingerprint, proof): what two sources may write
	 * in two ways and mean alike is the same here, and identifiers are gone. Its rich texts are settled already.
	 */
	content: (question: Of, picture: SettledPicture) => Record<string, unknown>;
	/** Its own parts in words with names for people, in the order in which they are read. */
	parts: (question: Of) => Part[];
	/** Its own part of the plain form that belongs to no format (`barrow inspect --plain`). */
	plain: (question: Of) => Record<string, unknown>;
	/** How many there are of each thing of which there may be only so many: the count, the most, and what they are called. */
	counts: (question: Of) => [count: number, most: number, what: string][];
	/** Marks a response. */
	mark: (question: Of, response: Response) => Marked;
	/** A response that earns the most, or null where there is none. */
	right: (question: Of) => Response | null;
	/** A response that earns less than everything, or null where there is none. */
	wrong: (question: Of) => Response | null;
	/** The greatest credit that any answer earns, or null where the program cannot say. */
	best: (question: Of) => number | null;
	/** Why nothing that a student answers earns points, and what to do, for people; null where something does. */
	keyless: (question: Of) => string | null;
	/** The same question with each credit above nothing multiplied, at most to the whole, and no bound from above. */
	scaled: (question: Of, by: number) => Of;
	/**
	 * The question as one student gets it, where it has something to shuffle or numbers of its own; a question that is
	 * shown in the order of its key would give it away. Its options are dealt by the sitting (core/draws).
	 */
	dealt: (question: Of, deal: Deal) => Dealt;
	/** Whether there is a key that a person can look at and verify. */
	hasKey: (question: Of) => boolean;
}
