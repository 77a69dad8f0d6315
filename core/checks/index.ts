import type { Check, ManyCheck, OneCheck, PairCheck, QuizCheck, TreeCheck } from './check';
import { activeContent } from './active-content';
import { answerBlanks } from './answer-blanks';
import { boilerplate } from './boilerplate';
import { calculationFails } from './calculation-fails';
import { categoryEmpty } from './category-empty';
import { categoryOrder } from './category-order';
import { creditOver } from './credit-over';
import { creditShort } from './credit-short';
import { emptyParagraphs } from './empty-paragraphs';
import { emptyStem } from './empty-stem';
import { escapedTwice } from './escaped-twice';
import { exactDuplicate } from './exact-duplicate';
import { keyLongest } from './key-longest';
import { keyPlace } from './key-place';
import { keyUnverified } from './key-unverified';
import { kindHint } from './kind-hint';
import { lostKey } from './lost-key';
import { mixedQuotes } from './mixed-quotes';
import { mojibake } from './mojibake';
import { nearDuplicate } from './near-duplicate';
import { negativeBelow } from './negative-below';
import { noFeedback } from './no-feedback';
import { noKey } from './no-key';
import { noTitle } from './no-title';
import { numberMarks } from './number-marks';
import { optionLetters } from './option-letters';
import { optionPlace } from './option-place';
import { optionsAlike } from './options-alike';
import { emptyOrRepeatedOption } from './options';
import { orderOfOne } from './order-of-one';
import { otherLanguage } from './other-language';
import { outsideLink } from './outside-link';
import { pairWithoutPartner } from './pair-without-partner';
import { pictureHuge } from './picture-huge';
import { pictureMentioned } from './picture-mentioned';
import { pictureMissing } from './picture-missing';
import { pictureWithoutText } from './picture-without-text';
import { placeOutsidePicture } from './place-outside-picture';
import { pointsFar } from './points-far';
import { quizLostPool } from './quiz-lost-pool';
import { quizShufflesPlace } from './quiz-shuffles-place';
import { quizTotals } from './quiz-totals';
import { quizUnfillable } from './quiz-unfillable';
import { quizWorthless } from './quiz-worthless';
import { sameStemOtherKey } from './same-stem-other-key';
import { sameTitle } from './same-title';
import { severalKeys } from './several-keys';
import { tagsCase } from './tags-case';
import { toleranceWide } from './tolerance-wide';
import { toleranceZero } from './tolerance-zero';
import { tooFewOptions } from './too-few-options';
import { typedNumbering } from './typed-numbering';
import { unreadable } from './unreadable';
import { variableUnset } from './variable-unset';
import { wordMarkup } from './word-markup';

/** All checks, in the order in which they are listed. A new check is a new file and one line here. */
export const checks: Check[] = [
	noKey,
	lostKey,
	creditShort,
	creditOver,
	emptyStem,
	tooFewOptions,
	pairWithoutPartner,
	orderOfOne,
	placeOutsidePicture,
	pictureMissing,
	calculationFails,
	variableUnset,
	unreadable,
	severalKeys,
	kindHint,
	emptyOrRepeatedOption,
	optionsAlike,
	exactDuplicate,
	nearDuplicate,
	sameStemOtherKey,
	optionPlace,
	optionLetters,
	typedNumbering,
	pictureMentioned,
	toleranceZero,
	toleranceWide,
	numberMarks,
	answerBlanks,
	negativeBelow,
	keyPlace,
	keyLongest,
	pointsFar,
	outsideLink,
	mojibake,
	otherLanguage,
	keyUnverified,
	activeContent,
	escapedTwice,
	wordMarkup,
	emptyParagraphs,
	boilerplate,
	mixedQuotes,
	noFeedback,
	noTitle,
	sameTitle,
	pictureWithoutText,
	pictureHuge,
	tagsCase,
	categoryEmpty,
	categoryOrder,
	quizUnfillable,
	quizWorthless,
	quizTotals,
	quizShufflesPlace,
	quizLostPool
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

/** The checks that hold each question against those that may be like it. */
export const pairChecks = checks.filter((check): check is PairCheck => check.scope === 'pairs');

/** The checks that look at the categories of a bank. */
export const treeChecks = checks.filter((check): check is TreeCheck => check.scope === 'tree');

/** The checks that look at a quiz. */
export const quizChecks = checks.filter((check): check is QuizCheck => check.scope === 'quiz');

/** What the mend of a check is called, or null where it has none, or where there is no such check. */
export function mendTitle(id: string): string | null {
	const check = byId.get(id);
	return check && 'mend' in check ? (check.mend?.title ?? null) : null;
}
