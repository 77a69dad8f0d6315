import type { PoolPart, PoolSource } from '$core/draws/pool';
import { bankNames } from '../banks/banks';
import { keptTrees, type CategoryNode } from '../banks/tree';
import { withUnder } from '$core/take-in/under';
import type { CourseCounts } from '../courses/counts';
import { rows, type Database } from '../db/pool';

/** What quizzes draw from, with the trees of the banks as they are shown; unreadable questions are never drawn. */
export interface CoursePools extends PoolSource {
	/** The banks, each above its categories under its key made negative: it stands for its questions without a category. */
	tree: CategoryNode[];
}

const nothingCounted: CourseCounts = { places: [], snags: [], rules: [] };
/** Kinds of which nothing is drawn. */
const undrawn = new Set(['information', 'unreadable']);

/** The banks of a course with their trees, one below the other; the counts are of what can be drawn. */
async function bankTrees(db: Database, courseId: number, counts: CourseCounts): Promise<CategoryNode[]> {
	const places = counts.places.filter(({ kind }) => !undrawn.has(kind));
	const banks = await bankNames(db, courseId);
	const trees = await keptTrees(
		db,
		banks.map(({ id }) => id),
		{ ...counts, places }
	);
	return banks.flatMap((bank) => {
		const own = places
			.filter(({ bankId, categoryId }) => bankId === bank.id && categoryId === null)
			.reduce((sum, place) => sum + place.questions, 0);
		const tree = trees.get(bank.id)!;
		const all = own + tree.reduce((sum, node) => sum + node.own, 0);
		const root = {
			id: -bank.id,
			parentId: null,
			name: bank.name,
			code: '',
			key: '',
			depth: 0,
			own,
			all,
			ownSnags: 0,
			allSnags: 0
		};
		return [root, ...tree.map((node) => ({ ...node, parentId: node.parentId ?? root.id, depth: node.depth + 1 }))];
	});
}

interface DrawableRow {
	id: number;
	bank_id: number;
	category_id: number | null;
	kind: string;
	points: number | null;
}

/** The questions of some categories, and those that are named, as what can be drawn. */
async function drawableIn(
	db: Database,
	courseId: number,
	categories: readonly number[],
	named: readonly number[]
): Promise<Omit<PoolSource, 'tree'>> {
	const inCategory: Record<number, number[]> = Object.fromEntries(categories.map((id) => [id, []]));
	const points: Record<number, number | null> = {};
	const texts: number[] = [];
	const of = (ids: readonly number[]) => (ids.length ? ids : [0]);
	const columns = 'SELECT id, bank_id, category_id, kind, points FROM questions WHERE course_id = ?';
	// by_place, by_place, and by key
	const found = await rows<DrawableRow>(
		db,
		`${columns} AND category_id IN (?) UNION ${columns} AND bank_id IN (?) AND category_id IS NULL UNION ${columns} AND id IN (?) ORDER BY id`,
		[
			courseId,
			of(categories.filter((id) => id > 0)),
			courseId,
			of(categories.filter((id) => id < 0).map((id) => -id)),
			courseId,
			of(named)
		]
	);
	for (const question of found) {
		if (question.kind === 'unreadable') continue;
		if (question.kind === 'information') {
			texts.push(question.id);
			continue;
		}
		points[question.id] = question.points;
		inCategory[question.category_id ?? -question.bank_id]?.push(question.id);
	}
	return { inCategory, points, texts };
}

/** What some parts of a quiz draw from: the trees of all banks, and the questions of the categories that they mean. */
export async function poolSource(
	db: Database,
	courseId: number,
	parts: readonly PoolPart[],
	counts: CourseCounts = nothingCounted
): Promise<CoursePools> {
	const tree = await bankTrees(db, courseId, counts);
	const here = new Set(tree.map(({ id }) => id));
	const meant = new Set(
		parts
			.flatMap((part) => (part.withUnder ? part.categories.flatMap((id) => withUnder(tree, id)) : part.categories))
			.filter((id) => here.has(id))
	);
	const named = [...new Set(parts.flatMap((part) => part.questions))];
	return { tree, ...(await drawableIn(db, courseId, [...meant], named)) };
}
