import type { Response } from '../kinds/kind';
import type { Picture, Shape } from '../model/pieces';
import type { Markup } from '../model/question';

/** Something that stands under the stem of a question on paper. */
export type PaperBlock =
	| { sort: 'options'; several: boolean; options: Markup[] }
	/** Lines to write on, with a word before the first. */
	| { sort: 'lines'; count: number; before: string; after: string }
	/** Numbered things on the left, lettered ones on the right, and a place for the letter of each. */
	| { sort: 'pairs'; left: Markup[]; right: Markup[] }
	/** Lettered things, and places for their letters in order. */
	| { sort: 'order'; items: Markup[] }
	/** A picture to mark places on, with areas that are numbered. */
	| { sort: 'picture'; picture: Picture; places: Shape[] }
	/** Lettered things beside a picture, or that fill blanks. */
	| { sort: 'words'; title: string; words: Markup[] }
	/** A sentence that says what to do. */
	| { sort: 'say'; text: string };

/** What is typed of an answer on paper: what it says, or why it cannot be read, for people. */
export type Typed = { response: Response } | { wrong: string };

/** How one kind of question stands on paper. `order` is the order of its options by their places. */
export interface PaperKind<Of> {
	blocks: (question: Of, order: readonly number[]) => PaperBlock[];
	/** The stem, where it is not as it is: with its blanks numbered. */
	stem?: (question: Of) => Markup;
	/** The key in few words for those who mark. */
	key: (question: Of, order: readonly number[]) => string;
	/** How an answer is typed, for those who type it; nothing where a person marks it. */
	typing: string | null;
	/** An answer as it is typed from the paper. */
	read: (question: Of, order: readonly number[], typed: string) => Typed;
}
