import type { PoolConnection } from 'mysql2/promise';
import { pathKey, withAbove } from '../../../../core/take-in/paths';
import { rows, run, type Database } from '../db/pool';

/** A category in the tree of a bank, in the order in which it is shown. */
export interface CategoryNode {
	id: number;
	parentId: number | null;
	name: string;
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
	own: number;
	snags: number;
}

/** The categories of a bank as a tree laid out in lines, with counts of questions and of snags. */
export async function categoryTree(db: Database, bankId: number): Promise<CategoryNode[]> {
	// by_parent and by_category
	const found = await rows<CategoryRow>(
		db,
		`SELECT c.id, c.parent_id, c.name, COALESCE(n.own, 0) AS own, COALESCE(n.snags, 0) AS snags
		FROM categories c LEFT JOIN (
			SELECT q.category_id, COUNT(DISTINCT q.id) AS own, COUNT(s.id) AS snags FROM questions q LEFT JOIN snags s ON s.question_id = q.id WHERE q.bank_id = ? GROUP BY q.category_id
		) n ON n.category_id = c.id
		WHERE c.bank_id = ? ORDER BY c.position, c.id`,
		[bankId, bankId]
	);
	const below = new Map<number | null, CategoryRow[]>();
	for (const one of found) below.set(one.parent_id, [...(below.get(one.parent_id) ?? []), one]);
	const lines: CategoryNode[] = [];
	const walk = (parentId: number | null, path: string[]): { all: number; snags: number } => {
		const sum = { all: 0, snags: 0 };
		for (const one of below.get(parentId) ?? []) {
			const here = [...path, one.name];
			const line: CategoryNode = {
				id: one.id,
				parentId,
				name: one.name,
				key: pathKey(here),
				depth: path.length,
				own: one.own,
				all: one.own,
				ownSnags: one.snags,
				allSnags: one.snags
			};
			lines.push(line);
			const under = walk(one.id, here);
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

/** A category and everything under it, by key. */
export function withUnder(tree: CategoryNode[], categoryId: number): number[] {
	const found = new Set([categoryId]);
	for (const node of tree) if (node.parentId !== null && found.has(node.parentId)) found.add(node.id);
	return [...found];
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
