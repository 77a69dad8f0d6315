import type { Severity } from '$core/reports/report';
import { rows, run, type Database } from '../db/pool';
import type { CourseCounts } from '../courses/counts';

/** How many questions had open snags on a day, by how bad they were: each check counts its own. */
export interface SnagDay extends Record<Severity, number> {
	/** As 2026-11-29. */
	day: string;
}

/** So many days are shown. */
const mostDays = 14;

/** Notes what is open in a course today; what was noted earlier in the day gives way. */
export async function noteDay(db: Database, courseId: number, rules: CourseCounts['rules']): Promise<void> {
	await run(db, 'DELETE FROM snag_days WHERE course_id = ? AND day = CURRENT_DATE', [courseId]);
	if (rules.length)
		await run(
			db,
			`INSERT INTO snag_days (course_id, day, rule, severity, questions) VALUES ${rules.map(() => '(?, CURRENT_DATE, ?, ?, ?)').join(', ')} ON DUPLICATE KEY UPDATE questions = VALUES(questions), severity = VALUES(severity)`,
			rules.flatMap(({ rule, severity, questions }) => [courseId, rule, severity, questions])
		);
}

/** The last days on which something was counted in a course, the oldest first. */
export async function daysOf(db: Database, courseId: number): Promise<SnagDay[]> {
	// the key
	const found = await rows<SnagDay>(
		db,
		`SELECT DATE_FORMAT(day, '%Y-%m-%d') AS day, CAST(SUM(IF(severity = 'broken', questions, 0)) AS INT) AS broken, CAST(SUM(IF(severity = 'doubtful', questions, 0)) AS INT) AS doubtful, CAST(SUM(IF(severity = 'untidy', questions, 0)) AS INT) AS untidy
		FROM snag_days WHERE course_id = ? GROUP BY snag_days.day ORDER BY snag_days.day DESC LIMIT ${mostDays}`,
		[courseId]
	);
	return found
		.map((one) => ({
			day: one.day,
			broken: Number(one.broken),
			doubtful: Number(one.doubtful),
			untidy: Number(one.untidy)
		}))
		.reverse();
}
