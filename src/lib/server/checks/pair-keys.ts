import { createHash } from 'node:crypto';
import type { PairCheck } from '$core/checks/check';
import { withinKey } from '$core/checks/many';

/** Where a question stands, by keys. */
export interface StoredStanding {
	id: number;
	bankId: number;
	categoryId: number | null;
}

/** The keys of a question for a check over pairs, as rows of `check_keys`. */
export function keyRows(courseId: number, check: PairCheck, standing: StoredStanding, note: unknown): unknown[][] {
	const { id, bankId, categoryId } = standing;
	const within = withinKey(check, {
		bank: String(bankId),
		category: categoryId === null ? [] : [String(categoryId)]
	});
	return [...new Set(check.keys(note))].map((key) => [
		courseId,
		check.id,
		createHash('sha256').update(`${within}\n${key}`).digest().subarray(0, 8),
		id
	]);
}
