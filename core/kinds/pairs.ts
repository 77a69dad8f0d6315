import type { Bounds, Combination, Pair } from '../model/pieces';
import type { Marked, Response } from './kind';
import { bounded, scaledCredit } from './answers';

/** What is asked for where things are put together, in whichever kind of question. */
export interface Paired {
	pairs: Pair[];
	combination: Combination;
	bounds: Bounds;
}

const keyOf = (left: string, right: string) => `${left}\n${right}`;

/** Marks pairs: each for itself, or all of them and nothing else. */
export function markPairs(question: Paired, response: Response): Marked {
	const made = new Set((response.pairs ?? []).map(([left, right]) => keyOf(left, right)));
	const right = question.pairs.filter((pair) => pair.credit > 0);
	const hit = right.filter((pair) => made.has(keyOf(pair.left, pair.right))).length;
	const reason = made.size ? `${hit} of ${right.length} pairs right, ${made.size - hit} wrong.` : 'Nothing is paired.';
	if (!made.size) return { credit: 0, reason };
	if (question.combination === 'all')
		return { credit: hit === right.length && made.size === hit && hit ? 1 : 0, reason };
	const sum = question.pairs
		.filter((pair) => made.has(keyOf(pair.left, pair.right)))
		.reduce((total, pair) => total + pair.credit, 0);
	return { credit: bounded(Math.abs(sum - 1) < 2e-6 ? 1 : sum, question.bounds), reason };
}

/** The pairs that earn something. */
export function rightPairs({ pairs }: Paired): Response {
	return { pairs: pairs.filter((pair) => pair.credit > 0).map((pair): [string, string] => [pair.left, pair.right]) };
}

/** A pair that earns nothing, or null where every pair earns something. */
export function wrongPair(
	{ pairs }: Paired,
	lefts: { identifier: string }[],
	rights: { identifier: string }[]
): Response | null {
	const earning = new Set(pairs.filter((pair) => pair.credit > 0).map((pair) => keyOf(pair.left, pair.right)));
	for (const left of lefts)
		for (const right of rights)
			if (!earning.has(keyOf(left.identifier, right.identifier)))
				return { pairs: [[left.identifier, right.identifier]] };
	return null;
}

/** Why no pair earns points, for people; null where one does. */
export function pairless({ pairs }: Paired): string | null {
	return pairs.some((pair) => pair.credit > 0) ? null : 'No pair is marked as right. Say what belongs together.';
}

/** Pairs in the one form in which they are compared: by the places of what they put together. */
export function settledPairs(
	{ pairs, combination, bounds }: Paired,
	left: { identifier: string }[],
	right: { identifier: string }[]
): Record<string, unknown> {
	const place = (list: { identifier: string }[], identifier: string) =>
		list.findIndex((side) => side.identifier === identifier);
	const known = pairs
		.filter((pair) => pair.credit !== 0)
		.map((pair) => [place(left, pair.left), place(right, pair.right), combination === 'all' ? 1 : pair.credit])
		.sort((a, b) => a[0]! - b[0]! || a[1]! - b[1]!);
	// of a single pair, all of them is that one
	if (known.length === 1 && known[0]![2] === 1) return { pairs: known, combination: 'sum', bounds: null };
	return { pairs: known, combination, bounds: combination === 'all' ? null : bounds };
}

/** The same question with the credit of its pairs multiplied. */
export const scaledPairs = <Of extends Paired>(question: Of, by: number): Of => ({
	...question,
	pairs: question.pairs.map((pair) => scaledCredit(pair, by)),
	bounds: { ...question.bounds, upper: null }
});
