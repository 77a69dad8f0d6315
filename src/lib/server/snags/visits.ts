import { row, run, type Database } from '../db/pool';

/** Whoever was away for so many minutes comes anew. */
const awayFor = 30;

/**
 * Notes that a person looks at the snags of a course, and gives when they looked last before this visit; null where they
 * never did.
 */
export async function visitSnags(db: Database, courseId: number, personId: number): Promise<Date | null> {
	await run(
		db,
		`INSERT INTO snag_visits (course_id, person_id, seen) VALUES (?, ?, NOW(3))
		ON DUPLICATE KEY UPDATE before_that = IF(seen < NOW(3) - INTERVAL ${awayFor} MINUTE, seen, before_that), seen = NOW(3)`,
		[courseId, personId]
	);
	const visit = await row<{ before_that: Date | null }>(
		db,
		'SELECT before_that FROM snag_visits WHERE course_id = ? AND person_id = ?',
		[courseId, personId]
	);
	return visit?.before_that ?? null;
}
