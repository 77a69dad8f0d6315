import type { Question } from '../kinds';
import type { Report } from '../reports/report';
import { activeContent } from './active-content';
import { boilerplate } from './boilerplate';
import type { Check, CheckContext, Finding } from './check';
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

/** What a check finds; one that fails on a question loses nothing but what it would have found, and says so. */
function findingsOf(check: Check, question: Question, context: CheckContext): Finding[] {
	try {
		return check.find(question, context);
	} catch (error) {
		return [
			{
				message: `The check “${check.title}” could not be carried out on this question (${(error as Error).message}). Look at it yourself.`
			}
		];
	}
}

/** Everything that the checks find in a question, as reports that name its place. */
export function checkQuestion(question: Question, context: CheckContext): Report[] {
	const place = question.source ? { file: question.source.file, line: question.source.line } : undefined;
	return checks.flatMap((check) =>
		findingsOf(check, question, context).map(({ line, ...finding }) => ({
			rule: check.id,
			severity: check.severity,
			...finding,
			...(place ? { place: { ...place, line: line ?? place.line } } : {})
		}))
	);
}

/** Checks that keep silent where something else has been said of the same mistake. */
const silencedBy = new Map([['no-key', ['lost-key', 'contradictory-key']]]);

/** What the checks find in a question of which something has been said already: one mistake is said once. */
export function checkBeside(question: Question, said: readonly { rule: string }[], context: CheckContext): Report[] {
	const rules = new Set(said.map((report) => report.rule));
	return checkQuestion(question, context).filter(
		({ rule }) => !rules.has(rule) && !silencedBy.get(rule)?.some((other) => rules.has(other))
	);
}

/** The mend of a check that fits a question, or null. */
export function mendFor(id: string, question: Question): NonNullable<Check['mend']> | null {
	const mend = byId.get(id)?.mend;
	return mend && (mend.fits?.(question) ?? true) ? mend : null;
}
