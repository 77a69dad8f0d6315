import type { Question } from '../model/question';
import type { Report } from '../reports/report';
import { activeContent } from './active-content';
import { boilerplate } from './boilerplate';
import type { Check, CheckContext } from './check';
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
	typedNumbering
];

const byId = new Map(checks.map((check) => [check.id, check]));

/** The check of an id, or undefined where a finding is a reader's own. */
export function checkOf(id: string): Check | undefined {
	return byId.get(id);
}

/** Everything that the checks find in a question, as reports that name its place. */
export function checkQuestion(question: Question, context: CheckContext): Report[] {
	const place = question.source ? { file: question.source.file, line: question.source.line } : undefined;
	return checks.flatMap((check) =>
		check.find(question, context).map(({ line, ...finding }) => ({
			rule: check.id,
			severity: check.severity,
			...finding,
			...(place ? { place: { ...place, line: line ?? place.line } } : {})
		}))
	);
}

/** The mend of a check that fits a question, or null. */
export function mendFor(id: string, question: Question): NonNullable<Check['mend']> | null {
	const mend = byId.get(id)?.mend;
	return mend && (mend.fits?.(question) ?? true) ? mend : null;
}
