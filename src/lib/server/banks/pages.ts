import type { Pool } from 'mysql2/promise';
import { countsOf, type CourseCounts } from '../courses/counts';
import { row, rows, type Database } from '../db/pool';
import { isByColumn, keysByColumn } from './by-column';
import { isByName, keysByName } from './by-name';
import { byWeight, isByWeight, keysByWeight, placeByWeight } from './by-weight';
import { filterOf, type Chosen, type QuestionFilter } from './filter';
import { questionRows, type QuestionRow } from './question-rows';
import {
	categoriesInTree,
	foundBy,
	keysInStretches,
	lengthOf,
	placeInStretches,
	stretchesOf,
	type Stretch
} from './stretches';
import { keptTree, type CategoryNode } from './tree';

/** Some questions of a longer list: those from the place `from` on, of so many in all. */
export interface QuestionPage {
	total: number;
	from: number;
	rows: QuestionRow[];
}

/** How many questions are sent at once. */
export const pageSize = 100;

/** The most that a search goes through. */
const mostFound = 500_000;
/** The start of a window, and the keys in it. */
async function windowOf(
	pool: Pool,
	filter: QuestionFilter,
	tree: CategoryNode[],
	stretches: readonly Stretch[],
	state: string | undefined,
	at: { from: number } | { questionId: number | null }
): Promise<{ from: number; keys: number[] }> {
	const startOf = (place: number | null) => Math.floor((place ?? 0) / pageSize) * pageSize;
	const wanted = 'from' in at ? null : at.questionId;
	const asked = 'from' in at ? at.from : 0;
	if (isByWeight(filter)) {
		const list = await byWeight(pool, filter, tree, stretches, state);
		const from = startOf(wanted === null ? asked : await placeByWeight(pool, list, wanted));
		return { from, keys: await keysByWeight(pool, list, from, pageSize) };
	}
	const place = { from: startOf(asked), count: pageSize, state };
	if (isByName(filter)) return { from: place.from, keys: await keysByName(pool, filter, tree, stretches, place) };
	if (isByColumn(filter)) return { from: place.from, keys: await keysByColumn(pool, filter, tree, stretches, place) };
	const from = startOf(wanted === null ? asked : await placeInStretches(pool, filter, stretches, wanted));
	return { from, keys: await keysInStretches(pool, filter, stretches, { from, count: pageSize }) };
}

/**
 * A page of the questions of a bank that fit a filter, in its order: the page with the place `from`, or the page with a
 * question, where one is named that fits. In the order of the tree they stand as they came in each category.
 */
export async function questionsPage(
	pool: Pool,
	courseId: number,
	filter: QuestionFilter,
	at: { from: number } | { questionId: number | null },
	known?: { tree: CategoryNode[]; counts: CourseCounts }
): Promise<QuestionPage> {
	const counts = known?.counts ?? (await countsOf(pool, courseId));
	const tree = known?.tree ?? (await keptTree(pool, filter.bankId, counts));
	const stretches = await stretchesOf(pool, filter, tree, counts);
	const { from, keys } = await windowOf(pool, filter, tree, stretches, counts.state, at);
	return { total: lengthOf(stretches), from, rows: await questionRows(pool, keys, filter.words) };
}

/** The keys of all questions that a filter finds, in the order of the tree. */
async function keysFound(db: Database, filter: QuestionFilter, tree: CategoryNode[]): Promise<number[]> {
	const { sql, parameters } = foundBy(filter, tree);
	const standing = await rows<{ id: number; categoryId: number | null }>(
		db,
		`SELECT q.id, q.category_id AS categoryId ${sql} LIMIT ${mostFound}`,
		parameters
	);
	const place = new Map(categoriesInTree(filter, tree).map((id, at) => [id, at]));
	return standing
		.sort((a, b) => (place.get(a.categoryId) ?? 0) - (place.get(b.categoryId) ?? 0) || a.id - b.id)
		.map(({ id }) => id);
}

/** The keys of the questions of a course that are chosen, in the order of the tree where a filter names them. */
export async function chosenIds(db: Database, courseId: number, chosen: Chosen): Promise<number[]> {
	const bank = await row<{ id: number }>(db, 'SELECT id FROM banks WHERE id = ? AND course_id = ?', [
		chosen.bankId,
		courseId
	]);
	if (!bank) return [];
	if (chosen.ids) {
		if (!chosen.ids.length) return [];
		const own = await rows<{ id: number }>(db, 'SELECT id FROM questions WHERE course_id = ? AND id IN (?)', [
			courseId,
			chosen.ids
		]);
		const there = new Set(own.map(({ id }) => id));
		return chosen.ids.filter((id) => there.has(id));
	}
	const filter = filterOf(chosen);
	const tree = await keptTree(db, chosen.bankId, { places: [], snags: [], rules: [] });
	const left = new Set(chosen.except);
	return (await keysFound(db, filter, tree)).filter((id) => !left.has(id));
}
