import { afterAll, describe, expect, it } from 'vitest';
import { courseFor, coursesOf, waitingIn } from '../courses/courses';
import { row, run } from '../db/pool';
import { makeCourse, testPool } from '../test-support/world';
import { hashPassword, passwordIs } from './passwords';
import { personOf, signIn, signOut } from './sessions';

const pool = testPool();
afterAll(() => pool.end());
let made = 0;
async function makePerson(password: string): Promise<string> {
	made += 1;
	const email = `tam-${process.pid}-${Date.now()}-${made}@gullhaven.example`;
	await run(pool, 'INSERT INTO people (name, email, password_hash) VALUES (?, ?, ?)', [
		'Tam Reach',
		email,
		await hashPassword(password)
	]);
	return email;
}

describe('a password', () => {
	it('is known again, and never stored as it is', async () => {
		const stored = await hashPassword('harbour-lights');
		expect(stored).toMatch(/^scrypt\$131072\$8\$1\$/);
		expect(stored).not.toContain('harbour');
		expect(await passwordIs('harbour-lights', stored)).toBe(true);
		expect(await passwordIs('harbour-light', stored)).toBe(false);
		expect(await hashPassword('harbour-lights')).not.toBe(stored);
	});
	it('is no other for another way to write its letters', async () => {
		expect(await passwordIs('M\u00f6we', await hashPassword('Mo\u0308we'))).toBe(true);
	});
	it('is refused where what is stored is no hash', async () => {
		expect(await passwordIs('x', 'plain')).toBe(false);
	});
});

describe('signing in', () => {
	it('gives a token that is good until one signs out', async () => {
		const email = await makePerson('harbour-lights');
		const result = await signIn(pool, email, 'harbour-lights', 1);
		if (!('token' in result)) throw new Error(result.refused);
		expect(await personOf(pool, result.token)).toMatchObject({ name: 'Tam Reach', email });
		const kept = await row(pool, 'SELECT token_hash FROM sessions WHERE token_hash = ?', [Buffer.from(result.token)]);
		expect(kept).toBeUndefined();
		await signOut(pool, result.token);
		expect(await personOf(pool, result.token)).toBeNull();
	});
	it('answers a wrong password and an unknown address alike', async () => {
		const email = await makePerson('harbour-lights');
		expect(await signIn(pool, email, 'wrong', 1)).toEqual(await signIn(pool, 'nobody@gullhaven.example', 'wrong', 1));
	});
	it('slows down after wrong passwords, even for the right one', async () => {
		const email = await makePerson('harbour-lights');
		for (let n = 0; n < 4; n += 1) await signIn(pool, email, 'wrong', 1);
		await run(pool, 'UPDATE people SET wait_until = DATE_ADD(NOW(3), INTERVAL 30 SECOND) WHERE email = ?', [email]);
		expect(await signIn(pool, email, 'harbour-lights', 1)).toMatchObject({
			refused: expect.stringContaining('Too many wrong passwords')
		});
		await run(pool, 'UPDATE people SET wait_until = NOW(3) WHERE email = ?', [email]);
		expect(await signIn(pool, email, 'harbour-lights', 1)).toHaveProperty('token');
		expect(await row(pool, 'SELECT wrong_passwords FROM people WHERE email = ?', [email])).toEqual({
			wrong_passwords: 0
		});
	});
	it('waits longer with each further try', async () => {
		const email = await makePerson('harbour-lights');
		const waits: number[] = [];
		for (let n = 0; n < 6; n += 1) {
			await run(pool, 'UPDATE people SET wait_until = NULL WHERE email = ?', [email]);
			await signIn(pool, email, 'wrong', 1);
			waits.push(
				Number(
					(await row<{ wait: number }>(
						pool,
						'SELECT ROUND(TIMESTAMPDIFF(MICROSECOND, NOW(3), wait_until) / 1000000) AS wait FROM people WHERE email = ?',
						[email]
					))!.wait
				)
			);
		}
		expect(waits.slice(0, 3).every((wait) => wait <= 0)).toBe(true);
		expect(waits.slice(3)).toEqual([2, 4, 8]);
	});
});

describe('courses', () => {
	it('are seen by those who belong to them', async () => {
		const mine = await makeCourse(pool);
		const other = await makeCourse(pool);
		expect(await courseFor(pool, mine.personId, mine.courseId)).toMatchObject({
			name: 'Vessel Stability',
			role: 'change'
		});
		expect(await courseFor(pool, mine.personId, other.courseId)).toBeUndefined();
		expect((await coursesOf(pool, mine.personId)).map((course) => course.id)).toEqual([mine.courseId]);
		expect(await waitingIn(pool, mine.courseId)).toEqual({ loads: 0, banks: 0, snags: 0, quizzes: 0, dispatch: 0 });
	});
});
