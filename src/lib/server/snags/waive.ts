import type { Pool, PoolConnection } from 'mysql2/promise';
import { checkOf } from '$core/checks';
import { sayPairsOf } from '../checks/pairs';
import { putWaivedBack, setWaivedAside } from '../checks/waived';
import { touchCourse } from '../courses/counts';
import { row, rows, run, transaction, type Database } from '../db/pool';
import { record } from '../ledger/ledger';
import { Refused } from '../loads/refused';

/** What is waived: a check for one question, in its category with all under it, or in the course. */
export type WaiverScope = 'question' | 'category' | 'course';

/** A waiver as it is listed. */
export interface Waiver {
	id: number;
	rule: string;
	scope: WaiverScope | 'pair';
	/** The question, both of a pair, or the category; empty for the course. */
	subject: string;
	questionId: number | null;
	bankId: number | null;
	reason: string;
	by: string;
	made: Date;
	/** How many snags it keeps from being open. */
	snags: number;
}

async function note(
	connection: PoolConnection,
	courseId: number,
	personId: number,
	rule: string,
	deed: string,
	questions: number
): Promise<void> {
	await touchCourse(connection, courseId);
	await record(connection, {
		courseId,
		personId,
		deed,
		subject: checkOf(rule)?.title ?? rule,
		questions,
		address: `/courses/${courseId}/snags?waived=1`
	});
}

const waivedBy = async (db: Database, id: number) =>
	(await row<{ n: number }>(db, 'SELECT COUNT(*) AS n FROM waived_snags WHERE waiver_id = ?', [id]))!.n;

/**
 * Waives what a check says: of a question, of all in its category and under it, or in the course; it is found still, and
 * stands open again once the waiver is taken back. Gives the key of the waiver and how many snags it concerns. Throws
 * Refused where there is nothing to waive.
 */
export async function waive(
	pool: Pool,
	courseId: number,
	personId: number,
	asked: { rule: string; scope: WaiverScope; questionId: number; reason: string }
): Promise<{ id: number; snags: number }> {
	return transaction(pool, async (connection) => {
		const question = await row<{ id: number; categoryId: number | null }>(
			connection,
			'SELECT q.id, q.category_id AS categoryId FROM snags s JOIN questions q ON q.id = s.question_id WHERE s.course_id = ? AND s.rule = ? AND q.id = ? LIMIT 1',
			[courseId, asked.rule, asked.questionId]
		);
		if (!question) throw new Refused('This is no open snag any more. Look at what is there.');
		if (asked.scope === 'category' && question.categoryId === null)
			throw new Refused('This question stands in no category. Waive the check for it alone, or in the course.');
		const { id } = await run(
			connection,
			'INSERT INTO waivers (course_id, rule, scope, question_id, category_id, reason, person_id) VALUES (?, ?, ?, ?, ?, ?, ?)',
			[
				courseId,
				asked.rule,
				asked.scope,
				asked.scope === 'question' ? question.id : null,
				asked.scope === 'category' ? question.categoryId : null,
				asked.reason,
				personId
			]
		);
		await setWaivedAside(connection, courseId);
		const snags = await waivedBy(connection, id);
		await note(connection, courseId, personId, asked.rule, 'waived', snags);
		return { id, snags };
	});
}

/** Says of two questions that are nearly the same that both are meant. Throws Refused where one is gone. */
export async function meanBoth(
	pool: Pool,
	courseId: number,
	personId: number,
	rule: string,
	pair: readonly [number, number],
	reason: string
): Promise<number> {
	return transaction(pool, async (connection) => {
		const [first, second] = [...pair].sort((a, b) => a - b);
		const there = await rows(connection, 'SELECT id FROM questions WHERE course_id = ? AND id IN (?)', [
			courseId,
			[first, second]
		]);
		if (there.length < 2) throw new Refused('One of the two is gone already. Look at what is there.');
		const { id } = await run(
			connection,
			"INSERT INTO waivers (course_id, rule, scope, question_id, other_id, reason, person_id) VALUES (?, ?, 'pair', ?, ?, ?, ?)",
			[courseId, rule, first, second, reason, personId]
		);
		await sayPairsOf(connection, courseId, [first!, second!]);
		await setWaivedAside(connection, courseId, [first!, second!]);
		await note(connection, courseId, personId, rule, 'meant both of', 2);
		return id;
	});
}

/** Takes a waiver back: what it kept from being open is open again. Throws Refused where it is gone already. */
export async function takeWaiverBack(pool: Pool, courseId: number, personId: number, id: number): Promise<void> {
	await transaction(pool, async (connection) => {
		const waiver = await row<{ rule: string; scope: Waiver['scope']; question_id: number; other_id: number }>(
			connection,
			'SELECT rule, scope, question_id, other_id FROM waivers WHERE id = ? AND course_id = ? FOR UPDATE',
			[id, courseId]
		);
		if (!waiver) throw new Refused('This waiver was taken back already.');
		const snags = waiver.scope === 'pair' ? 2 : await waivedBy(connection, id);
		await putWaivedBack(connection, id);
		await run(connection, 'DELETE FROM waivers WHERE id = ?', [id]);
		if (waiver.scope === 'pair') await sayPairsOf(connection, courseId, [waiver.question_id, waiver.other_id]);
		// another waiver may hold for some of them
		await setWaivedAside(connection, courseId);
		await note(connection, courseId, personId, waiver.rule, 'took back a waiver of', snags);
	});
}

/** How many waivers are sent. */
const mostWaivers = 500;

/** What is waived in a course, the newest first. */
export async function waiversOf(db: Database, courseId: number): Promise<Waiver[]> {
	// by_rule
	return rows<Waiver>(
		db,
		`SELECT w.id, w.rule, w.scope, COALESCE(IF(w.scope = 'pair', CONCAT(q.title, ' and ', o.title), q.title), c.name, '') AS subject, w.question_id AS questionId, q.bank_id AS bankId, w.reason, p.name AS \`by\`, w.made,
			IF(w.scope = 'pair', 1, (SELECT COUNT(*) FROM waived_snags v WHERE v.waiver_id = w.id)) AS snags
		FROM waivers w JOIN people p ON p.id = w.person_id LEFT JOIN questions q ON q.id = w.question_id LEFT JOIN questions o ON o.id = w.other_id LEFT JOIN categories c ON c.id = w.category_id
		WHERE w.course_id = ? ORDER BY w.made DESC, w.id DESC LIMIT ${mostWaivers}`,
		[courseId]
	);
}

/** A question that another is paired with by a check, for both to be seen side by side; null where there is none. */
export async function partnerOf(
	db: Database,
	courseId: number,
	rule: string,
	questionId: number
): Promise<number | null> {
	// the key
	const found = await row<{ id: number }>(
		db,
		`SELECT p.other_id AS id FROM check_pairs p JOIN questions o ON o.id = p.other_id AND o.course_id = ? WHERE p.question_id = ? AND p.rule = ?
			AND NOT EXISTS (SELECT 1 FROM waivers w WHERE w.rule = p.rule AND w.scope = 'pair' AND w.question_id = LEAST(p.question_id, p.other_id) AND w.other_id = GREATEST(p.question_id, p.other_id)) ORDER BY p.other_id LIMIT 1`,
		[courseId, questionId, rule]
	);
	return found?.id ?? null;
}
