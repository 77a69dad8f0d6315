import { createHash, randomBytes } from 'node:crypto';
import type { Pool } from 'mysql2/promise';
import { row, rows, run, type Database } from '../db/pool';
import { deviceName } from './devices';
import { hashOfNobody, passwordIs } from './passwords';
import { countTry, forgive } from './tries';

/** Who is signed in. */
export interface Person {
	id: number;
	name: string;
	email: string;
	/** Looks after the installation. */
	keeper: boolean;
}

/** How signing in went: a token for the cookie, or a refusal for people. */
export type SignIn = { token: string; person: Person } | { refused: string };

/** Who signs in, and from which network address. */
export interface Claim {
	email: string;
	password: string;
	address: string;
	/** What the person signs in with, as its browser says. */
	device?: string;
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
	const found = await row<Omit<Person, 'keeper'> & { keeper: number; password_hash: string }>(
		pool,
		'SELECT id, name, email, keeper, password_hash FROM people WHERE email = ? AND gone IS NULL',
		[email]
	);
	const known = found && written(found.email) === email ? found : null;
	const right = await passwordIs(claim.password, known?.password_hash ?? hashOfNobody);
	if (!known || !right) return { refused: 'That e-mail address and that password do not belong together.' };
	await forgive(pool, email, claim.address);
	const { password_hash: _, ...person } = known;
	return {
		token: await beginSession(pool, person.id, days, claim.device ?? ''),
		person: { ...person, keeper: person.keeper === 1 }
	};
}

/** Begins a session of a person for so many days; gives the token for the cookie. `device` is what its browser says of itself. */
export async function beginSession(db: Database, personId: number, days: number, device: string): Promise<string> {
	const token = randomBytes(32).toString('base64url');
	await run(
		db,
		'INSERT INTO sessions (token_hash, person_id, expires, device) VALUES (?, ?, DATE_ADD(NOW(3), INTERVAL ? DAY), ?)',
		[tokenHash(token), personId, days, deviceName(device)]
	);
	await run(db, 'DELETE FROM sessions WHERE expires < NOW(3)');
	return token;
}

/** The person that a token belongs to, if it is still good. */
export async function personOf(pool: Pool, token: string): Promise<Person | null> {
	const found = await row<Omit<Person, 'keeper'> & { keeper: number; quiet: number }>(
		pool,
		'SELECT p.id, p.name, p.email, p.keeper, s.seen < DATE_SUB(NOW(3), INTERVAL 10 MINUTE) AS quiet FROM sessions s JOIN people p ON p.id = s.person_id WHERE s.token_hash = ? AND s.expires > NOW(3)',
		[tokenHash(token)]
	);
	if (!found) return null;
	const { quiet, ...person } = found;
	if (quiet) await run(pool, 'UPDATE sessions SET seen = NOW(3) WHERE token_hash = ?', [tokenHash(token)]);
	return { ...person, keeper: person.keeper === 1 };
}

/** A device on which somebody is signed in. */
export interface Device {
	id: number;
	device: string;
	begun: Date;
	seen: Date;
	/** The one that asks. */
	here: boolean;
}

/** The devices on which a person is signed in, the last seen first; `token` is that of the one that asks. */
export async function devicesOf(db: Database, personId: number, token: string): Promise<Device[]> {
	const found = await rows<Omit<Device, 'here'> & { here: number }>(
		db,
		'SELECT id, device, begun, seen, token_hash = ? AS here FROM sessions WHERE person_id = ? AND expires > NOW(3) ORDER BY here DESC, seen DESC',
		[tokenHash(token), personId]
	);
	return found.map((device) => ({ ...device, here: device.here === 1 }));
}

/** Signs a person out on a device, or on all but the one that asks where none is named; gives on how many. */
export async function signOutDevice(
	db: Database,
	personId: number,
	device: number | null,
	token: string
): Promise<number> {
	const { count } = await (device === null
		? run(db, 'DELETE FROM sessions WHERE person_id = ? AND token_hash <> ?', [personId, tokenHash(token)])
		: run(db, 'DELETE FROM sessions WHERE person_id = ? AND id = ?', [personId, device]));
	return count;
}

/** Ends a session. */
export async function signOut(pool: Pool, token: string): Promise<void> {
	await run(pool, 'DELETE FROM sessions WHERE token_hash = ?', [tokenHash(token)]);
}
