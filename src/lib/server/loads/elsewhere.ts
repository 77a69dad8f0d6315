import { compareBanks } from '$core/compare/banks';
import { parseQuestion } from '$core/kinds/schema';
import { called } from '$core/kinds/called';
import { row, rows, run, type Database } from '../db/pool';

/** What another system has made of a load, by the package that was exported from there and loaded here. */
export interface Elsewhere {
	fileName: string;
	same: number;
	changed: { title: string; parts: string[] }[];
	/** Questions that were taken in here and are not in the package from there. */
	lost: string[];
	/** Questions in the package from there that did not come with this load. */
	more: string[];
}

const parsed = (found: { document: string }[]) => found.map((one) => parseQuestion(JSON.parse(one.document)));

/** Keeps how many questions another system says that it has imported; null takes that back. */
export async function keepTold(db: Database, courseId: number, loadId: number, told: number | null): Promise<void> {
	await run(db, 'UPDATE loads SET told_count = ? WHERE id = ? AND course_id = ?', [told, loadId, courseId]);
}

/** Holds what a load has brought against another load of the course, which was exported from the other system. */
export async function compareElsewhere(
	db: Database,
	courseId: number,
	loadId: number,
	otherId: number
): Promise<Elsewhere | null> {
	const other = await row<{ file_name: string }>(
		db,
		"SELECT file_name FROM loads WHERE id = ? AND course_id = ? AND state IN ('review', 'undone', 'taken')",
		[otherId, courseId]
	);
	if (!other) return null;
	// by_outcome and by_number
	const [mine, theirs] = await Promise.all([
		rows<{ document: string }>(
			db,
			"SELECT document FROM staged_questions WHERE load_id = ? AND outcome IN ('taken', 'replaced', 'skipped') ORDER BY number",
			[loadId]
		),
		rows<{ document: string }>(db, 'SELECT document FROM staged_questions WHERE load_id = ? ORDER BY number', [otherId])
	]);
	const found = compareBanks(parsed(mine), parsed(theirs));
	return {
		fileName: other.file_name,
		same: found.same,
		changed: found.changed.map((change) => ({
			title: called(change.before),
			parts: change.differences.map((difference) => difference.field)
		})),
		lost: found.onlyBefore.map(called),
		more: found.onlyAfter.map(called)
	};
}
