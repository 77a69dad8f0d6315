import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { demoLookIn, demoSignIn } from '../demo/fill';
import { makePool, row, run } from '../src/lib/server/db/pool';
import { hashPassword } from '../src/lib/server/people/passwords';
import { ask, endpoints, offered, outside, type Endpoint } from './endpoints';

const address = process.env.APPLICATION!;
const pool = makePool(process.env.DATABASE_URL!, 2);
const elsewhere = { email: 'elsewhere@gullhaven.example', password: 'another-quay' };
const worker = { email: 'worker@gullhaven.example', password: 'another-quay' };
const nobody = { email: 'no-course@gullhaven.example', password: 'another-quay' };

/** Signs in as a form does, and gives the cookie. */
async function cookieOf({ email, password }: { email: string; password: string }, cookie = ''): Promise<string> {
	const answer = await fetch(`${address}/signin`, {
		method: 'POST',
		redirect: 'manual',
		body: new URLSearchParams({ email, password }),
		headers: { origin: address, ...(cookie ? { cookie } : {}) }
	});
	return answer.headers.get('set-cookie')!.split(';')[0]!;
}

const cookies = { manage: '', work: '', look: '', elsewhere: '', nobody: '' };
let course = 0;
let otherCourse = 0;
beforeAll(async () => {
	const hash = await hashPassword(elsewhere.password);
	const made = await run(pool, "INSERT INTO courses (code, name) VALUES ('EW-1', 'Elsewhere')");
	otherCourse = made.id;
	for (const { email } of [elsewhere, nobody, worker]) {
		const { id } = await run(pool, 'INSERT INTO people (name, email, password_hash) VALUES (?, ?, ?)', [
			email,
			email,
			hash
		]);
		if (email === elsewhere.email)
			await run(pool, "INSERT INTO memberships (person_id, course_id, role) VALUES (?, ?, 'manage')", [
				id,
				otherCourse
			]);
	}
	cookies.manage = await cookieOf(demoSignIn);
	cookies.look = await cookieOf(demoLookIn);
	cookies.elsewhere = await cookieOf(elsewhere);
	cookies.nobody = await cookieOf(nobody);
	const home = await (await fetch(address, { headers: { cookie: cookies.look } })).text();
	course = Number(/\/courses\/(\d+)/.exec(home)![1]);
	await run(
		pool,
		"INSERT INTO memberships (person_id, course_id, role) SELECT id, ?, 'work' FROM people WHERE email = ?",
		[course, worker.email]
	);
	cookies.work = await cookieOf(worker);
});
afterAll(async () => {
	await run(pool, 'DELETE FROM people WHERE email IN (?)', [[elsewhere.email, nobody.email, worker.email]]);
	await run(pool, 'DELETE FROM courses WHERE id = ?', [otherCourse]);
	await pool.end();
});

const named = endpoints.map((endpoint) => [`${endpoint.route || 'the course'} ${endpoint.what}`, endpoint] as const);
const changing = named.filter(([, endpoint]) => endpoint.needs);
const ofManagers = named.filter(([, endpoint]) => endpoint.needs === 'manage');

describe('the table of what can be asked for', () => {
	it('has everything that the routes offer, so that nothing new is left untried', () => {
		// one may be asked in several ways
		const asked = new Set(endpoints.map(({ route, what }) => `${route} ${what}`));
		expect([...asked].sort()).toEqual(offered('courses/[course]').sort());
		const others = offered('').filter((place) => !place.startsWith('courses/'));
		expect(outside.map(({ route, what }) => `${route} ${what}`).sort()).toEqual(others.sort());
	});
});

describe('somebody who is not signed in', () => {
	it.each(named)('gets nothing of: %s', async (_, endpoint) => {
		for (const cookie of ['', 'barrow_session=made-up']) {
			const answer = await ask(address, course, endpoint, { cookie });
			expect([303, 401]).toContain(answer.status);
			if (answer.status === 303) expect(answer.headers.get('location')).toMatch(/^\/signin/);
			expect(await answer.text()).not.toContain('Tides');
		}
	});
});

