import { row, type Database } from '../db/pool';

/** Where the categories of a load can come from: as they were read, the sections or the metadata of the package, or its folders. */
export const categorySources = ['package', 'sections', 'metadata', 'folders'] as const;

/** One of those. */
export type CategorySource = (typeof categorySources)[number];

/** The sources that put the questions of a load otherwise than they were read, and the one that is taken now; null where a person has put questions elsewhere. */
export async function sourcesOf(
	db: Database,
	loadId: number
): Promise<{ others: CategorySource[]; now: CategorySource | null }> {
	// by_number
	const found = await row<Record<string, number | string | null>>(
		db,
		`SELECT COUNT(DISTINCT folder_path) > 1 AND SUM(folder_path <> category_path) > 0 AS folders,
			COUNT(DISTINCT section_path) > 0 AND SUM(COALESCE(section_path, '') <> category_path) > 0 AS sections,
			COUNT(DISTINCT metadata_path) > 0 AND SUM(COALESCE(metadata_path, '') <> category_path) > 0 AS metadata,
			SUM(placed_path IS NOT NULL) = 0 AS now_package,
			SUM(COALESCE(placed_path, category_path) <> folder_path) = 0 AS now_folders,
			SUM(COALESCE(placed_path, category_path) <> COALESCE(section_path, '')) = 0 AS now_sections,
			SUM(COALESCE(placed_path, category_path) <> COALESCE(metadata_path, '')) = 0 AS now_metadata
		FROM staged_questions WHERE load_id = ?`,
		[loadId]
	);
	return {
		others: categorySources.filter((one) => one !== 'package' && Number(found?.[one]) > 0),
		now: categorySources.find((one) => Number(found?.[`now_${one}`]) > 0) ?? null
	};
}
