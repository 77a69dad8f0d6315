import { checkOf } from '$core/checks';
import { readerRule } from '$core/reports/rules';

/** What a rule is called: the title of a check, or of a rule that readers speak by. */
export function ruleTitle(rule: string): string {
	return checkOf(rule)?.title ?? readerRule(rule)?.title ?? rule.replaceAll('-', ' ');
}

/** A rule in a word or two, for a mark beside a question. */
export function ruleShort(rule: string): string {
	return checkOf(rule)?.short ?? ruleTitle(rule).replace(/^./, (letter) => letter.toLowerCase());
}

/** Why it matters, in a sentence or two; nothing for a rule that is gone. */
export function ruleWhy(rule: string): string {
	return checkOf(rule)?.why ?? readerRule(rule)?.why ?? '';
}
