import { tell } from './toasts';

/** What an endpoint did: words, and the deed by which it is taken back. */
interface Done {
	deedId: number;
	words: string;
}

/** What came of asking an endpoint for something: what it gave, or words for people. */
export type Sent<T> = { ok: true; value: T } | { ok: false; message: string; value: unknown };

/** Sends something to an endpoint as JSON. */
export async function send<T>(address: string, body: unknown, method = 'POST'): Promise<Sent<T>> {
	try {
		const answer = await fetch(address, {
			method,
			headers: { 'Content-Type': 'application/json', Accept: 'application/json' },
			body: JSON.stringify(body)
		});
		const value = (await answer.json()) as T & { message?: string };
		return answer.ok ? { ok: true, value } : { ok: false, message: value.message ?? 'That was refused.', value };
	} catch {
		return { ok: false, message: 'The server did not answer. Nothing was changed; try again.', value: null };
	}
}

/** Takes a deed of a course back, and tells so; what was changed since stays as it is. `then` shows the page anew. */
export async function undo(courseId: number, deedId: number, then: () => Promise<unknown>): Promise<void> {
	const sent = await send<Done>(`/courses/${courseId}/ledger/undo`, { deed: deedId, all: false });
	await then();
	if (sent.ok) tell(sent.value.words, { name: 'Do it again', act: () => void undo(courseId, sent.value.deedId, then) });
	else tell(sent.message);
}

/** Tells what was done, with the way back. */
export function tellDone(courseId: number, { deedId, words }: Done, then: () => Promise<unknown>): void {
	tell(words, { name: 'Undo', act: () => void undo(courseId, deedId, then) });
}
