import { error, isHttpError, json } from '@sveltejs/kit';
import { ValidationError } from 'yup';
import { Refused } from './loads/refused';
import { log } from './log';
import type { Running } from './threads/ask';

/** Does work for an endpoint: what is refused is answered in words with 409, and what does not fit with 400. */
export async function refusing<T>(work: () => Promise<T>): Promise<T> {
	try {
		return await work();
	} catch (cause) {
		if (cause instanceof Refused) error(409, cause.message);
		if (cause instanceof ValidationError) error(400, `${cause.message.replace(/\.$/, '')}.`);
		throw cause;
	}
}

/** What comes to nothing in less, is answered at once; of what takes longer, the progress is told each so many milliseconds. */
const patience = 700;
const between = 400;
const lines = 'application/x-ndjson';

/** What is wrong, as an answer that has begun already can still say it. */
async function failureOf(work: () => Promise<unknown>): Promise<string> {
	try {
		await work();
		return '';
	} catch (cause) {
		if (isHttpError(cause)) return cause.body.message;
		log.error(cause, 'a task failed while its progress was told');
		return 'Something went wrong here, and was written to the server log. Nothing was changed.';
	}
}

/**
 * Answers with what a task gives. Where it takes longer and the browser asks for lines, each line of the answer tells how
 * far it is, and the last one what came of it: `{ value }` or `{ failure }`. Whoever goes away or stops listening has it
 * stopped and taken back.
 */
export async function following(request: Request, running: Running<unknown>): Promise<Response> {
	const isPatient = !request.headers.get('accept')?.includes(lines);
	const quick = isPatient
		? true
		: await Promise.race([
				running.result.then(
					() => true,
					() => true
				),
				new Promise<false>((resolve) => setTimeout(() => resolve(false), patience))
			]);
	if (quick) return json(await refusing(() => running.result));
	return new Response(linesOf(running), { headers: { 'content-type': lines, 'cache-control': 'no-store' } });
}

function linesOf(running: Running<unknown>): ReadableStream<Uint8Array> {
	const encoder = new TextEncoder();
	let end: () => void;
	return new ReadableStream<Uint8Array>({
		start(controller) {
			let isOpen = true;
			const line = (words: unknown) => isOpen && controller.enqueue(encoder.encode(`${JSON.stringify(words)}\n`));
			const timer = setInterval(() => line(running.progress()), between);
			end = () => {
				isOpen = false;
				clearInterval(timer);
			};
			const last = (words: unknown) => {
				line(words);
				if (isOpen) controller.close();
				end();
			};
			line(running.progress());
			void running.result.then(
				(value) => last({ value }),
				async () => last({ failure: await failureOf(() => refusing(() => running.result)) })
			);
		},
		cancel() {
			end();
			running.stop();
		}
	});
}
