import type { Question } from '../kinds';
import type { Report } from '../reports/report';
import { ruleOf } from '../reports/rules';
import type { Finding, Known, OneCheck } from './check';
import { checkOf, oneChecks } from '.';

/** What a check finds; one that fails on a question loses nothing but what it would have found, and says so. */
function findingsOf(check: OneCheck, question: Question, known?: Known): Finding[] {
	try {
		return check.find(question, known);
	} catch (error) {
		return [
			{
				message: `The check “${check.title}” could not be carried out on this question (${(error as Error).message}). Look at it yourself.`
			}
		];
	}
}

/** Checks that keep silent where something else has been said of the same mistake. */
const silencedBy = new Map([
	['no-key', ['lost-key', 'contradictory-key', 'too-few-options', 'calculation-fails', 'variable-unset']],
	['kind-hint', ['several-keys']],
	['picture-mentioned', ['picture-missing', 'outside-link']],
	['options-alike', ['empty-or-repeated-option']],
	['credit-short', ['lost-key', 'pair-without-partner']],
	['typed-numbering', ['boilerplate']]
]);

function isSilent(rule: string, said: ReadonlySet<string>): boolean {
	return silencedBy.get(rule)?.some((other) => said.has(other)) ?? false;
}

/** What a question is checked with. */
export interface Checking {
	known?: Known | undefined;
	/** Checks that are carried out although they are off where nobody says otherwise. */
	on?: ReadonlySet<string> | undefined;
}

/** Everything that the checks over one question find in it, as reports that name its place; one mistake is said once. */
export function checkQuestion(question: Question, how: Checking = {}): Report[] {
	return checkBeside(question, [], how);
}

/** What the checks find in a question of which something has been said already: one mistake is said once. */
export function checkBeside(
	question: Question,
	said: readonly { rule: string }[],
	{ known, on }: Checking = {}
): Report[] {
	const place = question.source ? { file: question.source.file, line: question.source.line } : undefined;
	const before = new Set(said.map(({ rule }) => rule));
	const found = oneChecks
		.filter((check) => !check.isOff || on?.has(check.id))
		.flatMap((check) =>
			findingsOf(check, question, known).map(({ line, ...finding }) => ({
				rule: ruleOf(check),
				severity: check.severity,
				...finding,
				...(place ? { place: { ...place, line: line ?? place.line } } : {})
			}))
		);
	const all = new Set([...before, ...found.map(({ rule }) => rule)]);
	return found.filter(({ rule }) => !before.has(rule) && !isSilent(rule, all));
}

/** The mend of a check over one question that fits it, or null. */
export function mendFor(id: string, question: Question): NonNullable<OneCheck['mend']> | null {
	const check = checkOf(id);
	if (check?.scope !== 'one' || !check.mend) return null;
	return check.mend.fits && !check.mend.fits(question) ? null : check.mend;
}
