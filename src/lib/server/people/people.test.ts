import { createHash } from 'node:crypto';
import { afterAll, describe, expect, it } from 'vitest';
import { courseFor, coursesOf, waitingIn } from '../courses/courses';
import { row, run } from '../db/pool';
import { makeCourse, testPool } from '../test-support/world';
import { Busy, hashOfNobody, hashPassword, passwordIs } from './passwords';
import { personOf, signIn, signOut } from './sessions';
import { countTry } from './tries';
import { wayBack } from './way-back';

const pool = testPool();
afterAll(() => pool.end());
let made = 0;
const password = 'harbour-lights';
/** An e-mail address and a network address that no other test has used. */
function somebody(): { email: string; address: string } {
	made += 1;
	return { email: `tam-${process.pid}-${Date.now()}-${made}@gullhaven.example`, address: `192.0.2.${made}` };
}
async function makePerson(): Promise<{ email: string; address: string }> {
	const person = somebody();
	await run(pool, 'INSERT INTO people (name, email, password_hash) VALUES (?, ?, ?)', [
		'Tam Reach',
		person.email,
		await hashPassword(password)
	]);
	return person;
}
const attempt = (who: { email: string; address: string }, given: string) =>
	signIn(pool, { ...who, password: given }, 1);
/** Makes waits so long that even a machine that is slow with passwords does not outlast them. */
const longWaits = () =>
	run(pool, 'UPDATE sign_in_tries SET wait_until = NOW(3) + INTERVAL 1 HOUR WHERE wait_until IS NOT NULL');
const noWaits = () => run(pool, 'UPDATE sign_in_tries SET wait_until = NULL');

describe('a password', () => {
	it('is known again, and never stored as it is', async () => {
		const stored = await hashPassword(password);
		expect(stored).toMatch(/^scrypt\$131072\$8\$1\$/);
		expect(stored).not.toContain('harbour');
		expect(await passwordIs(password, stored)).toBe(true);
		expect(await passwordIs('harbour-light', stored)).toBe(false);
		expect(await hashPassword(password)).not.toBe(stored);
	});
	it('is no other for another way to write its letters', async () => {
		expect(await passwordIs('M\u00f6we', await hashPassword('Mo\u0308we'))).toBe(true);
	});
	it('is refused where what is stored is no hash', async () => {
		expect(await passwordIs('x', 'plain')).toBe(false);
	});
	it('belongs to nobody where nobody is known', async () => {
		expect(hashOfNobody.split('$')).toHaveLength(6);
		expect(await passwordIs('', hashOfNobody)).toBe(false);
	});
	it('is looked at by few at once, and the rest are asked to come again', async () => {
		const stored = await hashPassword(password);
		const settled = await Promise.allSettled(Array.from({ length: 60 }, () => passwordIs(password, stored)));
		const refused = settled.filter((one) => one.status === 'rejected');
		expect(refused).toHaveLength(18);
		expect(refused.every((one) => one.reason instanceof Busy)).toBe(true);
		expect(settled.filter((one) => one.status === 'fulfilled').every((one) => one.value)).toBe(true);
		expect(await passwordIs(password, stored)).toBe(true);
	});
});

