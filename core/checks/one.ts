import type { Question } from '../kinds';
import type { Report } from '../reports/report';
import { ruleOf } from '../reports/rules';
import type { Finding, OneCheck } from './check';
import { checkOf, oneChecks } from '.';

/** What a check finds; one that fails on a question loses nothing but what it would have found, and says so. */
function findingsOf(check: OneCheck, question: Question): Finding[] {
	try {
		return check.find(question);
	} catch (error) {
		return [
			{
				message: `The check “${check.title}” could not be carried out on this question (${(error as Error).message}). Look at it yourself.`
			}
		];
	}
}

/** Everything that the checks over one question find in it, as reports that name its place. */
export function checkQuestion(question: Question): Report[] {
	const place = question.source ? { file: question.source.file, line: question.source.line } : undefined;
	return oneChecks.flatMap((check) =>
		findingsOf(check, question).map(({ line, ...finding }) => ({
			rule: ruleOf(check),
			severity: check.severity,
			...finding,
			...(place ? { place: { ...place, line: line ?? place.line } } : {})
		}))
	);
}

/** Checks that keep silent where something else has been said of the same mistake. */
const silencedBy = new Map([['no-key', ['lost-key', 'contradictory-key']]]);

/** What the checks find in a question of which something has been said already: one mistake is said once. */
export function checkBeside(question: Question, said: readonly { rule: string }[]): Report[] {
	const rules = new Set(said.map((report) => report.rule));
	return checkQuestion(question).filter(
		({ rule }) => !rules.has(rule) && !silencedBy.get(rule)?.some((other) => rules.has(other))
	);
}

/** The mend of a check over one question that fits it, or null. */
export function mendFor(id: string, question: Question): NonNullable<OneCheck['mend']> | null {
	const check = checkOf(id);
	if (check?.scope !== 'one' || !check.mend) return null;
	return check.mend.fits && !check.mend.fits(question) ? null : check.mend;
}
