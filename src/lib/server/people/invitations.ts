import { createHash, randomBytes } from 'node:crypto';
import type { Pool } from 'mysql2/promise';
import { row, rows, run, transaction, type Database } from '../db/pool';
import type { Role } from '../courses/courses';
import { hashPassword } from './passwords';

/** How many days an invitation is good for. */
export const invitationDays = 14;

/** What an invitation leads to: a course with a role, the installation, or both. */
export interface Invited {
	email: string;
	courseId: number | null;
	role: Role | null;
	keeper: boolean;
}

/** An invitation as whoever opens its link sees it. */
export interface OpenInvitation extends Invited {
	id: number;
	/** The name and code of the course, where it is to one. */
	course: string | null;
	by: string | null;
	expires: Date;
	/** The first person of an installation is asked for its first course too. */
	first: boolean;
	/** Somebody who is there already, and is to choose a password anew. */
	person: { id: number; name: string } | null;
}

const hashOf = (token: string) => createHash('sha256').update(token).digest();

/** Makes an invitation; gives the token of its link, which is kept nowhere. `madeBy` is null for the first person of all. */
export async function invite(db: Database, invited: Invited, madeBy: number | null): Promise<string> {
	const token = randomBytes(24).toString('base64url');
	await run(
		db,
		'INSERT INTO invitations (token_hash, email, course_id, role, keeper, made_by, expires) VALUES (?, ?, ?, ?, ?, ?, DATE_ADD(NOW(3), INTERVAL ? DAY))',
		[hashOf(token), invited.email, invited.courseId, invited.role, invited.keeper ? 1 : 0, madeBy, invitationDays]
	);
	return token;
}

const open = 'i.used IS NULL AND i.expires > NOW(3)';

/** The invitation of a link that is still good; nothing where it was used, has ended or never was. */
export async function invitationOf(db: Database, token: string): Promise<OpenInvitation | undefined> {
	// by_token
	const found = await row<
		Omit<OpenInvitation, 'keeper' | 'first' | 'person'> & {
			keeper: number;
			made_by: number | null;
			person_id: number | null;
			person_name: string | null;
		}
	>(
		db,
		`SELECT i.id, i.email, i.course_id AS courseId, i.role, i.keeper, i.made_by, i.expires, CONCAT(c.name, ' (', c.code, ')') AS course, p.name AS \`by\`, i.person_id, o.name AS person_name
		FROM invitations i LEFT JOIN courses c ON c.id = i.course_id LEFT JOIN people p ON p.id = i.made_by LEFT JOIN people o ON o.id = i.person_id WHERE i.token_hash = ? AND ${open}`,
		[hashOf(token)]
	);
	if (!found) return undefined;
	const { made_by, person_id, person_name, ...invitation } = found;
	return {
		...invitation,
		keeper: found.keeper === 1,
		first: made_by === null,
		person: person_id === null ? null : { id: person_id, name: person_name! }
	};
}

/** The invitations to a course, or to the installation alone where none is named, that nobody has taken up yet. */
export async function openInvitations(
	db: Database,
	courseId: number | null
): Promise<{ id: number; email: string; role: Role | null; keeper: number; by: string; expires: Date }[]> {
	return rows(
		db,
		`SELECT i.id, i.email, i.role, i.keeper, p.name AS \`by\`, i.expires FROM invitations i JOIN people p ON p.id = i.made_by WHERE i.course_id <=> ? AND i.person_id IS NULL AND ${open} ORDER BY i.id DESC`,
		[courseId]
	);
}

/** Ends an invitation to a course, or to the installation alone where none is named, before somebody takes it up. */
export async function withdraw(db: Database, courseId: number | null, id: number): Promise<void> {
	await run(db, 'DELETE FROM invitations WHERE id = ? AND course_id <=> ? AND used IS NULL', [id, courseId]);
}

