import type { Combination } from '../model/pieces';

/** What trying a marking rule on the options of a choice has shown. */
export interface FoundCredits {
	/** The credit of each option, a share of `full`. */
	credits: number[];
	combination: Combination;
	bounds: { lower: number | null; upper: number | null };
	/** Does the rule mark as the model does, or had something to be given up. */
	exact: boolean;
	/** The score that stands for all the points: as it was given, or the best that was reached, at least 1. */
	full: number;
}

/** What a mapping says outright: the score of each option and the bounds of the sum. It is believed where trying bears it out. */
export interface DeclaredCredits {
	scores: number[];
	lower: number | null;
	upper: number | null;
}

const mostTried = 10;
const close = (a: number, b: number) => Math.abs(a - b) < 1e-6;
const round = (value: number) => Math.round(value * 1e6) / 1e6;

const known: number[][][] = [];

/** Every set of so many options, by their places; the same list each time it is asked for. */
export function subsets(count: number): number[][] {
	return (known[count] ??= Array.from({ length: 2 ** count }, (_, mask) => {
		const set: number[] = [];
		for (let at = 0; at < count; at += 1) if (mask & (1 << at)) set.push(at);
		return set;
	}));
}

/** A set of options, and the score that it was given. */
interface Tried {
	set: number[];
	score: number;
}

const shareOf = (score: number, whole: number) => round(Math.max(-1, Math.min(1, score / whole)));
const boundOf = (score: number | null, whole: number) => (score === null ? null : round(score / whole));

/** The sets of options that are tried: all, or where these are too many, those that differ from what is expected by one. */
function setsToTry(count: number, expected: number[]): number[][] {
	if (count <= mostTried) return subsets(count);
	const all = Array.from({ length: count }, (_, at) => at);
	return [
		[],
		all,
		expected,
		all.filter((at) => !expected.includes(at)),
		...all.map((at) => [at]),
		...all.map((at) => (expected.includes(at) ? expected.filter((other) => other !== at) : [...expected, at]))
	];
}

/** The credits as a mapping says them, where all that was tried bears it out. */
function asDeclared({ scores, lower, upper }: DeclaredCredits, tried: Tried[], whole: number): FoundCredits | null {
	const predicted = (set: number[]) =>
		Math.min(
			upper ?? Infinity,
			Math.max(
				lower ?? -Infinity,
				set.reduce((total, at) => total + scores[at]!, 0)
			)
		);
	if (!tried.every(({ set, score }) => !set.length || close(score, predicted(set)))) return null;
	return {
		credits: scores.map((score) => shareOf(score, whole)),
		combination: 'sum',
		bounds: { lower: boundOf(lower, whole), upper: boundOf(upper, whole) },
		exact: scores.every((score) => Math.abs(score) <= whole + 1e-9),
		full: whole
	};
}

/** The credits where one set of options earns something, and all else nothing: all of it has to be chosen. */
function onlyOneSetPays(tried: Tried[], right: number[], whole: number, count: number): FoundCredits | null {
	const [best, ...others] = tried.filter(({ score }) => score > 1e-9);
	if (!best || !right.length || others.length || tried.some(({ score }) => score < -1e-9)) return null;
	const each = round(best.score / whole / right.length);
	return {
		credits: Array.from({ length: count }, (_, at) => (right.includes(at) ? Math.min(1, each) : 0)),
		combination: 'all',
		bounds: { lower: null, upper: null },
		exact: close(best.score, whole),
		full: whole
	};
}

/**
 * Finds the credit of options by trying a marking rule: on each option alone where one may be ticked, on every set of
 * them where several may be. `mark` gives the score of a set of options by their places; `full` is the score that
 * stands for all the points, null where it is the best that can be reached.
 */
export function creditsByTrying(
	count: number,
	several: boolean,
	full: number | null,
	mark: (ticked: number[]) => number,
	expected: number[],
	declared?: DeclaredCredits
): FoundCredits {
	const singles = Array.from({ length: count }, (_, at) => mark([at]));
	const given = full === null || full > 0 ? full : 1;
	let whole = given ?? Math.max(1, ...singles);
	const share = (score: number) => shareOf(score, whole);
	if (!several)
		return {
			credits: singles.map(share),
			combination: 'sum',
			bounds: { lower: null, upper: null },
			exact: true,
			full: whole
		};

	const tried = setsToTry(count, expected).map((set) => ({ set, score: mark(set) }));
	if (given === null) for (const { score } of tried) whole = Math.max(whole, score);
	const declaredly = declared && asDeclared(declared, tried, whole);
	if (declaredly) return declaredly;
	const best = tried.reduce((a, b) => (b.score > a.score + 1e-9 ? b : a));
	const right = best.score > 1e-9 ? best.set : [];
	const one = onlyOneSetPays(tried, right, whole, count);
	if (one) return one;
	// what an option adds is seen where the bounds do not hide it: from the best set, it is taken away or put in
	const from = (at: number) =>
		right.includes(at)
			? best.score - mark(right.filter((other) => other !== at))
			: mark([...right, at].sort((a, b) => a - b)) - best.score;
	const added = singles.map((_, at) => from(at));
	const guesses = [
		singles.map((single, at) => (single !== 0 ? single : added[at]!)),
		// what an option takes off shows in full only where there is something to take it off from
		singles.map((single, at) => (single < 0 || added[at]! < 0 ? added[at]! : single)),
		added
	].map((worths) => ({ worths, ...boundsOf(worths, tried) }));
	const { worths, lower, upper, exact } = guesses.find((guess) => guess.exact) ?? guesses[0]!;
	return {
		credits: worths.map(share),
		combination: 'sum',
		bounds: { lower: boundOf(lower, whole), upper: boundOf(upper, whole) },
		exact,
		full: whole
	};
}

/** The bounds of a sum of what options are worth, by the scores of the sets that were tried; and whether it comes to them. */
function boundsOf(worths: number[], tried: Tried[]): { lower: number | null; upper: number | null; exact: boolean } {
	const sums = tried.map(({ set, score }) => ({ score, sum: set.reduce((total, at) => total + worths[at]!, 0) }));
	const lowest = Math.min(...sums.map(({ score }) => score));
	const highest = Math.max(...sums.map(({ score }) => score));
	const lower = sums.some(({ score, sum }) => !close(score, sum) && close(score, lowest) && sum < score)
		? lowest
		: null;
	const upper = sums.some(({ score, sum }) => !close(score, sum) && close(score, highest) && sum > score)
		? highest
		: null;
	const exact = sums.every(({ score, sum }) =>
		close(score, Math.min(upper ?? Infinity, Math.max(lower ?? -Infinity, sum)))
	);
	return { lower, upper, exact };
}
