import type { Pool } from 'mysql2/promise';
import type { Kind } from '$core/kinds';
import type { Severity } from '$core/reports/report';
import { countsOf, type CourseCounts } from '../courses/counts';
import { row, rows, type Database } from '../db/pool';
import { keptTree, withUnder, type CategoryNode } from './tree';
import { wordCondition } from './words';

/** A question of a bank, for a list. */
export interface QuestionRow {
	id: number;
	kind: Kind;
	title: string;
	points: number | null;
	categoryId: number | null;
	/** The worst of its open snags, and how many there are. */
	worst: Severity | null;
	snags: number;
}

/** What questions are looked for. */
export interface QuestionFilter {
	bankId: number;
	categoryId: number | null;
	withUnder: boolean;
	words: string;
	kind: string;
}

/** Some questions of a longer list: those from the place `from` on, of so many in all. */
export interface QuestionPage {
	total: number;
	from: number;
	rows: QuestionRow[];
}

/** How many questions are sent at once. */
export const pageSize = 100;

/** The most that a search for words goes through. */
const mostFound = 100_000;

/** A stretch of a list: the questions of one category, from the place `from` on. */
interface Stretch {
	categoryId: number | null;
	from: number;
	count: number;
}

/** The categories that a filter means, in the order of the tree; what stands in none comes first. */
function categoriesOf(filter: QuestionFilter, tree: CategoryNode[]): (number | null)[] {
	if (filter.categoryId === null) return [null, ...tree.map((node) => node.id)];
	if (!filter.withUnder) return [filter.categoryId];
	const chosen = new Set(withUnder(tree, filter.categoryId));
	return tree.filter((node) => chosen.has(node.id)).map((node) => node.id);
}

function stretchesOf(filter: QuestionFilter, tree: CategoryNode[], counts: CourseCounts): Stretch[] {
	const held = new Map<number | null, number>();
	for (const { bankId, categoryId, kind, questions } of counts.places)
		if (bankId === filter.bankId && (!filter.kind || kind === filter.kind))
			held.set(categoryId, (held.get(categoryId) ?? 0) + questions);
	let from = 0;
	return categoriesOf(filter, tree).flatMap((categoryId) => {
		const count = held.get(categoryId) ?? 0;
		const stretch = { categoryId, from, count };
		from += count;
		return count ? [stretch] : [];
	});
}

const ofKind = (filter: QuestionFilter) => (filter.kind ? ' AND kind = ?' : '');

/** The keys of the questions in a window of a list that is in the order of the tree. */
async function keysInOrder(
	db: Database,
	filter: QuestionFilter,
	stretches: Stretch[],
	from: number
): Promise<number[]> {
	const to = from + pageSize;
	const wanted = stretches.filter((stretch) => stretch.from < to && stretch.from + stretch.count > from);
	if (!wanted.length) return [];
	// by_place
	const parts = wanted.map((stretch, at) => {
		const skip = Math.max(0, from - stretch.from);
		const take = Math.min(stretch.count - skip, to - Math.max(from, stretch.from));
		return {
			sql: `(SELECT ${at} AS stretch, id FROM questions WHERE bank_id = ? AND category_id <=> ?${ofKind(filter)} ORDER BY id LIMIT ${skip}, ${take})`,
			parameters: [filter.bankId, stretch.categoryId, ...(filter.kind ? [filter.kind] : [])]
		};
	});
	const found = await rows<{ id: number }>(
		db,
		`${parts.map((part) => part.sql).join(' UNION ALL ')} ORDER BY stretch, id`,
		parts.flatMap((part) => part.parameters)
	);
	return found.map(({ id }) => id);
}

/** The keys of all questions with some words, in the order of the tree. */
async function keysWithWords(db: Database, filter: QuestionFilter, tree: CategoryNode[]): Promise<number[]> {
	const categories = categoriesOf(filter, tree);
	const place = new Map(categories.map((id, at) => [id, at]));
	const words = wordCondition(filter.words);
	// by_words
	const found = await rows<{ id: number; categoryId: number | null }>(
		db,
		`SELECT q.id, q.category_id AS categoryId FROM questions q WHERE q.bank_id = ?${filter.kind ? ' AND q.kind = ?' : ''}${words.sql} LIMIT ${mostFound}`,
		[filter.bankId, ...(filter.kind ? [filter.kind] : []), ...words.parameters]
	);
	return found
		.filter(({ categoryId }) => place.has(categoryId))
		.sort((a, b) => place.get(a.categoryId)! - place.get(b.categoryId)! || a.id - b.id)
		.map(({ id }) => id);
}

async function rowsOf(db: Database, ids: number[]): Promise<QuestionRow[]> {
	if (!ids.length) return [];
	const found = await rows<QuestionRow>(
		db,
		`SELECT q.id, q.kind, q.title, q.points, q.category_id AS categoryId,
			(SELECT MIN(s.severity) FROM snags s WHERE s.question_id = q.id) AS worst, (SELECT COUNT(*) FROM snags s WHERE s.question_id = q.id) AS snags
		FROM questions q WHERE q.id IN (?)`,
		[ids]
	);
	const byId = new Map(found.map((question) => [question.id, question]));
	return ids.flatMap((id) => byId.get(id) ?? []);
}

/** The place of a question in the list of a filter without words, from 0; null where it is not in it. */
async function placeOf(
	db: Database,
	filter: QuestionFilter,
	stretches: Stretch[],
	questionId: number
): Promise<number | null> {
	const question = await row<{ categoryId: number | null }>(
		db,
		'SELECT category_id AS categoryId FROM questions WHERE id = ? AND bank_id = ?',
		[questionId, filter.bankId]
	);
	const stretch = question && stretches.find(({ categoryId }) => categoryId === question.categoryId);
	if (!stretch) return null;
	// by_place
	const before = await row<{ n: number }>(
		db,
		`SELECT COUNT(*) AS n FROM questions WHERE bank_id = ? AND category_id <=> ?${ofKind(filter)} AND id < ?`,
		[filter.bankId, stretch.categoryId, ...(filter.kind ? [filter.kind] : []), questionId]
	);
	return stretch.from + before!.n;
}

/**
 * A page of the questions of a bank that fit a filter, in the order of its tree and in each category in the order in which
 * they came: the page with the place `from`, or the page with a question, where one is named that fits.
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
	const startOf = (place: number | null) => Math.floor((place ?? 0) / pageSize) * pageSize;
	if (filter.words.trim()) {
		const keys = await keysWithWords(pool, filter, tree);
		const from = startOf('from' in at ? at.from : Math.max(0, keys.indexOf(at.questionId ?? 0)));
		return { total: keys.length, from, rows: await rowsOf(pool, keys.slice(from, from + pageSize)) };
	}
	const stretches = stretchesOf(filter, tree, counts);
	const total = stretches.reduce((sum, stretch) => sum + stretch.count, 0);
	const place =
		'from' in at ? at.from : at.questionId === null ? 0 : await placeOf(pool, filter, stretches, at.questionId);
	const from = startOf(place);
	return { total, from, rows: await rowsOf(pool, await keysInOrder(pool, filter, stretches, from)) };
}
