import { rows, type Database } from '../db/pool';

/** Which rules are waived of which of some questions of loads. */
export async function waivedOf(db: Database, stagedIds: readonly number[]): Promise<Set<string>> {
	const found = await rows<{ id: number; rule: string }>(
		db,
		'SELECT staged_id AS id, rule FROM staged_waivers WHERE staged_id IN (?)',
		[stagedIds]
	);
	return new Set(found.map(({ id, rule }) => `${id} ${rule}`));
}
