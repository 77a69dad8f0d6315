import { createHash, randomBytes } from 'node:crypto';
import type { Pool } from 'mysql2/promise';
import { row, run } from '../db/pool';
import { hashOfNobody, passwordIs } from './passwords';
import { countTry, forgive } from './tries';

/** Who is signed in. */
export interface Person {
	id: number;
	name: string;
	email: string;
}

/** How signing in went: a token for the cookie, or a refusal for people. */
export type SignIn = { token: string; person: Person } | { refused: string };

/** Who signs in, and from which network address. */
export interface Claim {
	email: string;
	password: string;
	address: string;
}

const tokenHash = (token: string) => createHash('sha256').update(token).digest();
const written = (email: string) => email.trim().normalize('NFC').toLowerCase();

/**
 * Signs a person in for so many days. An unknown e-mail address is answered as a wrong password is, in words, in waits
 * and in time. Throws Busy where more want to sign in than can be served.
 */
export async function signIn(pool: Pool, claim: Claim, days: number): Promise<SignIn> {
	const email = written(claim.email);
	const wait = await countTry(pool, email, claim.address);
	if (wait)
		return {
			refused: `Too many wrong tries. Try again in ${wait === 1 ? '1 second' : wait < 60 ? `${wait} seconds` : `${Math.ceil(wait / 60)} minutes`}.`
		};
	// by_email, which takes letters with and without accents for the same
	const found = await row<Person & { password_hash: string }>(
		pool,
		'SELECT id, name, email, password_hash FROM people WHERE email = ?',
		[email]
	);
	const known = found && written(found.email) === email ? found : null;
	const right = await passwordIs(claim.password, known?.password_hash ?? hashOfNobody);
	if (!known || !right) return { refused: 'That e-mail address and that password do not belong together.' };
	await forgive(pool, email, claim.address);
	const token = randomBytes(32).toString('base64url');
	await run(
		pool,
		'INSERT INTO sessions (token_hash, person_id, expires) VALUES (?, ?, DATE_ADD(NOW(3), INTERVAL ? DAY))',
		[tokenHash(token), known.id, days]
	);
	await run(pool, 'DELETE FROM sessions WHERE expires < NOW(3)');
	return { token, person: { id: known.id, name: known.name, email: known.email } };
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