/** Gives a person what an invitation leads to; a role that they have already is never made less. */
async function grant(db: Database, personId: number, invitation: OpenInvitation): Promise<void> {
	if (invitation.keeper) await run(db, 'UPDATE people SET keeper = 1 WHERE id = ?', [personId]);
	if (invitation.courseId !== null)
		await run(
			db,
			'INSERT INTO memberships (person_id, course_id, role) VALUES (?, ?, ?) ON DUPLICATE KEY UPDATE role = GREATEST(role + 0, VALUES(role) + 0)',
			[personId, invitation.courseId, invitation.role]
		);
}

/** How taking up an invitation went. */
export type Joined = { personId: number } | 'gone' | 'known';

/** Uses an invitation up; false where another was quicker. */
async function useUp(db: Database, id: number): Promise<boolean> {
	return (await run(db, `UPDATE invitations i SET i.used = NOW(3) WHERE i.id = ? AND ${open}`, [id])).count === 1;
}

/** A new person takes up an invitation. “known” where the e-mail address belongs to somebody already. Throws Busy. */
export async function join(
	pool: Pool,
	token: string,
	person: { name: string; email: string; password: string }
): Promise<Joined> {
	if (!(await invitationOf(pool, token))) return 'gone';
	const hash = await hashPassword(person.password);
	return transaction(pool, async (connection) => {
		const invitation = await invitationOf(connection, token);
		// by_email
		if (await row(connection, 'SELECT id FROM people WHERE email = ?', [person.email])) return 'known';
		if (!invitation || invitation.person || !(await useUp(connection, invitation.id))) return 'gone';
		const { id } = await run(connection, 'INSERT INTO people (name, email, password_hash) VALUES (?, ?, ?)', [
			person.name,
			person.email,
			hash
		]);
		await grant(connection, id, invitation);
		return { personId: id };
	});
}

/** Makes a link by which somebody who is there, or has left, chooses a password anew; gives its token. */
export async function inviteAgain(pool: Pool, personId: number, madeBy: number): Promise<string> {
	return transaction(pool, async (connection) => {
		const token = await invite(connection, { email: '', courseId: null, role: null, keeper: false }, madeBy);
		await run(connection, 'UPDATE invitations SET person_id = ? WHERE token_hash = ?', [personId, hashOf(token)]);
		return token;
	});
}

/** Chooses a password anew by such a link; whoever was signed in as this person is no more. Throws Busy. */
export async function choosePassword(pool: Pool, token: string, password: string): Promise<Joined> {
	if (!(await invitationOf(pool, token))) return 'gone';
	const hash = await hashPassword(password);
	return transaction(pool, async (connection) => {
		const invitation = await invitationOf(connection, token);
		if (!invitation?.person || !(await useUp(connection, invitation.id))) return 'gone';
		const { id } = invitation.person;
		await run(connection, 'UPDATE people SET password_hash = ?, gone = NULL WHERE id = ?', [hash, id]);
		await run(connection, 'DELETE FROM sessions WHERE person_id = ?', [id]);
		return { personId: id };
	});
}

/** Somebody who is there already takes up an invitation. */
export async function accept(pool: Pool, token: string, personId: number): Promise<Joined> {
	return transaction(pool, async (connection) => {
		const invitation = await invitationOf(connection, token);
		if (!invitation || invitation.person || !(await useUp(connection, invitation.id))) return 'gone';
		await grant(connection, personId, invitation);
		return { personId };
	});
}

/** For an installation in which there is nobody yet: makes its one invitation anew, and gives the token; null where somebody is there. */
export async function inviteFirst(pool: Pool): Promise<string | null> {
	return transaction(pool, async (connection) => {
		if (await row(connection, 'SELECT id FROM people LIMIT 1')) return null;
		await run(connection, 'DELETE FROM invitations WHERE made_by IS NULL');
		return invite(connection, { email: '', courseId: null, role: null, keeper: true }, null);
	});
}
