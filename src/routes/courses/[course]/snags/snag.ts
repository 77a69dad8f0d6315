import type { Question } from '$core/kinds';
import type { StoredQuestion } from '$lib/server/banks/banks';

/** A question with a snag, as it is shown: with what the mend would make of it, where there is one. */
export interface ShownSnag {
	stored: StoredQuestion;
	preview: { before: Question; after: Question; version: number } | null;
	/** The question that it is nearly the same as, where the check is about that. */
	partner: StoredQuestion | null;
}