describe('signing in', () => {
	it('gives a token that is good until one signs out', async () => {
		const who = await makePerson();
		const result = await attempt(who, password);
		if (!('token' in result)) throw new Error(result.refused);
		expect(await personOf(pool, result.token)).toMatchObject({ name: 'Tam Reach', email: who.email });
		const kept = await row(pool, 'SELECT token_hash FROM sessions WHERE token_hash = ?', [Buffer.from(result.token)]);
		expect(kept).toBeUndefined();
		await signOut(pool, result.token);
		expect(await personOf(pool, result.token)).toBeNull();
	});
	it('tells nobody whether there is such an address: in words, and in waits', async () => {
		const [known, unknown] = [await makePerson(), somebody()];
		for (let n = 0; n < 7; n += 1) {
			const answers = [await attempt(known, 'wrong'), await attempt(unknown, 'wrong')];
			const [first, second] = answers.map((one) => JSON.stringify(one).replace(/\d+ seconds?/, 'a while'));
			expect(first).toBe(second);
			await (n >= 5 ? noWaits() : longWaits());
		}
	});
	it('takes an address as it is written, but for large letters', async () => {
		const who = await makePerson();
		expect(await attempt({ ...who, email: who.email.toUpperCase() }, password)).toHaveProperty('token');
		for (const other of [who.email.replace('a', 'ä'), `${who.email}\0`, who.email.replace('tam', 'ｔam')])
			expect(await attempt({ ...who, email: other }, password)).toHaveProperty('refused');
	});
	it('slows down after wrong passwords, even for the right one', async () => {
		const who = await makePerson();
		// each further try waits longer, so that the last wait outlives even a machine that is slow with passwords
		for (let n = 0; n < 7; n += 1) {
			await noWaits();
			await attempt(who, 'wrong');
		}
		expect(await attempt(who, password)).toMatchObject({ refused: expect.stringContaining('Too many wrong tries') });
		await noWaits();
		expect(await attempt(who, password)).toHaveProperty('token');
		for (let n = 0; n < 3; n += 1) await attempt(who, 'wrong');
		expect(await attempt(who, password)).toHaveProperty('token');
	});
	it('counts many guesses at once as many, so that few of them are looked at', async () => {
		const who = await makePerson();
		const answers = await Promise.all(
			Array.from({ length: 40 }, (_, at) => attempt(who, at === 30 ? password : `guess ${at}`))
		);
		const looked = answers.filter((one) => !('refused' in one) || !one.refused.startsWith('Too many'));
		expect(looked.length).toBeLessThanOrEqual(4);
	});
	it('waits longer with each further try', async () => {
		const who = somebody();
		const waits: number[] = [];
		for (let n = 0; n < 6; n += 1) {
			await noWaits();
			expect(await countTry(pool, who.email, who.address)).toBe(0);
			const { wait } = (await row<{ wait: number | null }>(
				pool,
				'SELECT MAX(ROUND(TIMESTAMPDIFF(MICROSECOND, last, wait_until) / 1000000)) AS wait FROM sign_in_tries WHERE counted_by = ?',
				[createHash('sha256').update(`both ${who.address} ${who.email}`).digest()]
			))!;
			waits.push(Number(wait ?? 0));
		}
		expect(waits).toEqual([0, 0, 0, 2, 4, 8]);
	});
	it('slows one address down that tries many people, and lets others in beside it', async () => {
		const address = '198.51.100.7';
		for (let n = 0; n < 31; n += 1) expect(await countTry(pool, somebody().email, address)).toBe(0);
		expect(await countTry(pool, somebody().email, address)).toBeGreaterThan(0);
		expect(await attempt(await makePerson(), password)).toHaveProperty('token');
	});
	it('slows down those who try one person from many addresses', async () => {
		const { email } = somebody();
		for (let n = 0; n < 31; n += 1) expect(await countTry(pool, email, `203.0.113.${n}`)).toBe(0);
		expect(await countTry(pool, email, '203.0.113.99')).toBeGreaterThan(0);
	});
});

describe('what a sign-in leads back to', () => {
	const origin = 'https://barrow.gullhaven.example';
	it.each(['/', '/courses/3/loads', '/courses/12/banks?bank=4&words=%C3%A4', '/courses/3/loads/7/receipt'])(
		'is the page of this application that was asked for: %s',
		(to) => expect(wayBack(to, origin)).toBe(to)
	);
	it.each([
		null,
		'',
		'//evil.example',
		'/\t/evil.example',
		'/\\evil.example',
		'/.//evil.example',
		'/courses/..//evil.example',
		'/%09/evil.example',
		'/\u000bx',
		'/–',
		'https://evil.example/courses/3',
		'javascript:alert(1)',
		'/courses/0x1/loads',
		'/signout',
		'/courses/3/loads/../../../..//evil.example',
		`/${'a'.repeat(9000)}`
	])('is the first page where it is anything else: %j', (to) => expect(wayBack(to, origin)).toBe('/'));
});

describe('courses', () => {
	it('are seen by those who belong to them', async () => {
		const mine = await makeCourse(pool);
		const other = await makeCourse(pool);
		expect(await courseFor(pool, mine.personId, mine.courseId)).toMatchObject({
			name: 'Vessel Stability',
			role: 'manage'
		});
		expect(await courseFor(pool, mine.personId, other.courseId)).toBeUndefined();
		expect((await coursesOf(pool, mine.personId)).map((course) => course.id)).toEqual([mine.courseId]);
		expect(await waitingIn(pool, mine.courseId)).toEqual({ loads: 0, banks: 0, snags: 0, quizzes: 0, dispatch: 0 });
	});
});
