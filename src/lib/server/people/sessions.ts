import { createHash, randomBytes } from 'node:crypto';
import type { Pool } from 'mysql2/promise';
import { row, run } from '../db/pool';
import { hashPassword, passwordIs } from './passwords';

/** Who is signed in. */
export interface Person {
	id: number;
	name: string;
	email: string;
}

/** How signing in went: a token for the cookie, or a refusal for people. */
export type SignIn = { token: string; person: Person } | { refused: string };

const free = 3;
const longestWait = 15 * 60;
const tokenHash = (token: string) => createHash('sha256').update(token).digest();
let nobody: Promise<string> | undefined;

/**
 * Signs a person in. After three wrong passwords each further one makes the next try wait, twice as long each time,
 * up to a quarter of an hour. An unknown address is answered as a wrong password is, and takes as long.
 */
export async function signIn(pool: Pool, email: string, password: string, days: number): Promise<SignIn> {
	const wrong = 'That address and that password do not belong together.';
	// by_email
	const found = await row<Person & { password_hash: string; wrong_passwords: number; wait: number | null }>(
		pool,
		'SELECT id, name, email, password_hash, wrong_passwords, TIMESTAMPDIFF(SECOND, NOW(3), wait_until) AS wait FROM people WHERE email = ?',
		[email.trim()]
	);
	if (!found) {
		await passwordIs(password, await (nobody ??= hashPassword('nobody')));
		return { refused: wrong };
	}
	if (found.wait !== null && found.wait > 0)
		return {
			refused: `Too many wrong passwords. Try again in ${found.wait < 60 ? `${found.wait} seconds` : `${Math.ceil(found.wait / 60)} minutes`}.`
		};
	if (!(await passwordIs(password, found.password_hash))) {
		const count = found.wrong_passwords + 1;
		const wait = count <= free ? 0 : Math.min(longestWait, 2 ** (count - free));
		await run(
			pool,
			'UPDATE people SET wrong_passwords = wrong_passwords + 1, wait_until = DATE_ADD(NOW(3), INTERVAL ? SECOND) WHERE id = ?',
			[wait, found.id]
		);
		return { refused: wrong };
	}
	const token = randomBytes(32).toString('base64url');
	await run(pool, 'UPDATE people SET wrong_passwords = 0, wait_until = NULL WHERE id = ?', [found.id]);
	await run(
		pool,
		'INSERT INTO sessions (token_hash, person_id, expires) VALUES (?, ?, DATE_ADD(NOW(3), INTERVAL ? DAY))',
		[tokenHash(token), found.id, days]
	);
	await run(pool, 'DELETE FROM sessions WHERE expires < NOW(3)');
	return { token, person: { id: found.id, name: found.name, email: found.email } };
}

/** The person that a token belongs to, if it is still good. */
export async function personOf(pool: Pool, token: string): Promise<Person | null> {
	return (
		(await row<Person>(
			pool,
			'SELECT p.id, p.name, p.email FROM sessions s JOIN people p ON p.id = s.person_id WHERE s.token_hash = ? AND s.expires > NOW(3)',
			[tokenHash(token)]
		)) ?? null
	);
}

/** Ends a session. */
export async function signOut(pool: Pool, token: string): Promise<void> {
	await run(pool, 'DELETE FROM sessions WHERE token_hash = ?', [tokenHash(token)]);
}
