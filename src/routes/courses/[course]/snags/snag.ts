import { checkOf } from '$core/checks';
import type { Question } from '$core/kinds';
import type { StoredQuestion } from '$lib/server/banks/banks';
import { ruleWords } from '$lib/ui/words';

/** A question with a snag, as it is shown: with what the mend would make of it, where there is one. */
export interface ShownSnag {
	stored: StoredQuestion;
	preview: { before: Question; after: Question; version: number } | null;
}

/** What a check is called, or the rule of a reader. */
export const checkTitle = (rule: string): string =>
	checkOf(rule)?.title ?? ruleWords(rule).replace(/^./, (letter) => letter.toUpperCase());
