import type { PoolConnection } from 'mysql2/promise';
import { changeThings } from '../changes/things';
import { categoryTree, ensureCategories } from './tree';

/** Makes sure that a bank has categories of these paths, those that it lacks being made by a deed; gives the key of each by its path. */
export async function ensureByDeed(
	connection: PoolConnection,
	deedId: number,
	bankId: number,
	paths: string[][]
): Promise<Map<string, number>> {
	const before = new Set((await categoryTree(connection, bankId)).map(({ id }) => id));
	let ids = new Map<string, number>();
	await changeThings(connection, deedId, 'category', [], async () => {
		({ ids } = await ensureCategories(connection, bankId, paths, null));
		return [...ids.values()].filter((id) => !before.has(id));
	});
	return ids;
}
