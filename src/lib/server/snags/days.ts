import type { Severity } from '$core/reports/report';
import { rows, run, type Database } from '../db/pool';
import type { CourseCounts } from '../courses/counts';

/** How many questions had open snags on a day, by how bad they were: each check counts its own. */
export interface SnagDay extends Record<Severity, number> {
	/** As 2026-11-29. */
	day: string;
	/** Questions that were mended on the day, or of which one of several was kept, and was not taken back. */
	mended: number;
	/** Waivers of the day that hold still, by the snags that they keep from being open. */
	waived: number;
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

/** The last days on which something was counted in a course, the oldest first, with what was done about it on each. */
export async function daysOf(db: Database, courseId: number): Promise<SnagDay[]> {
	// the key
	const found = await rows<Omit<SnagDay, 'mended' | 'waived'>>(
		db,
		`SELECT DATE_FORMAT(day, '%Y-%m-%d') AS day, CAST(SUM(IF(severity = 'broken', questions, 0)) AS INT) AS broken, CAST(SUM(IF(severity = 'doubtful', questions, 0)) AS INT) AS doubtful, CAST(SUM(IF(severity = 'untidy', questions, 0)) AS INT) AS untidy
		FROM snag_days WHERE course_id = ? GROUP BY snag_days.day ORDER BY snag_days.day DESC LIMIT ${mostDays}`,
		[courseId]
	);
	if (!found.length) return [];
	const [first] = found.slice(-1);
	// by_course; by_rule, then by_waiver
	const done = await rows<{ day: string; mended: number; waived: number }>(
		db,
		`SELECT day, CAST(SUM(mended) AS INT) AS mended, CAST(SUM(waived) AS INT) AS waived FROM (
			SELECT DATE_FORMAT(done, '%Y-%m-%d') AS day, questions AS mended, 0 AS waived FROM ledger WHERE course_id = ? AND done >= ? AND deed IN ('mended', 'kept one of') AND undone_by IS NULL
			UNION ALL SELECT DATE_FORMAT(w.made, '%Y-%m-%d'), 0, (SELECT COUNT(*) FROM waived_snags x WHERE x.waiver_id = w.id) FROM waivers w WHERE w.course_id = ? AND w.made >= ?
		) d GROUP BY day`,
		[courseId, first!.day, courseId, first!.day]
	);
	const doneOn = new Map(done.map((each) => [each.day, each]));
	return found.reverse().map(({ day, broken, doubtful, untidy }) => ({
		day,
		broken: Number(broken),
		doubtful: Number(doubtful),
		untidy: Number(untidy),
		mended: Number(doneOn.get(day)?.mended ?? 0),
		waived: Number(doneOn.get(day)?.waived ?? 0)
	}));
}
