import { placeNamed } from '../changes/bulk';
import { rows, type Database } from '../db/pool';
import { Refused } from '../loads/refused';
import { keptTree } from './tree';

/** A course with its banks, for a choice of where questions go. */
export interface FillableCourse {
	courseId: number;
	/** Its name, code and intake. */
	course: string;
	banks: { id: number; name: string }[];
}

/** The banks that a person may put questions into, by their courses; those of one course come first. */
export async function banksToFill(db: Database, personId: number, first: number): Promise<FillableCourse[]> {
	const found = await rows<{ courseId: number; course: string; id: number; name: string }>(
		db,
		`SELECT c.id AS courseId, CONCAT_WS(' · ', c.name, c.code, NULLIF(c.intake, '')) AS course, b.id, b.name FROM people p JOIN courses c ON c.state = 'open' AND c.bin_of IS NULL JOIN banks b ON b.course_id = c.id
		LEFT JOIN memberships m ON m.course_id = c.id AND m.person_id = p.id
		WHERE p.id = ? AND (p.keeper = 1 OR m.role IN ('work', 'manage')) ORDER BY c.id <> ?, c.name, c.id, b.name LIMIT 5000`,
		[personId, first]
	);
	const courses = new Map<number, FillableCourse>();
	for (const { courseId, course, ...bank } of found) {
		const known = courses.get(courseId) ?? { courseId, course, banks: [] };
		known.banks.push(bank);
		courses.set(courseId, known);
	}
	return [...courses.values()];
}

/** The categories of a bank that a person may put questions into, in the order of its tree; none where they may not. */
export async function categoriesToFill(
	db: Database,
	personId: number,
	bankId: number
): Promise<{ id: number; name: string; depth: number }[]> {
	try {
		await placeNamed(db, personId, { bankId, categoryId: null });
	} catch (cause) {
		if (cause instanceof Refused) return [];
		throw cause;
	}
	const tree = await keptTree(db, bankId, { places: [], snags: [], rules: [] });
	return tree.map(({ id, name, depth }) => ({ id, name, depth }));
}
