import { typedNumber } from '$lib/forms/typed-number';
import type { Chosen } from '$lib/server/banks/filter';

/** What can be done with many questions and needs to be told more first. */
export type BulkDeed =
	'move' | 'copy' | 'points' | 'tags' | 'difficulty' | 'language' | 'replace' | 'disputed' | 'quiz';

/** What was filled in on a sheet. */
export interface BulkFilled {
	/** Points, a difficulty, a language, what is looked for, a note or the title of a quiz: as it is written. */
	text: string;
	/** What is put in the place of what was looked for. */
	put: string;
	exactCase: boolean;
	wholeWords: boolean;
	added: string[];
	taken: string[];
	to: { bankId: number | null; categoryId: number | null };
	/** The quiz and part that questions are put in, as a choice names them; empty for a new quiz. */
	quiz: string;
}

/** A sheet with nothing filled in. */
export const nothingFilled = (): BulkFilled => ({
	text: '',
	put: '',
	exactCase: false,
	wholeWords: true,
	added: [],
	taken: [],
	to: { bankId: null, categoryId: null },
	quiz: ''
});

/** A change of many questions as it is sent. */
export const edit = (chosen: Chosen, what: object) => ({ do: 'edit', chosen, what });

interface BulkSheet {
	title: string;
	/** What is asked of the server; null while something is missing. */
	asked: (filled: BulkFilled, chosen: Chosen) => object | null;
}

const placed =
	(deed: 'move' | 'copy'): BulkSheet['asked'] =>
	({ to }, chosen) =>
		to.bankId === null ? null : { do: deed, chosen, to: { ...to } };

/** The sheets of all deeds that need one. */
export const bulkSheets: Record<BulkDeed, BulkSheet> = {
	move: { title: 'Move', asked: placed('move') },
	copy: { title: 'Copy', asked: placed('copy') },
	points: {
		title: 'Points of',
		asked: ({ text }, chosen) => {
			const points = typedNumber(text);
			return text.trim() && !Number.isNaN(points) ? edit(chosen, { edit: 'points', points }) : null;
		}
	},
	tags: {
		title: 'Tags of',
		asked: ({ added, taken }, chosen) =>
			added.length || taken.length ? edit(chosen, { edit: 'tags', add: [...added], remove: [...taken] }) : null
	},
	difficulty: {
		title: 'Difficulty of',
		asked: ({ text }, chosen) => edit(chosen, { edit: 'difficulty', difficulty: text })
	},
	language: {
		title: 'Language of',
		asked: ({ text }, chosen) => edit(chosen, { edit: 'language', language: text })
	},
	replace: {
		title: 'Replace words in',
		asked: ({ text, put, exactCase, wholeWords }, chosen) =>
			text ? edit(chosen, { edit: 'replace', find: text, put, exactCase, wholeWords }) : null
	},
	disputed: {
		title: 'Doubt the key of',
		asked: ({ text }, chosen) => ({ do: 'key', chosen, state: 'disputed', note: text })
	},
	// what it comes to is said by the choice of a quiz itself
	quiz: { title: 'A quiz of', asked: () => null }
};
