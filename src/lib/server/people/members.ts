import type { Pool } from 'mysql2/promise';
import { row, rows, run, transaction, type Database } from '../db/pool';
import type { Role } from '../courses/courses';

/** Somebody who belongs to a course. */
export interface Member {
	id: number;
	name: string;
	email: string;
	role: Role;
	keeper: boolean;
	/** When they were last seen; null where they never signed in, or are signed out everywhere. */
	seen: Date | null;
}

/** The people of a course by name. */
export async function membersOf(db: Database, courseId: number): Promise<Member[]> {
	const found = await rows<Omit<Member, 'keeper'> & { keeper: number }>(
		db,
		`SELECT p.id, p.name, p.email, m.role, p.keeper, (SELECT MAX(s.seen) FROM sessions s WHERE s.person_id = p.id) AS seen
		FROM memberships m JOIN people p ON p.id = m.person_id WHERE m.course_id = ? ORDER BY p.name, p.id`,
		[courseId]
	);
	return found.map((member) => ({ ...member, keeper: member.keeper === 1 }));
}

/** Somebody who is there already, by e-mail address. */
export async function personByEmail(db: Database, email: string): Promise<{ id: number; name: string } | undefined> {
	return row(db, 'SELECT id, name FROM people WHERE email = ? AND gone IS NULL', [email]);
}

/** Lets somebody who is there already into a course, or changes what they may do in it. */
export async function setRole(db: Database, courseId: number, personId: number, role: Role): Promise<void> {
	await run(
		db,
		'INSERT INTO memberships (person_id, course_id, role) VALUES (?, ?, ?) ON DUPLICATE KEY UPDATE role = VALUES(role)',
		[personId, courseId, role]
	);
}

/** Takes somebody out of a course; what they have done there stays in the ledger. Gives the role that they had. */
export async function removeMember(pool: Pool, courseId: number, personId: number): Promise<Role | null> {
	return transaction(pool, async (connection) => {
		const had = await row<{ role: Role }>(
			connection,
			'SELECT role FROM memberships WHERE course_id = ? AND person_id = ? FOR UPDATE',
			[courseId, personId]
		);
		await run(connection, 'DELETE FROM memberships WHERE course_id = ? AND person_id = ?', [courseId, personId]);
		return had?.role ?? null;
	});
}

/** Whether somebody else manages a course, or keeps the installation, so that it is not left alone. */
export async function othersManage(db: Database, courseId: number, personId: number): Promise<boolean> {
	const other = await row(
		db,
		"SELECT p.id FROM people p LEFT JOIN memberships m ON m.person_id = p.id AND m.course_id = ? WHERE p.id <> ? AND p.gone IS NULL AND (p.keeper = 1 OR m.role = 'manage') LIMIT 1",
		[courseId, personId]
	);
	return other !== undefined;
}
