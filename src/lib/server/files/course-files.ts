import { row, type Database } from '../db/pool';

/** A file that questions of a course use, by its hash in hex; nothing where the course has no such file. */
export async function courseFile(
	db: Database,
	courseId: number,
	hash: string
): Promise<{ id: number; size: number } | undefined> {
	return row(
		db,
		'SELECT f.id, f.size FROM files f WHERE f.hash = UNHEX(?) AND EXISTS (SELECT 1 FROM load_files u JOIN loads l ON l.id = u.load_id WHERE u.file_id = f.id AND l.course_id = ?)',
		[hash, courseId]
	);
}
