import { type Markup } from '../../model/question';
import type { AcceptedNumber } from '../../model/pieces';

/** How a key names what is right, tried in the order given: by letter, by place from 1 or from 0, by the option's own text, by a word for true or false, or as the answer itself. */
export const keyForms = ['letter', 'index', 'index0', 'text', 'truth', 'answer'] as const;

/** One form of a key. */
export type KeyForm = (typeof keyForms)[number];

/** What is known of a question that came in no standard's shape: as a row of a table, an object, or lines of text. */
export interface Draft {
	title: string;
	stem: Markup;
	/** The file's own word for the kind, or our name for it. */
	kind: string | null;
	options: { text: Markup; credit: number | null; right: boolean | null; feedback?: Markup; pinned?: boolean }[];
	/** The keys as they are written, each by itself; null where the file has no place for one. */
	keys: string[] | null;
	points: string | number | null;
	category: string[];
	tags: string[];
	feedback: { general?: Markup; correct?: Markup; incorrect?: Markup; partly?: Markup };
	hints: Markup[];
	difficulty?: string;
	shuffle: boolean | null;
	accepted: { text: string; credit: number; caseSensitive?: boolean }[];
	numbers: AcceptedNumber[];
	pairs: [Markup, Markup][];
	distractors: Markup[];
	order: Markup[];
	truth: boolean | null;
	/** A person marks it, as the file says. */
	essay: boolean;
	tolerance: number | null;
	language: string | null;
	unit?: string;
	/** What is accepted in each run of underscores of the stem, where each is a blank of its own. */
	blanks?: string[][];
	/** The places in `order` of the things as they are shown, where that is another order. */
	presented?: number[];
	metadata?: { name: string; value: string }[];
}

/** A run of underscores or dots in a stem that stands for a blank. */
export const blankRun = /\[\s*_{2,}\s*\]|_{3,}|\.{6,}|…{2,}|\[(?:blank|gap)\s*\d*\]/gi;

/** A draft with nothing in it yet. */
export function emptyDraft(): Draft {
	return {
		title: '',
		stem: '',
		kind: null,
		options: [],
		keys: null,
		points: null,
		category: [],
		tags: [],
		feedback: {},
		hints: [],
		shuffle: null,
		accepted: [],
		numbers: [],
		pairs: [],
		distractors: [],
		order: [],
		truth: null,
		essay: false,
		tolerance: null,
		language: null
	};
}
