import { plainText } from '../markup/text';
import type { Question } from '../kinds';
import { canonicalForm, differences, type Difference } from './canonical';

/** What two banks have in common, and what they have not. */
export interface BankComparison {
	/** How many questions are the same in all. */
	same: number;
	changed: { before: Question; after: Question; differences: Difference[] }[];
	onlyBefore: Question[];
	onlyAfter: Question[];
}

/**
 * Holds two banks against each other: questions of the same content first, then by identifier, by title, and by stem.
 * What was paired and differs in anything, category and tags among it, is changed.
 */
export function compareBanks(before: Question[], after: Question[]): BankComparison {
	const result: BankComparison = { same: 0, changed: [], onlyBefore: [], onlyAfter: [] };
	let left = before;
	const taken = new Set<Question>();
	const passes: ((question: Question) => string)[] = [
		canonicalForm,
		(question) => question.identifier,
		(question) => question.title.toLowerCase(),
		(question) => plainText(question.stem).toLowerCase()
	];
	for (const key of passes) {
		const waiting = new Map<string, Question[]>();
		for (const question of after) {
			const name = taken.has(question) ? '' : key(question);
			if (name) waiting.set(name, [...(waiting.get(name) ?? []), question]);
		}
		left = left.filter((question) => {
			const other = waiting.get(key(question))?.shift();
			if (!other || !key(question)) return true;
			taken.add(other);
			const found = differences(question, other);
			if (found.length) result.changed.push({ before: question, after: other, differences: found });
			else result.same += 1;
			return false;
		});
	}
	result.onlyBefore = left;
	result.onlyAfter = after.filter((question) => !taken.has(question));
	return result;
}
