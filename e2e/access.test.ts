import { beforeAll, describe, expect, it } from 'vitest';
import { demoLookIn, demoSignIn } from '../demo/fill';

const address = process.env.APPLICATION!;

/** Signs in as a form does, and gives the cookie. */
async function cookieOf({ email, password }: { email: string; password: string }): Promise<string> {
	const answer = await fetch(`${address}/signin`, {
		method: 'POST',
		redirect: 'manual',
		body: new URLSearchParams({ email, password }),
		headers: { origin: address }
	});
	return answer.headers.get('set-cookie')!.split(';')[0]!;
}
let change = '';
let look = '';
let course = 0;
beforeAll(async () => {
	[change, look] = (await Promise.all([cookieOf(demoSignIn), cookieOf(demoLookIn)])) as [string, string];
	const home = await (await fetch(address, { headers: { cookie: look } })).text();
	course = Number(/\/courses\/(\d+)/.exec(home)![1]);
});
const ask = (method: string, path: string, cookie: string, body?: unknown, headers: Record<string, string> = {}) =>
	fetch(`${address}/courses/${path}`, {
		method,
		redirect: 'manual',
		headers: {
			Accept: method === 'GET' ? 'text/html' : 'application/json',
			...(cookie ? { cookie } : {}),
			...(method === 'GET' ? {} : { origin: address }),
			...(body === undefined
				? {}
				: { 'Content-Type': typeof body === 'string' ? 'application/octet-stream' : 'application/json' }),
			...headers
		},
		...(body === undefined ? {} : { body: typeof body === 'string' ? body : JSON.stringify(body) })
	});
/** What changes something: the method, the path below a course, and what is sent. */
const changes: [string, string, unknown][] = [
	['POST', 'loads/upload', { name: 'a.zip', size: 10, mark: '' }],
	['PUT', 'loads/upload?id=1&offset=0', 'x'],
	['DELETE', 'loads/upload?id=1', undefined],
	['POST', 'loads/1/review', { do: 'choose', ids: [1], choice: 'leave' }],
	['PUT', 'loads/1/questions/1?name=a.png&file=a.png', 'x'],
	['POST', 'loads/1/recipe/preview', {}],
	['PUT', 'quizzes/1', {}]
];
const looks = [
	'loads',
	'loads/status',
	'loads/aside',
	'loads/1',
	'loads/1/receipt',
	'loads/1/receipt/file?as=csv',
	'loads/1/review?since=0',
	'loads/1/questions/1',
	'banks',
	'banks/questions/1',
	'snags',
	'quizzes',
	'quizzes/1',
	'dispatch',
	'dispatch/status',
	'ledger',
	`files/${'0'.repeat(64)}`
];

describe('somebody who is not signed in', () => {
	it.each(changes)('cannot %s %s', async (method, path, body) => {
		expect((await ask(method, `${course}/${path}`, '', body)).status).toBe(401);
	});
	it.each(looks)('is led to the sign-in by %s', async (path) => {
		const answer = await ask('GET', `${course}/${path}`, '');
		expect([303, 401]).toContain(answer.status);
		if (answer.status === 303) expect(answer.headers.get('location')).toMatch(/^\/signin/);
	});
	it('cannot make up a session', async () => {
		expect((await ask('GET', `${course}/loads`, 'barrow_session=made-up')).status).toBe(303);
	});
});

describe('somebody who may only look', () => {
	it.each(changes)('cannot %s %s, and is told whom to ask', async (method, path, body) => {
		const answer = await ask(method, `${course}/${path}`, look, body);
		expect(answer.status).toBe(403);
		expect(await answer.text()).toContain('Ask whoever looks after it');
	});
});

describe('a course of others', () => {
	it.each(looks)('does not show %s', async (path) => {
		const answer = await ask('GET', `999999/${path}`, change);
		expect(answer.status).toBe(404);
	});
	it.each(changes)('does not take %s %s', async (method, path, body) => {
		expect((await ask(method, `999999/${path}`, change, body)).status).toBe(404);
	});
	it.each(['0', '-1', '1.5', 'x', '1e3', '99999999999999999999'])('has no address like %s', async (id) => {
		expect((await ask('GET', `${id}/loads`, change)).status).toBe(404);
	});
});

describe('another site', () => {
	it.each(changes)('cannot have a browser %s %s', async (method, path, body) => {
		const answer = await ask(method, `${course}/${path}`, change, body, { origin: 'https://elsewhere.example' });
		expect(answer.status).toBe(403);
	});
});

describe('what is not as it should be', () => {
	it.each([
		['an upload without a name', 'POST', 'loads/upload', { size: 3 }],
		['an upload of nothing', 'POST', 'loads/upload', { name: 'a.zip', size: 0 }],
		['an upload of less than nothing', 'POST', 'loads/upload', { name: 'a.zip', size: -5 }],
		['a piece for no place', 'PUT', 'loads/upload?id=1&offset=-1', 'x'],
		['a piece for no upload', 'PUT', 'loads/upload?id=x&offset=0', 'x']
	])('is refused in words: %s', async (_, method, path, body) => {
		const answer = await ask(method, `${course}/${path}`, change, body);
		expect(answer.status).toBe(400);
		expect(((await answer.json()) as { message: string }).message.length).toBeGreaterThan(5);
	});
	it.each([
		['more than may be uploaded', 'POST', 'loads/upload', { name: 'a.zip', size: 2 ** 50 }, 413],
		['a piece of an upload that is over', 'PUT', 'loads/upload?id=999999&offset=0', 'x', 409]
	])('is refused in words: %s', async (_, method, path, body, status) => {
		const answer = await ask(method, `${course}/${path}`, change, body);
		expect(answer.status).toBe(status);
		expect(((await answer.json()) as { message: string }).message).toMatch(/[.]$/);
	});
});
