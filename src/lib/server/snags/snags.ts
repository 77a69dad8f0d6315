import type { Pool } from 'mysql2/promise';
import { bankNames } from '../banks/banks';
import { countsOf, type CourseCounts } from '../courses/counts';
import { rows } from '../db/pool';

/** A check with the number of questions of a course that it speaks of. */
export type SnagCount = CourseCounts['rules'][number];

/** How many questions each rule speaks of in a course. */
export async function snagCounts(pool: Pool, courseId: number): Promise<SnagCount[]> {
	return (await countsOf(pool, courseId)).rules;
}

/** Open snags of a category, or of what stands in none of its bank, by how bad they are. */
export interface SnagPlace {
	name: string;
	broken: number;
	doubtful: number;
	untidy: number;
}

/** The categories of a course with the most open snags. */
export async function snagPlaces(pool: Pool, courseId: number, most = 8): Promise<SnagPlace[]> {
	const places = new Map<string, SnagPlace & { bankId: number; categoryId: number | null }>();
	for (const { bankId, categoryId, severity, snags } of (await countsOf(pool, courseId)).snags) {
		const key = `${bankId} ${categoryId}`;
		const place = places.get(key) ?? { name: '', bankId, categoryId, broken: 0, doubtful: 0, untidy: 0 };
		places.set(key, place);
		place[severity] += snags;
	}
	const inAll = ({ broken, doubtful, untidy }: SnagPlace) => broken + doubtful + untidy;
	const worst = [...places.values()].sort((a, b) => inAll(b) - inAll(a)).slice(0, most);
	const ids = worst.flatMap(({ categoryId }) => (categoryId === null ? [] : [categoryId]));
	const named = ids.length
		? await rows<{ id: number; name: string }>(pool, 'SELECT id, name FROM categories WHERE id IN (?)', [ids])
		: [];
	const categories = new Map(named.map(({ id, name }) => [id, name]));
	const banks = new Map((await bankNames(pool, courseId)).map(({ id, name }) => [id, name]));
	return worst.map(({ bankId, categoryId, ...place }) => ({
		...place,
		name: (categoryId === null ? banks.get(bankId) : categories.get(categoryId)) ?? ''
	}));
}
