import type { Pool, PoolConnection } from 'mysql2/promise';
import type { Severity } from '$core/reports/report';
import { rows, run, transaction, type Database } from '../db/pool';
import { openToChanges } from './decide';
import { keysOfChosen, type Chosen } from './listed';
import { Refused } from './refused';

/** What is waived of a question of a load. */
export interface StagedWaiver {
	rule: string;
	severity: Severity;
	message: string;
	reason: string;
	by: string;
}

/** Notes anew which questions are broken, of those of which something was waived or is said again. */
async function markBroken(connection: PoolConnection, ids: readonly number[]): Promise<void> {
	await run(
		connection,
		"UPDATE staged_questions s SET broken = EXISTS (SELECT 1 FROM staged_reports r WHERE r.staged_id = s.id AND r.severity = 'broken') WHERE s.id IN (?)",
		[ids]
	);
}

/**
 * Waives what a rule says of chosen questions of a load, or of all of it where none are chosen; once they are taken in it
 * stays waived. Gives how many questions it concerns. Throws Refused where there is nothing to waive.
 */
export async function waiveStaged(
	pool: Pool,
	courseId: number,
	loadId: number,
	personId: number,
	asked: { rule: string; reason: string },
	chosen: Chosen | null
): Promise<number> {
	return transaction(pool, async (connection) => {
		await openToChanges(connection, loadId, personId);
		const keys = chosen && keysOfChosen(courseId, loadId, chosen);
		// by_rule
		const found = await rows<{ id: number }>(
			connection,
			`SELECT DISTINCT r.staged_id AS id FROM staged_reports r JOIN staged_questions s ON s.id = r.staged_id WHERE r.load_id = ? AND r.rule = ? AND s.kind <> 'unreadable'${keys ? ` AND s.id IN ${keys.sql}` : ''} FOR UPDATE`,
			[loadId, asked.rule, ...(keys?.parameters ?? [])]
		);
		const ids = found.map(({ id }) => id);
		if (!ids.length)
			throw new Refused('There is nothing to waive: this is not said any more, or a question cannot be read at all.');
		await run(
			connection,
			`INSERT IGNORE INTO staged_waivers (staged_id, rule, load_id, severity, message, words, place, line, reason, person_id)
			SELECT staged_id, rule, load_id, severity, message, words, place, line, ?, ? FROM staged_reports WHERE rule = ? AND staged_id IN (?) ORDER BY id`,
			[asked.reason, personId, asked.rule, ids]
		);
		await run(connection, 'DELETE FROM staged_reports WHERE rule = ? AND staged_id IN (?)', [asked.rule, ids]);
		await markBroken(connection, ids);
		return ids.length;
	});
}

/** Takes back what was waived of a question of a load: it is said again. Throws Refused where it is not waived. */
export async function takeStagedWaiverBack(
	pool: Pool,
	loadId: number,
	personId: number,
	stagedId: number,
	rule: string
): Promise<void> {
	await transaction(pool, async (connection) => {
		await openToChanges(connection, loadId, personId);
		const { count } = await run(
			connection,
			`INSERT INTO staged_reports (load_id, staged_id, rule, severity, message, words, place, line)
			SELECT load_id, staged_id, rule, severity, message, words, place, line FROM staged_waivers WHERE load_id = ? AND staged_id = ? AND rule = ?`,
			[loadId, stagedId, rule]
		);
		if (!count) throw new Refused('This is waived no more. Look at what is there.');
		await run(connection, 'DELETE FROM staged_waivers WHERE staged_id = ? AND rule = ?', [stagedId, rule]);
		await markBroken(connection, [stagedId]);
	});
}

/** What is waived of a question of a load. */
export async function stagedWaivers(db: Database, stagedId: number): Promise<StagedWaiver[]> {
	return rows(
		db,
		'SELECT w.rule, w.severity, w.message, w.reason, p.name AS `by` FROM staged_waivers w JOIN people p ON p.id = w.person_id WHERE w.staged_id = ? ORDER BY w.made, w.rule',
		[stagedId]
	);
}

/** Carries what was waived in a load over to the questions that came of it. */
export async function carryWaivers(connection: PoolConnection, courseId: number, loadId: number): Promise<void> {
	// by_load, then by_staged
	await run(
		connection,
		`INSERT INTO waivers (course_id, rule, scope, question_id, reason, person_id, made)
		SELECT q.course_id, w.rule, 'question', q.id, w.reason, w.person_id, w.made FROM staged_waivers w JOIN questions q ON q.staged_id = w.staged_id
		WHERE w.load_id = ? AND q.course_id = ? AND NOT EXISTS (SELECT 1 FROM waivers x WHERE x.question_id = q.id AND x.rule = w.rule AND x.scope = 'question')`,
		[loadId, courseId]
	);
}
