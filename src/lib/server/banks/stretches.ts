import type { Pool } from 'mysql2/promise';
import { withUnder } from '$core/take-in/under';
import type { CourseCounts } from '../courses/counts';
import { row, rows, type Database } from '../db/pool';
import { areScanned, conditionFor, type Condition } from './conditions';
import { nameOf, type QuestionFilter } from './filter';
import { memory } from '../db/memory';
import type { CategoryNode } from './tree';
import { wordCondition } from './words';

/** A stretch of a list: the questions of one category, from the place `from` on. */
export interface Stretch {
	categoryId: number | null;
	from: number;
	count: number;
}

/** From so many questions on they are counted in two halves at once, on a processor each. */
const manyQuestions = 20_000;

const nothingMore: Condition = { sql: '', parameters: [] };

/** The categories that a filter means, in the order of the tree; what stands in none comes first of all. */
export function categoriesInTree(filter: QuestionFilter, tree: CategoryNode[]): (number | null)[] {
	if (filter.categoryId === null) return [null, ...tree.map((node) => node.id)];
	if (!filter.withUnder) return [filter.categoryId];
	const chosen = new Set(withUnder(tree, filter.categoryId));
	return tree.filter((node) => chosen.has(node.id)).map((node) => node.id);
}

/** Stretches by how many questions each category has, in the order of a list. */
export function inStretches(filter: QuestionFilter, tree: CategoryNode[], held: Map<number | null, number>): Stretch[] {
	const inOrder = categoriesInTree(filter, tree);
	let from = 0;
	return (filter.down ? inOrder.reverse() : inOrder).flatMap((categoryId) => {
		const count = held.get(categoryId) ?? 0;
		const stretch = { categoryId, from, count };
		from += count;
		return count ? [stretch] : [];
	});
}

/** How many questions stretches have together. */
export const lengthOf = (stretches: readonly Stretch[]): number => stretches.reduce((sum, { count }) => sum + count, 0);

/** What is asked of questions `q` beside their place, as a condition. */
function askedOf({ filters, words }: QuestionFilter): Condition {
	const [more, searched] = [conditionFor(filters), wordCondition(words)];
	return { sql: more.sql + searched.sql, parameters: [...more.parameters, ...searched.parameters] };
}

/** The index that answers a filter by itself: by_searched for words alone, by_filters for what no index is for; none for the rest. */
function indexFor({ filters, words }: QuestionFilter): string {
	if (words.trim()) return ` FORCE INDEX (${Object.keys(filters).length ? 'by_filters' : 'by_searched'})`;
	return Object.keys(filters).length && areScanned(filters) ? ' FORCE INDEX (by_filters)' : '';
}

/** The questions `q` that a filter finds, as what stands from FROM on; `more` is asked of them beside it. */
export function foundBy(
	filter: QuestionFilter,
	tree: CategoryNode[],
	{ index = indexFor(filter), join = '', more = nothingMore } = {}
): Condition {
	const asked = askedOf(filter);
	const named = filter.categoryId === null ? [] : [categoriesInTree(filter, tree)];
	return {
		sql: `FROM questions q${index}${join} WHERE q.bank_id = ?${named.length ? ' AND q.category_id IN (?)' : ''}${asked.sql}${more.sql}`,
		parameters: [
			filter.bankId,
			...named.map((categories) => (categories.length ? categories : [0])),
			...asked.parameters,
			...more.parameters
		]
	};
}

/** How many questions of a bank each category has, of a kind or of all, by what is kept of the course. */
function keptIn({ bankId, filters: { kind } }: QuestionFilter, counts: CourseCounts): Map<number | null, number> {
	const held = new Map<number | null, number>();
	for (const place of counts.places)
		if (place.bankId === bankId && (!kind || place.kind === kind))
			held.set(place.categoryId, (held.get(place.categoryId) ?? 0) + place.questions);
	return held;
}

/** Where a whole bank is large, the conditions for two parts of it that hold about as much: up to one of its categories, and behind it. */
function halves({ categoryId }: QuestionFilter, held: Map<number | null, number>, many: number): Condition[] {
	const sizes = [...held].sort(([a], [b]) => (a ?? 0) - (b ?? 0));
	const all = sizes.reduce((sum, [, size]) => sum + size, 0);
	if (categoryId !== null || all < many) return [nothingMore];
	let sum = 0;
	const [last] = sizes.find(([, size]) => (sum += size) >= all / 2)!;
	return [
		{ sql: ' AND (q.category_id IS NULL OR q.category_id <= ?)', parameters: [last ?? 0] },
		{ sql: ' AND q.category_id > ?', parameters: [last ?? 0] }
	];
}

