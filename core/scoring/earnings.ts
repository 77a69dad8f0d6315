import { isChoice, type Question } from '../kinds';
import { bestCredit, score } from './score';

/** What answers to a question earn, as shares of its points. */
export interface Earnings {
	best: number;
	worst: number;
	/** On average, where somebody guesses who knows nothing; null where there is no way to guess by chance. */
	guessed: number | null;
}

/** So many options are gone through with all that can be ticked of them. */
const mostOptions = 12;

const mean = (credits: readonly number[]) =>
	credits.reduce((sum, credit) => sum + credit, 0) / Math.max(1, credits.length);

/** What each answer of a choice earns: one option each, or every set of options that is not empty. */
function creditsOf(question: Question): number[] | null {
	if (!isChoice(question) || !question.options.length || question.options.length > mostOptions) return null;
	const names = question.options.map(({ identifier }) => identifier);
	const sets =
		question.kind === 'multiple-response'
			? Array.from({ length: 2 ** names.length - 1 }, (_, at) => names.filter((__, bit) => ((at + 1) >> bit) & 1))
			: names.map((name) => [name]);
	return sets.map((options) => score(question, { options }).credit ?? 0);
}

/** What pairs by chance earn: each left with some right, all alike likely. */
function pairsByChance(question: Question): number | null {
	if (question.kind !== 'matching' || question.combination === 'all' || !question.right.length) return null;
	return question.pairs.reduce((sum, { credit }) => sum + credit, 0) / question.right.length;
}

function orderByChance(question: Question): number | null {
	if (question.kind !== 'ordering' || !question.items.length) return null;
	if (question.rule === 'position') return 1 / question.items.length;
	return question.items.reduce((share, _, at) => share / (at + 1), 1);
}

/** What the best, the worst and a guessed answer to a question earn; null where the program does not mark it. */
export function earnings(question: Question): Earnings | null {
	const best = bestCredit(question);
	if (best === null) return null;
	const credits = creditsOf(question);
	if (credits) return { best, worst: Math.min(...credits), guessed: mean(credits) };
	return { best, worst: 0, guessed: pairsByChance(question) ?? orderByChance(question) };
}