describe('somebody of another course, and somebody of none', () => {
	it.each(named)('gets nothing of: %s', async (_, endpoint) => {
		for (const cookie of [cookies.elsewhere, cookies.nobody]) {
			const answer = await ask(address, course, endpoint, { cookie });
			expect(answer.status).toBe(404);
			expect(await answer.text()).not.toContain('Tides');
		}
	});
	it.each(named.filter(([, { path }]) => /\b1\b/.test(path) || /\b1\b/.test(path)))(
		'gets nothing of the first course by way of its own: %s',
		async (_, endpoint) => {
			const answer = await ask(address, otherCourse, endpoint, { cookie: cookies.elsewhere });
			// what is not there is thrown away without a word
			if (endpoint.what !== 'DELETE') expect(answer.status).toBeGreaterThanOrEqual(300);
			expect(answer.status).toBeLessThan(500);
		}
	);
	it('stops no dispatch of another course', async () => {
		const { id: person } = (await row<{ id: number }>(pool, 'SELECT id FROM people LIMIT 1'))!;
		const { id } = await run(
			pool,
			"INSERT INTO dispatches (course_id, person_id, title, format, file_name, state) VALUES (?, ?, 'x', 'csv', 'x.csv', 'done')",
			[course, person]
		);
		const job = await run(
			pool,
			"INSERT INTO jobs (kind, subject_id, state, owner, lease_until) VALUES ('dispatch', ?, 'running', 'test', DATE_ADD(NOW(3), INTERVAL 1 HOUR))",
			[id]
		);
		const stop = endpoints.find(({ route, what }) => route === 'dispatch' && what === 'stop')!;
		const asked = async () =>
			(await row<{ stop_asked: number }>(pool, 'SELECT stop_asked FROM jobs WHERE id = ?', [job.id]))!.stop_asked;
		const sent = { dispatch: String(id) };
		expect((await ask(address, otherCourse, stop, { cookie: cookies.elsewhere }, { sent })).status).toBe(409);
		expect(await asked()).toBe(0);
		await ask(address, course, stop, { cookie: cookies.manage }, { sent });
		expect(await asked()).toBe(1);
		await run(pool, 'DELETE FROM jobs WHERE id = ?', [job.id]);
		await run(pool, 'DELETE FROM dispatches WHERE id = ?', [id]);
	});
});

describe('somebody who may only look', () => {
	it.each(changing)('cannot change by: %s, and is told whom to ask', async (_, endpoint) => {
		const answer = await ask(address, course, endpoint, { cookie: cookies.look });
		expect(answer.status).toBe(403);
		expect(await answer.text()).toMatch(/Ask (whoever looks after it|one of them)/);
	});
});

describe('somebody who may work', () => {
	it.each(ofManagers)('cannot manage by: %s', async (_, endpoint) => {
		const answer = await ask(address, course, endpoint, { cookie: cookies.work });
		expect(answer.status).toBe(403);
		expect(await answer.text()).toContain('Only somebody who manages');
	});
});

describe('what is outside of all courses', () => {
	const places = outside.map((place) => [`${place.route || 'the first page'} ${place.what}`, place] as const);
	it.each(places.filter(([, place]) => place.for !== 'anybody'))('is not for strangers: %s', async (_, place) => {
		const answer = await ask(address, null, place, {});
		expect([303, 401]).toContain(answer.status);
	});
	it.each(places.filter(([, place]) => place.for === 'keeper'))(
		'is for those alone who look after the installation: %s',
		async (_, place) => {
			for (const cookie of [cookies.look, cookies.work, cookies.elsewhere])
				expect((await ask(address, null, place, { cookie })).status).toBe(403);
		}
	);
	it.each(places)('ends in words and in no fault of the server: %s', async (_, place) => {
		for (const sent of place.sent ? [place.sent, ...harmfulFields] : [undefined])
			for (const cookie of ['', cookies.nobody]) {
				if (place.route === 'signout') continue;
				const answer = await ask(
					address,
					null,
					place,
					{ cookie },
					sent === undefined ? {} : { sent: sent as Endpoint['sent'] }
				);
				expect(answer.status, `${String(JSON.stringify(sent)).slice(0, 100)} gave ${answer.status}`).toBeLessThan(500);
			}
	});
});

describe('a course that is not there', () => {
	it.each(named)('has nothing of: %s', async (_, endpoint) => {
		if (endpoint.route === '') return;
		expect((await ask(address, 999_999, endpoint, { cookie: cookies.manage })).status).toBe(404);
	});
	it.each(['0', '-1', '1.5', 'x', '1e3', '0x1', '1e0', '01', '%201', '１', '99999999999999999999'])(
		'has no address like %s',
		async (id) => {
			const loads = endpoints.find(({ route }) => route === 'loads')!;
			expect((await ask(address, id, loads, { cookie: cookies.manage })).status).toBe(404);
		}
	);
});

describe('another site', () => {
	it.each(changing.filter(([, { what }]) => what !== 'load'))('cannot have a browser do: %s', async (_, endpoint) => {
		const answer = await ask(address, course, endpoint, {
			cookie: cookies.manage,
			origin: 'https://elsewhere.example'
		});
		expect(answer.status).toBe(403);
	});
});

describe('signing in', () => {
	it('ends the session that the browser had', async () => {
		const first = await cookieOf(demoLookIn);
		const second = await cookieOf(demoLookIn, first);
		const loads = endpoints.find(({ route, what }) => route === 'loads' && what === 'load')!;
		expect((await ask(address, course, loads, { cookie: first })).status).toBe(303);
		expect((await ask(address, course, loads, { cookie: second })).status).toBe(200);
	});
	it('leads nowhere but to this application', async () => {
		const to = async (where: string) =>
			(
				await fetch(`${address}/signin?to=${where}`, {
					method: 'POST',
					redirect: 'manual',
					body: new URLSearchParams(demoLookIn),
					headers: { origin: address, Accept: 'text/html' }
				})
			).headers.get('location');
		for (const where of ['/%09/evil.example', '/%0b', '/%E2%80%93', '//evil.example', '/.//evil.example'])
			expect(await to(where)).toBe('/');
		expect(await to(`/courses/${course}/banks?bank=1`)).toBe(`/courses/${course}/banks?bank=1`);
	});
	it('takes no more than a form from a stranger', async () => {
		const answer = await fetch(`${address}/signin`, {
			method: 'POST',
			body: new URLSearchParams({ email: 'a@b', password: 'x'.repeat(100_000) }),
			headers: { origin: address }
		});
		expect(answer.status).toBe(413);
	});
});