/** The stretches of lists that were counted. */
const countedOf = memory<Promise<Stretch[]>>(200);

/**
 * The stretches of a list in the order of the tree: by what is kept of the course where nothing but the kind is asked for,
 * else counted, from `many` questions on in two halves, and remembered for as long as nothing in the course changes.
 */
export async function stretchesOf(
	pool: Pool,
	filter: QuestionFilter,
	tree: CategoryNode[],
	counts: CourseCounts,
	many = manyQuestions
): Promise<Stretch[]> {
	const held = keptIn(filter, counts);
	if (!filter.words.trim() && Object.keys(filter.filters).every((name) => name === 'kind'))
		return inStretches(filter, tree, held);
	return countedOf(pool, nameOf(counts.state, { ...filter, sort: 'tree' }, many), () =>
		countedStretches(pool, filter, tree, halves(filter, held, many))
	);
}

/** The stretches of a list by counting what is asked for, in parts at once. */
async function countedStretches(
	pool: Pool,
	filter: QuestionFilter,
	tree: CategoryNode[],
	parts: Condition[]
): Promise<Stretch[]> {
	const counted = await Promise.all(
		parts.map((more) => {
			const { sql, parameters } = foundBy(filter, tree, { more });
			return rows<{ categoryId: number | null; n: number }>(
				pool,
				`SELECT q.category_id AS categoryId, COUNT(*) AS n ${sql} GROUP BY q.category_id`,
				parameters
			);
		})
	);
	return inStretches(filter, tree, new Map(counted.flat().map(({ categoryId, n }) => [categoryId, n])));
}

/** The keys of the questions in a window of a list that is in the order of the tree; `more` is asked of them beside the filter. */
export async function keysInStretches(
	db: Database,
	filter: QuestionFilter,
	stretches: readonly Stretch[],
	{ from, count, more = '' }: { from: number; count: number; more?: string }
): Promise<number[]> {
	const to = from + count;
	const wanted = stretches.filter((stretch) => stretch.from < to && stretch.from + stretch.count > from);
	if (!wanted.length) return [];
	const asked = askedOf(filter);
	const way = filter.down ? 'DESC' : 'ASC';
	// by_searched, by_filters or by_place, each of which has the questions of a category in their order
	const parts = wanted.map((stretch, at) => {
		const skip = Math.max(0, from - stretch.from);
		const take = Math.min(stretch.count - skip, to - Math.max(from, stretch.from));
		return {
			sql: `(SELECT ${at} AS stretch, q.id FROM questions q${indexFor(filter)} WHERE q.bank_id = ? AND q.category_id <=> ?${asked.sql}${more} ORDER BY q.id ${way} LIMIT ${skip}, ${take})`,
			parameters: [filter.bankId, stretch.categoryId, ...asked.parameters]
		};
	});
	const found = await rows<{ id: number }>(
		db,
		`${parts.map((part) => part.sql).join(' UNION ALL ')} ORDER BY stretch, id ${way}`,
		parts.flatMap((part) => part.parameters)
	);
	return found.map(({ id }) => id);
}

/** So few are found first and then put in order. */
const fewFound = 3000;

/** The keys of all that a filter finds by more than their place, where they are few; null where they are not. */
export async function keysOfFew(
	db: Database,
	filter: QuestionFilter,
	stretches: readonly Stretch[]
): Promise<number[] | null> {
	const total = lengthOf(stretches);
	const isAsked = filter.words.trim() !== '' || Object.keys(filter.filters).length > 0;
	if (!isAsked || total > fewFound) return null;
	return keysInStretches(db, { ...filter, down: false }, stretches, { from: 0, count: total });
}

/** The place of a question in a list that is in the order of the tree, from 0; null where it is not in it. */
export async function placeInStretches(
	db: Database,
	filter: QuestionFilter,
	stretches: readonly Stretch[],
	questionId: number,
	more = ''
): Promise<number | null> {
	const question = await row<{ categoryId: number | null }>(
		db,
		'SELECT category_id AS categoryId FROM questions WHERE id = ? AND bank_id = ?',
		[questionId, filter.bankId]
	);
	const stretch = question && stretches.find(({ categoryId }) => categoryId === question.categoryId);
	if (!stretch) return null;
	const asked = askedOf(filter);
	const before = await row<{ n: number }>(
		db,
		`SELECT COUNT(*) AS n FROM questions q${indexFor(filter)} WHERE q.bank_id = ? AND q.category_id <=> ?${asked.sql}${more} AND q.id ${filter.down ? '>' : '<'} ?`,
		[filter.bankId, stretch.categoryId, ...asked.parameters, questionId]
	);
	return stretch.from + before!.n;
}
