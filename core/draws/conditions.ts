import type { keyStates } from '../model/sheet';

/** What a pool asks of its questions beside their categories (draws.md). What is empty, null or false does not restrict. */
export interface PoolConditions {
	tags: { any: readonly string[]; all: readonly string[]; none: readonly string[] };
	kinds: readonly string[];
	/** The least and the most, both included. */
	difficulty: readonly number[] | null;
	/** What somebody has said about the key. */
	key: (typeof keyStates)[number] | null;
	/** Only questions without an open snag that is broken. */
	unbroken: boolean;
	/** Only questions that were made on this day or later, as 2026-11-29. */
	since: string | null;
}

/** What a pool can ask of a question. */
export interface PoolFacts {
	kind: string;
	tags: readonly string[];
	/** A number, or null where the question has none or says it in words. */
	difficulty: number | null;
	isVerified: boolean;
	isDisputed: boolean;
	isBroken: boolean;
	/** The day on which it was made, as 2026-11-29. */
	made: string;
	/** How long it takes to read, in seconds; missing where that is not known. */
	seconds?: number;
}

/** Conditions that restrict nothing. */
export const noConditions: PoolConditions = {
	tags: { any: [], all: [], none: [] },
	kinds: [],
	difficulty: null,
	key: null,
	unbroken: false,
	since: null
};

/** Whether conditions ask for anything at all. */
export function restricts({ tags, kinds, difficulty, key, unbroken, since }: PoolConditions): boolean {
	return (
		tags.any.length + tags.all.length + tags.none.length + kinds.length > 0 ||
		difficulty !== null ||
		key !== null ||
		unbroken ||
		since !== null
	);
}

/** Whether a question fits all conditions. A question without a difficulty is in no range. */
export function fits(conditions: PoolConditions, question: PoolFacts): boolean {
	const { tags, kinds, difficulty, key, unbroken, since } = conditions;
	const has = (tag: string) => question.tags.includes(tag);
	return (
		(!tags.any.length || tags.any.some(has)) &&
		tags.all.every(has) &&
		!tags.none.some(has) &&
		(!kinds.length || kinds.includes(question.kind)) &&
		(!difficulty ||
			(question.difficulty !== null &&
				question.difficulty >= difficulty[0]! &&
				question.difficulty <= difficulty[1]!)) &&
		(key === null || (key === 'verified' ? question.isVerified : !question.isDisputed)) &&
		(!unbroken || !question.isBroken) &&
		(since === null || question.made >= since)
	);
}
