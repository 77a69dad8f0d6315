import { rows, run, type Database } from '../db/pool';
import { filterNames } from './conditions';

/** A filter that was saved by name: the query of an address, without the bank and the category. */
export interface SavedFilter {
	id: number;
	name: string;
	query: string;
	by: string;
}

/** The filters that were saved in a course, by name. */
export async function savedFilters(db: Database, courseId: number): Promise<SavedFilter[]> {
	return rows(
		db,
		'SELECT f.id, f.name, f.document AS query, p.name AS `by` FROM saved_filters f JOIN people p ON p.id = f.person_id WHERE f.course_id = ? ORDER BY f.name',
		[courseId]
	);
}

const kept = new Set<string>([...filterNames, 'words', 'sort', 'down']);

/** Saves what of a query filters and sorts, by name, for all of a course; one of the same name is written over. */
export async function saveFilter(
	db: Database,
	courseId: number,
	personId: number,
	name: string,
	query: string
): Promise<void> {
	const asked = [...new URLSearchParams(query)].filter(([part]) => kept.has(part));
	await run(
		db,
		'INSERT INTO saved_filters (course_id, person_id, name, document) VALUES (?, ?, ?, ?) ON DUPLICATE KEY UPDATE document = VALUES(document), person_id = VALUES(person_id)',
		[courseId, personId, name, new URLSearchParams(asked).toString()]
	);
}

/** Takes a saved filter of a course away. */
export async function dropFilter(db: Database, courseId: number, id: number): Promise<void> {
	await run(db, 'DELETE FROM saved_filters WHERE id = ? AND course_id = ?', [id, courseId]);
}
