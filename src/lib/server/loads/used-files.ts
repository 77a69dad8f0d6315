import { row, rows, type Database } from '../db/pool';

/** The pictures and other files that the questions of a load use, the most used first, each with its size in bytes. */
export interface UsedFiles {
	count: number;
	size: number;
	/** Those that several questions share, as many as fit a list. */
	shared: { name: string; uses: number; hash: string }[];
}

const mostShared = 40;

/** What the questions of a load use beside their words. */
export async function usedFiles(db: Database, loadId: number): Promise<UsedFiles> {
	const all = await row<{ count: number; size: string | null }>(
		db,
		'SELECT COUNT(*) AS count, SUM(f.size) AS size FROM load_files u JOIN files f ON f.id = u.file_id WHERE u.load_id = ?',
		[loadId]
	);
	const shared = await rows<UsedFiles['shared'][number]>(
		db,
		`SELECT u.name, u.uses, LOWER(HEX(f.hash)) AS hash FROM load_files u JOIN files f ON f.id = u.file_id WHERE u.load_id = ? AND u.uses > 1 ORDER BY u.uses DESC, u.name LIMIT ${mostShared}`,
		[loadId]
	);
	return { count: all?.count ?? 0, size: Number(all?.size ?? 0), shared };
}
