import { tell } from './toasts';
import { UnderWay } from './under-way.svelte';

/** What an endpoint did: words, and the deed by which it is taken back. */
interface Done {
	deedId: number;
	words: string;
}

/** What came of asking an endpoint for something: what it gave, or words for people. */
export type Sent<T> = { ok: true; value: T } | { ok: false; message: string; value: unknown };

const lines = 'application/x-ndjson';

/** What is told of work that takes longer: how far it is, and at last what came of it. */
type Line<T> = { done: number; total: number } | { value: T } | { failure: string };

/** Follows work that takes longer, line by line; it can be seen and stopped at the foot of the window meanwhile. */
async function follow<T>(answer: Response, stop: () => void): Promise<Sent<T>> {
	const shown = UnderWay.begin(stop);
	const reader = answer.body!.pipeThrough(new TextDecoderStream()).getReader();
	let held = '';
	try {
		for (;;) {
			const { value: text, done: over } = await reader.read();
			held += text ?? '';
			const whole = held.split('\n');
			held = whole.pop() ?? '';
			for (const words of whole) {
				const line = JSON.parse(words) as Line<T>;
				if ('value' in line) return { ok: true, value: line.value };
				if ('failure' in line) return { ok: false, message: line.failure, value: null };
				shown.is(line);
			}
			if (over)
				return { ok: false, message: 'The server broke off. See in the ledger whether it was done.', value: null };
		}
	} finally {
		shown.end();
	}
}

/** Sends something to an endpoint as JSON. What takes longer shows how far it is, and can be stopped, also by `control`. */
export async function send<T>(
	address: string,
	body: unknown,
	method = 'POST',
	control = new AbortController()
): Promise<Sent<T>> {
	try {
		const answer = await fetch(address, {
			method,
			headers: { 'Content-Type': 'application/json', Accept: `application/json, ${lines}` },
			body: JSON.stringify(body),
			signal: control.signal
		});
		if (answer.headers.get('content-type') === lines) return await follow<T>(answer, () => control.abort());
		const value = (await answer.json()) as T & { message?: string };
		return answer.ok ? { ok: true, value } : { ok: false, message: value.message ?? 'That was refused.', value };
	} catch {
		const message = control.signal.aborted
			? 'It was stopped. Nothing was changed.'
			: 'The server did not answer. Nothing was changed; try again.';
		return { ok: false, message, value: null };
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
