import { describe, expect, it } from 'vitest';
import { following } from './answers';
import { Refused } from './loads/refused';

const asking = (accept: string) => new Request('http://localhost/', { headers: { accept } });
const lines = 'application/json, application/x-ndjson';

/** A task that ends when it is told to. */
function task() {
	let end: { resolve: (value: unknown) => void; reject: (cause: Error) => void };
	const result = new Promise<unknown>((resolve, reject) => (end = { resolve, reject }));
	const stopped = { times: 0 };
	return {
		running: { result, progress: () => ({ done: 3, total: 9 }), stop: () => (stopped.times += 1) },
		resolve: (value: unknown) => end.resolve(value),
		reject: (cause: Error) => end.reject(cause),
		stopped
	};
}
const told = async (answer: Response) =>
	(await answer.text())
		.trim()
		.split('\n')
		.map((line) => JSON.parse(line) as unknown);

describe('an answer to what may take long', () => {
	it('is plain where it is there at once, and refuses with a status', async () => {
		const quick = task();
		quick.resolve({ words: 'done' });
		expect(await (await following(asking(lines), quick.running)).json()).toEqual({ words: 'done' });
		const refused = task();
		refused.reject(new Refused('There is nothing.'));
		await expect(following(asking(lines), refused.running)).rejects.toMatchObject({ status: 409 });
	});
	it('tells how far it is line by line, and at last what came of it', async () => {
		const slow = task();
		const answer = await following(asking(lines), slow.running);
		expect(answer.headers.get('content-type')).toBe('application/x-ndjson');
		slow.resolve({ words: 'done' });
		const all = await told(answer);
		expect(all[0]).toEqual({ done: 3, total: 9 });
		expect(all.at(-1)).toEqual({ value: { words: 'done' } });
	});
	it('says at last why nothing came of it, and nothing of the insides', async () => {
		const refused = task();
		const first = await following(asking(lines), refused.running);
		refused.reject(new Refused('It was stopped. Nothing was changed.'));
		expect((await told(first)).at(-1)).toEqual({ failure: 'It was stopped. Nothing was changed.' });
		const broken = task();
		const second = await following(asking(lines), broken.running);
		broken.reject(new Error('secret'));
		expect(JSON.stringify((await told(second)).at(-1))).not.toContain('secret');
	});
	it('stops the task of whoever goes away', async () => {
		const slow = task();
		const answer = await following(asking(lines), slow.running);
		await answer.body!.cancel();
		expect(slow.stopped.times).toBe(1);
		slow.reject(new Refused('It was stopped.'));
	});
});
