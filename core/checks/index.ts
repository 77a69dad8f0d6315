import { activeContent } from './active-content';
import { boilerplate } from './boilerplate';
import { categoryOrder } from './category-order';
import type { Check, ManyCheck, OneCheck, QuizCheck, TreeCheck } from './check';
import { creditShort } from './credit-short';
import { emptyStem } from './empty-stem';
import { escapedTwice } from './escaped-twice';
import { exactDuplicate } from './exact-duplicate';
import { lostKey } from './lost-key';
import { noKey } from './no-key';
import { emptyOrRepeatedOption } from './options';
import { optionLetters } from './option-letters';
import { optionPlace } from './option-place';
import { pictureMentioned } from './picture-mentioned';
import { pictureMissing } from './picture-missing';
import { quizWorthless } from './quiz-worthless';
import { sameTitle } from './same-title';
import { severalKeys } from './several-keys';
import { typedNumbering } from './typed-numbering';
import { unreadable } from './unreadable';

/** All checks, in the order in which they are listed. A new check is a new file and one line here. */
export const checks: Check[] = [
	noKey,
	lostKey,
	creditShort,
	emptyStem,
	pictureMissing,
	unreadable,
	severalKeys,
	emptyOrRepeatedOption,
	activeContent,
	exactDuplicate,
	escapedTwice,
	optionPlace,
	optionLetters,
	pictureMentioned,
	boilerplate,
	typedNumbering,
	sameTitle,
	categoryOrder,
	quizWorthless
];

const byId = new Map(checks.map((check) => [check.id, check]));

/** The check of an id, or undefined where a finding is a reader's own. */
export function checkOf(id: string): Check | undefined {
	return byId.get(id);
}

/** The checks that look at one question by itself. */
export const oneChecks = checks.filter((check): check is OneCheck => check.scope === 'one');

/** The checks that hold questions against one another. */
export const manyChecks = checks.filter((check): check is ManyCheck => check.scope === 'many');

/** The checks that look at the categories of a bank. */
export const treeChecks = checks.filter((check): check is TreeCheck => check.scope === 'tree');

/** The checks that look at a quiz. */
export const quizChecks = checks.filter((check): check is QuizCheck => check.scope === 'quiz');

/** What the mend of a check is called, or null where it has none, or where there is no such check. */
export function mendTitle(id: string): string | null {
	const check = byId.get(id);
	return check && 'mend' in check ? (check.mend?.title ?? null) : null;
}
