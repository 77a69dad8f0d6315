import type { Pool } from 'mysql2/promise';
import { row, rows, run, transaction, type Database } from '../db/pool';
import { hashPassword, passwordIs } from './passwords';
import { signOutDevice } from './sessions';

/** Somebody of the installation. */
export interface Account {
	id: number;
	name: string;
	email: string;
	keeper: boolean;
	gone: Date | null;
	courses: number;
	seen: Date | null;
}

/** Everybody who is or was there, by name. */
export async function everybody(db: Database): Promise<Account[]> {
	const found = await rows<Omit<Account, 'keeper'> & { keeper: number }>(
		db,
		`SELECT p.id, p.name, p.email, p.keeper, p.gone, (SELECT COUNT(*) FROM memberships m WHERE m.person_id = p.id) AS courses,
			(SELECT MAX(s.seen) FROM sessions s WHERE s.person_id = p.id) AS seen
		FROM people p ORDER BY p.gone IS NOT NULL, p.name, p.id`
	);
	return found.map((account) => ({ ...account, keeper: account.keeper === 1 }));
}

/** Changes what a person is called. */
export async function rename(db: Database, personId: number, name: string): Promise<void> {
	await run(db, 'UPDATE people SET name = ? WHERE id = ?', [name, personId]);
}

/** Changes the password of a person who knows the one that it was, and signs them out everywhere else. False where it is another. */
export async function changePassword(
	pool: Pool,
	personId: number,
	before: string,
	password: string,
	token: string
): Promise<boolean> {
	const found = await row<{ password_hash: string }>(pool, 'SELECT password_hash FROM people WHERE id = ?', [personId]);
	if (!found || !(await passwordIs(before, found.password_hash))) return false;
	const hash = await hashPassword(password);
	await transaction(pool, async (connection) => {
		await run(connection, 'UPDATE people SET password_hash = ? WHERE id = ?', [hash, personId]);
		await signOutDevice(connection, personId, null, token);
	});
	return true;
}

/** How many others keep the installation; they are locked, so that two do not leave at once. */
async function otherKeepers(db: Database, personId: number): Promise<number> {
	return (
		await rows(db, 'SELECT id FROM people WHERE keeper = 1 AND gone IS NULL AND id <> ? ORDER BY id FOR UPDATE', [
			personId
		])
	).length;
}

/** Lets a person look after the installation, or no longer. False where nobody else would. */
export async function setKeeper(pool: Pool, personId: number, keeper: boolean): Promise<boolean> {
	return transaction(pool, async (connection) => {
		if (!keeper && !(await otherKeepers(connection, personId))) return false;
		await run(connection, 'UPDATE people SET keeper = ? WHERE id = ? AND gone IS NULL', [keeper ? 1 : 0, personId]);
		return true;
	});
}

/**
 * A person leaves the installation: out of all courses, signed out everywhere, with a password that nobody has. The name
 * stays in the ledger. False where nobody else keeps the installation.
 */
export async function leave(pool: Pool, personId: number): Promise<boolean> {
	return transaction(pool, async (connection) => {
		if (!(await otherKeepers(connection, personId))) return false;
		await run(connection, "UPDATE people SET gone = NOW(3), keeper = 0, password_hash = 'gone' WHERE id = ?", [
			personId
		]);
		await run(connection, 'DELETE FROM memberships WHERE person_id = ?', [personId]);
		await run(connection, 'DELETE FROM sessions WHERE person_id = ?', [personId]);
		await run(connection, 'DELETE FROM invitations WHERE made_by = ? AND used IS NULL', [personId]);
		return true;
	});
}
