import type { PoolConnection } from 'mysql2/promise';
import { rows, run } from '../db/pool';

/** What a deed may change beside questions. */
export type Thing = 'bank' | 'category';

const columns: Record<Thing, { table: string; names: readonly string[] }> = {
	bank: { table: 'banks', names: ['id', 'course_id', 'name', 'description', 'load_id', 'made_by'] },
	category: { table: 'categories', names: ['id', 'bank_id', 'parent_id', 'name', 'position', 'code', 'load_id'] }
};

/** A bank or a category as its columns. */
export type Image = Record<string, string | number | null> & { id: number };

/** Banks or categories as they are now, by key. */
export async function imagesOf(
	connection: PoolConnection,
	thing: Thing,
	ids: readonly number[]
): Promise<Map<number, Image>> {
	if (!ids.length) return new Map();
	const { table, names } = columns[thing];
	const found = await rows<Image>(connection, `SELECT ${names.join(', ')} FROM ${table} WHERE id IN (?) FOR UPDATE`, [
		ids
	]);
	return new Map(found.map((image) => [image.id, image]));
}

const batch = 500;

/**
 * Makes a change to banks or categories, and keeps under a deed what they were and are. `change` gives the keys of those
 * that it has made.
 */
export async function changeThings(
	connection: PoolConnection,
	deedId: number,
	thing: Thing,
	ids: readonly number[],
	change: () => Promise<readonly number[] | undefined>
): Promise<readonly number[]> {
	const before = await imagesOf(connection, thing, ids);
	const made = (await change()) ?? [];
	const all = [...new Set([...ids, ...made])];
	const after = await imagesOf(connection, thing, all);
	const kept = all.flatMap((id) => {
		const [was, is] = [before.get(id), after.get(id)].map((image) => (image ? JSON.stringify(image) : null));
		return was === is ? [] : [[deedId, thing, id, was, is]];
	});
	for (let at = 0; at < kept.length; at += batch)
		await run(
			connection,
			'INSERT INTO changed_things (deed_id, thing, thing_id, before_it, after_it) VALUES ? ON DUPLICATE KEY UPDATE after_it = VALUES(after_it)',
			[kept.slice(at, at + batch)]
		);
	return made;
}

/** Puts banks or categories back that are gone, as they were, those above before those under them. */
export async function insertImages(connection: PoolConnection, thing: Thing, images: readonly Image[]): Promise<void> {
	const { table, names } = columns[thing];
	const waiting = new Map(images.map((image) => [image.id, image]));
	while (waiting.size) {
		const now = [...waiting.values()].filter(
			({ parent_id: parent }) => typeof parent !== 'number' || !waiting.has(parent)
		);
		if (!now.length) return;
		for (const { id } of now) waiting.delete(id);
		await run(connection, `INSERT INTO ${table} (${names.join(', ')}) VALUES ?`, [
			now.map((image) => names.map((name) => image[name] ?? null))
		]);
	}
}

/** Makes banks or categories what they were. */
export async function updateImages(connection: PoolConnection, thing: Thing, images: readonly Image[]): Promise<void> {
	const { table, names } = columns[thing];
	const set = names.filter((name) => name !== 'id').map((name) => `${name} = VALUES(${name})`);
	for (let at = 0; at < images.length; at += batch)
		await run(
			connection,
			`INSERT INTO ${table} (${names.join(', ')}) VALUES ? ON DUPLICATE KEY UPDATE ${set.join(', ')}`,
			[images.slice(at, at + batch).map((image) => names.map((name) => image[name] ?? null))]
		);
}
