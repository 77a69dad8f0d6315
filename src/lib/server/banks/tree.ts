import type { PoolConnection } from 'mysql2/promise';
import { pathKey, withAbove } from '$core/take-in/paths';
import type { CourseCounts } from '../courses/counts';
import { rows, run, type Database } from '../db/pool';

/** A category in the tree of a bank, in the order in which it is shown. */
export interface CategoryNode {
	id: number;
	parentId: number | null;
	name: string;
	/** A reference code, where somebody has given it one. */
	code: string;
	/** Its path, as `pathKey` gives it. */
	key: string;
	depth: number;
	/** Questions in it, and with what is under it. */
	own: number;
	all: number;
	/** Open snags of what is in it, and with what is under it. */
	ownSnags: number;
	allSnags: number;
}

interface CategoryRow {
	id: number;
	parent_id: number | null;
	name: string;
	code: string;
}

/** The questions of a category and their open snags, without what is under it. */
type Held = (categoryId: number) => { own: number; snags: number };

async function categoriesOf(db: Database, bankId: number): Promise<CategoryRow[]> {
	// by_parent
	return rows(db, 'SELECT id, parent_id, name, code FROM categories WHERE bank_id = ? ORDER BY position, id', [bankId]);
}

/** Categories as a tree laid out in lines. */
function laidOut(categories: CategoryRow[], held: Held): CategoryNode[] {
	const below = new Map<number | null, CategoryRow[]>();
	for (const category of categories) {
		const beside = below.get(category.parent_id);
		if (beside) beside.push(category);
		else below.set(category.parent_id, [category]);
	}
	const lines: CategoryNode[] = [];
	const walk = (parentId: number | null, path: string[]): { all: number; snags: number } => {
		const sum = { all: 0, snags: 0 };
		for (const { id, name, code } of below.get(parentId) ?? []) {
			const here = [...path, name];
			const { own, snags } = held(id);
			const line: CategoryNode = {
				id,
				parentId,
				name,
				code,
				key: pathKey(here),
				depth: path.length,
				own,
				all: own,
				ownSnags: snags,
				allSnags: snags
			};
			lines.push(line);
			const under = walk(id, here);
			line.all += under.all;
			line.allSnags += under.snags;
			sum.all += line.all;
			sum.snags += line.allSnags;
		}
		return sum;
	};
	walk(null, []);
	return lines;
}

/** The categories of a bank as a tree laid out in lines, with counts of questions and of snags as they are now. */
export async function categoryTree(db: Database, bankId: number): Promise<CategoryNode[]> {
	// by_place
	const found = await rows<{ id: number; own: number; snags: number }>(
		db,
		'SELECT q.category_id AS id, COUNT(DISTINCT q.id) AS own, COUNT(s.id) AS snags FROM questions q LEFT JOIN snags s ON s.question_id = q.id WHERE q.bank_id = ? AND q.category_id IS NOT NULL GROUP BY q.category_id',
		[bankId]
	);
	const counts = new Map(found.map(({ id, ...held }) => [id, held]));
	return laidOut(await categoriesOf(db, bankId), (id) => counts.get(id) ?? { own: 0, snags: 0 });
}

/** The trees of banks with the counts that are kept of the course, by the key of the bank. */
export async function keptTrees(
	db: Database,
	bankIds: readonly number[],
	counts: Pick<CourseCounts, 'places' | 'snags'>
): Promise<Map<number, CategoryNode[]>> {
	if (!bankIds.length) return new Map();
	const held = new Map<number, { own: number; snags: number }>();
	const at = (id: number) => {
		const known = held.get(id) ?? { own: 0, snags: 0 };
		held.set(id, known);
		return known;
	};
	for (const { categoryId, questions } of counts.places) if (categoryId !== null) at(categoryId).own += questions;
	for (const { categoryId, snags } of counts.snags) if (categoryId !== null) at(categoryId).snags += snags;
	// by_parent
	const found = await rows<CategoryRow & { bankId: number }>(
		db,
		'SELECT bank_id AS bankId, id, parent_id, name, code FROM categories WHERE bank_id IN (?) ORDER BY position, id',
		[bankIds]
	);
	const byBank = new Map<number, CategoryRow[]>(bankIds.map((id) => [id, []]));
	for (const { bankId, ...category } of found) byBank.get(bankId)!.push(category);
	return new Map(
		[...byBank].map(([bankId, categories]) => [
			bankId,
			laidOut(categories, (id) => held.get(id) ?? { own: 0, snags: 0 })
		])
	);
}

/** The same for one bank. */
export async function keptTree(db: Database, bankId: number, counts: CourseCounts): Promise<CategoryNode[]> {
	return (await keptTrees(db, [bankId], counts)).get(bankId) ?? [];
}

/** The paths of all categories of banks, by the key of the bank, each as `pathKey` gives it and in the order of its tree. */
export async function categoryPaths(db: Database, bankIds: readonly number[]): Promise<Map<number, string[]>> {
	const trees = await keptTrees(db, bankIds, { places: [], snags: [] });
	return new Map([...trees].map(([bankId, tree]) => [bankId, tree.map(({ key }) => key)]));
}

/** Makes sure that a bank has categories of these paths; gives the key of each by its path, and how many are new. */
export async function ensureCategories(
	connection: PoolConnection,
	bankId: number,
	paths: string[][],
	loadId: number | null
): Promise<{ ids: Map<string, number>; made: number }> {
	const ids = new Map((await categoryTree(connection, bankId)).map((node) => [node.key, node.id]));
	const needed = withAbove(paths).filter((path) => !ids.has(pathKey(path)));
	const deepest = Math.max(0, ...needed.map((path) => path.length));
	for (let depth = 1; depth <= deepest; depth += 1) {
		// one insert for each level of the tree: a level needs the keys of the one above
		const level = needed.filter((path) => path.length === depth);
		if (!level.length) continue;
		const { id } = await run(
			connection,
			'INSERT INTO categories (bank_id, parent_id, name, position, load_id) VALUES ?',
			[
				level.map((path, at) => [
					bankId,
					depth === 1 ? null : ids.get(pathKey(path.slice(0, -1)))!,
					path.at(-1)!.slice(0, 255),
					ids.size + at,
					loadId
				])
			]
		);
		level.forEach((path, at) => ids.set(pathKey(path), id + at));
	}
	return { ids, made: needed.length };
}
