import type { PoolConnection } from 'mysql2/promise';
import { row, run } from '../db/pool';

const columns = 'course_id, question_id, rule, severity, message, words, place, line';

/**
 * Takes from the open snags of a course, or of some of its questions, those that somebody has waived: for the question, for
 * its category or one above it, or for the course. They are kept beside, and stand open again once the waiver is taken back.
 */
export async function setWaivedAside(
	connection: PoolConnection,
	courseId: number,
	ids: readonly number[] | null = null
): Promise<void> {
	// by_rule
	const any = await row<{ id: number }>(
		connection,
		"SELECT id FROM waivers WHERE course_id = ? AND scope <> 'pair' LIMIT 1",
		[courseId]
	);
	if (!any || (ids && !ids.length)) return;
	const which = ids ? ' AND s.question_id IN (?)' : '';
	const found = `FROM snags s JOIN questions q ON q.id = s.question_id JOIN (
			WITH RECURSIVE under (waiver_id, rule, category_id) AS (SELECT id, rule, category_id FROM waivers WHERE course_id = ? AND scope = 'category' UNION ALL SELECT u.waiver_id, u.rule, c.id FROM under u JOIN categories c ON c.parent_id = u.category_id)
			SELECT id AS waiver_id, rule, NULL AS category_id, question_id, scope FROM waivers WHERE course_id = ? AND scope IN ('question', 'course')
			UNION ALL SELECT waiver_id, rule, category_id, NULL, 'category' FROM under
		) w ON w.rule = s.rule AND (w.scope = 'course' OR w.question_id = s.question_id OR w.category_id = q.category_id)
		WHERE s.course_id = ?${which}`;
	const parameters = [courseId, courseId, courseId, ...(ids ? [ids] : [])];
	await run(
		connection,
		`INSERT INTO waived_snags (waiver_id, ${columns}) SELECT MIN(w.waiver_id), ${columns
			.split(', ')
			.map((column) => `s.${column}`)
			.join(', ')} ${found} GROUP BY s.id`,
		parameters
	);
	await run(
		connection,
		`DELETE s FROM snags s JOIN waived_snags v ON v.question_id = s.question_id AND v.rule = s.rule WHERE s.course_id = ?${which}`,
		[courseId, ...(ids ? [ids] : [])]
	);
}

/** Puts what a waiver had set aside back among the open snags; the waiver itself is taken away by whoever calls. */
export async function putWaivedBack(connection: PoolConnection, waiverId: number): Promise<void> {
	await run(connection, `INSERT INTO snags (${columns}) SELECT ${columns} FROM waived_snags WHERE waiver_id = ?`, [
		waiverId
	]);
	await run(connection, 'DELETE FROM waived_snags WHERE waiver_id = ?', [waiverId]);
}