/** What somebody might send to do harm, in place of what is expected. */
const harmful: Endpoint['sent'][] = [
	'',
	'null',
	'[]',
	'"x"',
	'{',
	`${'['.repeat(20_000)}${']'.repeat(20_000)}`,
	JSON.stringify({ do: 'constructor' }),
	'{"__proto__":{"do":"choose"},"constructor":{"prototype":{}}}',
	'{"name":{"a":1},"size":{"toString":1},"title":{"toString":null},"do":["choose"],"ids":{"length":1e9}}',
	'{"do":"choose","ids":[1e400,"0x1",-1,1.5,null],"choice":{}}',
	'{"do":"decision","decision":{"landings":{"__proto__":{"a":1},"constructor":7}}}',
	'{"do":"edit","id":1,"version":1,"question":{"kind":"constructor","stem":{"toString":1}}}',
	'{"do":"mend","rule":"hasOwnProperty"}',
	'{"do":"rules","name":"x","rules":{"tags":[{"a":1}]}}'
];
const harmfulFields = [
	{},
	{
		load: '1e400',
		dispatch: '0x1',
		question: '-1',
		bank: '1.5',
		quiz: 'NaN',
		format: 'constructor',
		check: '__proto__'
	},
	{ decision: '{', questions: '{"a":', recipe: '[[[', title: '' },
	{ decision: '"x"', questions: '[{"id":"x"}]', recipe: '{"kind":"constructor"}', told: '9'.repeat(400), what: 'take' },
	{ decision: '['.repeat(20_000), questions: '['.repeat(20_000), recipe: '['.repeat(20_000), what: 'take' }
];
const harmfulQueries = [
	'bank=1e400&category=1e400&quiz=0x1&worked=1e9&against=-1&id=NaN&offset=1e400&question=1e400',
	'bank=constructor&category=__proto__&kind=constructor&as=constructor&check=constructor&outcome=constructor',
	'words=%00%27%22%3B--&kind=%F0%9F%92%A3&since=%FF&name=../../x&file=%00',
	`words=${'%2B%2D%2A'.repeat(200)}&check=${'x'.repeat(5000)}`
];

describe('what is not as it should be', () => {
	it.each(named)('ends in words and in no fault of the server: %s', async (_, endpoint) => {
		const asker = { cookie: cookies.manage };
		const tried: Partial<Endpoint>[] = harmfulQueries.map((query) => ({
			path: `${endpoint.path.split('?')[0]}?${query}`
		}));
		if (endpoint.what === 'POST' || endpoint.what === 'PUT') tried.push(...harmful.map((sent) => ({ sent: sent! })));
		else if (endpoint.sent) tried.push(...harmfulFields.map((sent) => ({ sent: sent as Record<string, string> })));
		for (const changed of tried) {
			const answer = await ask(address, course, endpoint, asker, changed);
			const said = `${JSON.stringify(changed).slice(0, 200)} gave ${answer.status}`;
			expect(answer.status, said).toBeLessThan(500);
			await answer.text();
		}
	});
	it.each(['constructor', '__proto__', 'toString', 'hasOwnProperty', 'nothing'])(
		'is no action of a page: ?/%s',
		async (action) => {
			for (const route of ['loads', 'dispatch', 'quizzes', 'snags']) {
				const endpoint = { route, what: action, path: route, sent: { load: '1' } };
				expect((await ask(address, course, endpoint, { cookie: cookies.manage })).status).toBe(404);
			}
		}
	);
	it.each([
		['an upload without a name', 'POST', 'loads/upload', { size: 3 }, 400],
		['an upload of nothing', 'POST', 'loads/upload', { name: 'a.zip', size: 0 }, 400],
		['an upload of less than nothing', 'POST', 'loads/upload', { name: 'a.zip', size: -5 }, 400],
		['a piece for no place', 'PUT', 'loads/upload?id=1&offset=-1', 'x', 400],
		['a piece for no upload', 'PUT', 'loads/upload?id=x&offset=0', 'x', 400],
		['more than may be uploaded', 'POST', 'loads/upload', { name: 'a.zip', size: 2 ** 50 }, 413],
		['a piece of an upload that is over', 'PUT', 'loads/upload?id=999999&offset=0', 'x', 409],
		['a piece that is too large', 'PUT', 'loads/upload?id=1&offset=0', 'x'.repeat(17 * 2 ** 20), 413]
	])('is refused in words: %s', async (_, what, path, sent, status) => {
		const answer = await ask(address, course, { what, path, sent }, { cookie: cookies.manage });
		expect(answer.status).toBe(status);
		expect(((await answer.json()) as { message: string }).message).toMatch(/[.]$/);
	});
});
