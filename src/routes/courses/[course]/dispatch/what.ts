import type { Consignment, ConsignmentColumns } from '$lib/server/dispatches/consignment';

/** The names by which an address says what is sent. */
export const sorts = ['bank', 'quiz', 'selection', 'forms'] as const;

/** What is sent, as an address says it: of which sort, and its key. */
export interface Sent {
	sort: (typeof sorts)[number];
	id: number;
}

/** What an address asks to send; null where it says nothing of it. */
export function sentIn(asked: URLSearchParams): Sent | null {
	for (const sort of sorts) {
		const id = Number(asked.get(sort));
		if (id) return { sort, id };
	}
	return null;
}

/** What is sent, as an address says it. */
export function sentOf(what: Consignment | null): Sent | null {
	if (!what) return null;
	if ('bankId' in what) return { sort: 'bank', id: what.bankId };
	if ('quizId' in what) return { sort: 'quiz', id: what.quizId };
	return 'formsId' in what ? { sort: 'forms', id: what.formsId } : { sort: 'selection', id: what.selectionId };
}

/** What a dispatch has sent; null where that is gone. */
export function sentBy({ bank_id, quiz_id, selection_id, forms_id }: ConsignmentColumns): Sent | null {
	if (bank_id) return { sort: 'bank', id: bank_id };
	if (quiz_id) return { sort: 'quiz', id: quiz_id };
	if (selection_id) return { sort: 'selection', id: selection_id };
	return forms_id ? { sort: 'forms', id: forms_id } : null;
}

/** Whether both are one thing. */
export const isSame = (a: Sent | null, b: Sent | null): boolean => a !== null && a.sort === b?.sort && a.id === b.id;

/** The part of an address that says what is sent. */
export const asked = (sent: Sent | null): string => (sent ? `${sent.sort}=${sent.id}` : '');
