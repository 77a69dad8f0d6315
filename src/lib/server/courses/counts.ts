import type { Pool } from 'mysql2/promise';
import type { Kind } from '$core/kinds';
import type { Severity } from '$core/reports/report';
import { row, rows, run, transaction, type Database } from '../db/pool';
import { noteDay } from '../snags/days';

/** How many questions of a kind stand in a category, or in a bank outside of all of them. */
export interface PlaceCount {
	bankId: number;
	categoryId: number | null;
	kind: Kind;
	questions: number;
}

/** What a course holds, counted: by place and kind, and what the checks say. */
export interface CourseCounts {
	/** The course and its state that was counted, in which it will never be again once something has changed; none where that is not known. */
	state?: string;
	places: PlaceCount[];
	/** Open snags by place and severity. */
	snags: { bankId: number; categoryId: number | null; severity: Severity; snags: number }[];
	/** How many questions each rule speaks of. */
	rules: { rule: string; severity: Severity; questions: number }[];
}

/** Notes that something has changed in the questions of a course, so that it is counted anew when somebody looks. */
export async function touchCourse(db: Database, courseId: number): Promise<void> {
	await run(db, 'UPDATE courses SET stamp = stamp + 1 WHERE id = ?', [courseId]);
}

async function counted(db: Database, courseId: number): Promise<CourseCounts> {
	const [places, snags, rules] = await Promise.all([
		// by_place
		rows<PlaceCount>(
			db,
			'SELECT q.bank_id AS bankId, q.category_id AS categoryId, q.kind, COUNT(*) AS questions FROM banks b JOIN questions q ON q.bank_id = b.id WHERE b.course_id = ? GROUP BY q.bank_id, q.category_id, q.kind',
			[courseId]
		),
		// by_place, then by_question_severity: neither a question nor a snag is read itself
		rows<CourseCounts['snags'][number]>(
			db,
			'SELECT STRAIGHT_JOIN q.bank_id AS bankId, q.category_id AS categoryId, s.severity, COUNT(*) AS snags FROM banks b JOIN questions q FORCE INDEX (by_place) ON q.bank_id = b.id JOIN snags s FORCE INDEX (by_question_severity) ON s.question_id = q.id WHERE b.course_id = ? GROUP BY q.bank_id, q.category_id, s.severity',
			[courseId]
		),
		// by_severity
		rows<CourseCounts['rules'][number]>(
			db,
			'SELECT rule, MIN(severity) AS severity, COUNT(DISTINCT question_id) AS questions FROM snags WHERE course_id = ? GROUP BY rule',
			[courseId]
		)
	]);
	return { places, snags, rules };
}

const stampOf = async (db: Database, courseId: number) =>
	(await row<{ stamp: number }>(db, 'SELECT stamp FROM courses WHERE id = ?', [courseId]))?.stamp;

async function keep(db: Database, courseId: number, stamp: number, counts: CourseCounts): Promise<void> {
	await noteDay(db, courseId, counts.rules);
	await run(
		db,
		'INSERT INTO course_counts (course_id, stamp, document) VALUES (?, ?, ?) ON DUPLICATE KEY UPDATE document = IF(VALUES(stamp) >= stamp, VALUES(document), document), stamp = GREATEST(stamp, VALUES(stamp))',
		[courseId, stamp, JSON.stringify(counts)]
	);
}

/** What a course holds: as it was counted last, where nothing has changed since, else counted now and kept. */
export async function countsOf(pool: Pool, courseId: number): Promise<CourseCounts> {
	const kept = await row<{ document: string; stamp: number }>(
		pool,
		'SELECT k.document, k.stamp FROM course_counts k JOIN courses c ON c.id = k.course_id AND c.stamp = k.stamp WHERE k.course_id = ?',
		[courseId]
	);
	if (kept) return { ...(JSON.parse(kept.document) as CourseCounts), state: `${courseId}/${kept.stamp}` };
	// counted side by side: where the stamp stays the same meanwhile, all is of one moment
	const before = await stampOf(pool, courseId);
	const counts = await counted(pool, courseId);
	if (before === undefined) return counts;
	if (before === (await stampOf(pool, courseId))) {
		await transaction(pool, (connection) => keep(connection, courseId, before, counts));
		return counts;
	}
	return transaction(pool, async (connection) => {
		// one moment for the stamp and for all that is counted under it
		const stamp = await stampOf(connection, courseId);
		const again = await counted(connection, courseId);
		if (stamp !== undefined) await keep(connection, courseId, stamp, again);
		return again;
	});
}

/** How many questions there are in a bank, or in the whole course where none is named. */
export function questionsIn({ places }: CourseCounts, bankId?: number): number {
	return places.reduce(
		(sum, place) => sum + (bankId === undefined || place.bankId === bankId ? place.questions : 0),
		0
	);
}

/** How many snags are open in the whole course. */
export function snagsIn({ snags }: CourseCounts): number {
	return snags.reduce((sum, place) => sum + place.snags, 0);
}
