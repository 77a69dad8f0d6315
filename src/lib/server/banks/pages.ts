import type { Pool } from 'mysql2/promise';
import type { Kind } from '$core/kinds';
import type { Severity } from '$core/reports/report';
import { countsOf, type CourseCounts } from '../courses/counts';
import { row, rows, type Database } from '../db/pool';
import { conditionFor } from './conditions';
import { filterOf, type Chosen, type QuestionFilter, type Sorting } from './filter';
import { keptTree, type CategoryNode } from './tree';
import { withUnder } from '$core/take-in/under';
import { wordCondition } from './words';

/** A question of a bank, for a list. */
export interface QuestionRow {
	id: number;
	kind: Kind;
	title: string;
	/** The beginning of its stem, as plain text. */
	stem: string;
	points: number | null;
	categoryId: number | null;
	tags: string[];
	difficulty: string;
	language: string;
	shuffle: boolean | null;
	/** What is known of its key. */
	key: 'verified' | 'unverified' | 'disputed' | 'machine';
	/** Somebody verified an older version of it. */
	stale: boolean;
	/** The worst of its open snags, and how many there are. */
	worst: Severity | null;
	snags: number;
	/** How many parts of quizzes name it. */
	used: number;
	created: Date;
	changed: Date | null;
	changedBy: string | null;
	/** The file of the load that it came with. */
	load: string | null;
}

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

/** A list in the order of the tree, of a kind or of all, is counted by what is kept of the course. */
function isCounted({ words, filters, sort, down }: QuestionFilter): boolean {
	return !words.trim() && sort === 'tree' && !down && Object.keys(filters).every((name) => name === 'kind');
}

function stretchesOf(filter: QuestionFilter, tree: CategoryNode[], counts: CourseCounts): Stretch[] {
	const held = new Map<number | null, number>();
	for (const { bankId, categoryId, kind, questions } of counts.places)
		if (bankId === filter.bankId && (!filter.filters.kind || kind === filter.filters.kind))
			held.set(categoryId, (held.get(categoryId) ?? 0) + questions);
	let from = 0;
	return categoriesOf(filter, tree).flatMap((categoryId) => {
		const count = held.get(categoryId) ?? 0;
		const stretch = { categoryId, from, count };
		from += count;
		return count ? [stretch] : [];
	});
}

/** The same counted in the database, where more is asked of the questions than their kind. */
async function countedStretches(db: Database, filter: QuestionFilter, tree: CategoryNode[]): Promise<Stretch[]> {
	const { sql, parameters } = found(filter, tree);
	const held = new Map(
		(
			await rows<{ categoryId: number | null; n: number }>(
				db,
				`SELECT q.category_id AS categoryId, COUNT(*) AS n ${sql} GROUP BY q.category_id`,
				parameters
			)
		).map(({ categoryId, n }) => [categoryId, n])
	);
	let from = 0;
	return categoriesOf(filter, tree).flatMap((categoryId) => {
		const count = held.get(categoryId) ?? 0;
		const stretch = { categoryId, from, count };
		from += count;
		return count ? [stretch] : [];
	});
}

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
	const more = conditionFor(filter.filters);
	// by_place
	const parts = wanted.map((stretch, at) => {
		const skip = Math.max(0, from - stretch.from);
		const take = Math.min(stretch.count - skip, to - Math.max(from, stretch.from));
		return {
			sql: `(SELECT ${at} AS stretch, q.id FROM questions q WHERE q.bank_id = ? AND q.category_id <=> ?${more.sql} ORDER BY q.id LIMIT ${skip}, ${take})`,
			parameters: [filter.bankId, stretch.categoryId, ...more.parameters]
		};
	});
	const found = await rows<{ id: number }>(
		db,
		`${parts.map((part) => part.sql).join(' UNION ALL ')} ORDER BY stretch, id`,
		parts.flatMap((part) => part.parameters)
	);
	return found.map(({ id }) => id);
}

/** The columns by which a list is ordered in the database; snags and the tree are put in order here. */
const columns: Record<Exclude<Sorting, 'tree' | 'snags'>, string> = {
	title: 'q.title',
	kind: 'q.kind',
	points: 'q.points',
	difficulty: 'q.difficulty',
	created: 'q.created',
	changed: 'q.changed'
};

/** The questions `q` that a filter finds, as what stands after FROM and WHERE. */
function found(filter: QuestionFilter, tree: CategoryNode[]): { sql: string; parameters: unknown[] } {
	const words = filter.words.trim() ? wordCondition(filter.words) : { sql: '', parameters: [] };
	const more = conditionFor(filter.filters);
	const categories = filter.categoryId === null ? [] : categoriesOf(filter, tree);
	return {
		sql: `FROM questions q WHERE q.bank_id = ?${filter.categoryId === null ? '' : ' AND q.category_id IN (?)'}${more.sql}${words.sql}`,
		parameters: [
			filter.bankId,
			...(filter.categoryId === null ? [] : [categories.length ? categories : [0]]),
			...more.parameters,
			...words.parameters
		]
	};
}

/** The keys of all questions that a filter finds, in the order of the tree or by their snags. */
async function keysFound(db: Database, filter: QuestionFilter, tree: CategoryNode[]): Promise<number[]> {
	const { sql, parameters } = found(filter, tree);
	const bySnags = filter.sort === 'snags';
	const standing = await rows<{ id: number; categoryId: number | null; weight: number }>(
		db,
		bySnags
			? `SELECT q.id, q.category_id AS categoryId, COALESCE(g.weight, 0) AS weight ${sql.replace(
					'FROM questions q',
					`FROM questions q LEFT JOIN (SELECT question_id, MAX(4 - severity) * 1000 + COUNT(*) AS weight FROM snags WHERE course_id = (SELECT course_id FROM banks WHERE id = ${Number(filter.bankId)}) GROUP BY question_id) g ON g.question_id = q.id`
				)} LIMIT ${mostFound}`
			: `SELECT q.id, q.category_id AS categoryId, 0 AS weight ${sql} LIMIT ${mostFound}`,
		parameters
	);
	const place = new Map(categoriesOf(filter, tree).map((id, at) => [id, at]));
	const way = filter.down ? -1 : 1;
	return standing
		.sort(
			(a, b) =>
				(bySnags ? way * (Number(b.weight) - Number(a.weight)) : 0) ||
				way * ((place.get(a.categoryId) ?? 0) - (place.get(b.categoryId) ?? 0)) ||
				way * (a.id - b.id)
		)
		.map(({ id }) => id);
}

/** A window of a list that the database orders by a column, of so many in all. */
async function windowOf(
	db: Database,
	filter: QuestionFilter & { sort: keyof typeof columns },
	tree: CategoryNode[],
	from: number,
	/** How many questions there are, where nothing is asked of them. */
	kept: number
): Promise<{ total: number; keys: number[] }> {
	const { sql, parameters } = found(filter, tree);
	const way = filter.down ? 'DESC' : 'ASC';
	const isWhole = !filter.words.trim() && !Object.keys(filter.filters).length;
	const [keys, counted] = await Promise.all([
		// by_title, by_points, by_difficulty, by_created or by_changed, where nothing else is asked for
		rows<{ id: number }>(
			db,
			`SELECT q.id ${sql} ORDER BY ${columns[filter.sort]} ${way}, q.id ${way} LIMIT ${from}, ${pageSize}`,
			parameters
		),
		isWhole ? { n: kept } : row<{ n: number }>(db, `SELECT COUNT(*) AS n ${sql}`, parameters)
	]);
	return { total: counted!.n, keys: keys.map(({ id }) => id) };
}

async function rowsOf(db: Database, ids: number[]): Promise<QuestionRow[]> {
	if (!ids.length) return [];
	const listed = await rows<
		Omit<QuestionRow, 'tags' | 'shuffle' | 'stale'> & { tags: string; shuffle: number | null; stale: number }
	>(
		db,
		`SELECT q.id, q.kind, q.title, LEFT(q.stem_text, 160) AS stem, q.points, q.category_id AS categoryId, q.tags, q.difficulty, q.language, q.shuffle,
			CASE WHEN q.disputed IS NOT NULL THEN 'disputed' WHEN q.verified IS NOT NULL THEN 'verified' WHEN q.machine = 1 THEN 'machine' ELSE 'unverified' END AS \`key\`,
			q.verified IS NOT NULL AND q.verified_version < q.version AS stale, q.created, q.changed, p.name AS changedBy, l.file_name AS \`load\`,
			(SELECT COUNT(*) FROM quiz_part_questions u WHERE u.question_id = q.id AND u.role <> 'excluded') AS used,
			(SELECT MIN(s.severity) FROM snags s WHERE s.question_id = q.id) AS worst, (SELECT COUNT(*) FROM snags s WHERE s.question_id = q.id) AS snags
		FROM questions q LEFT JOIN people p ON p.id = q.changed_by LEFT JOIN loads l ON l.id = q.load_id WHERE q.id IN (?)`,
		[ids]
	);
	const byId = new Map(
		listed.map((question) => [
			question.id,
			{
				...question,
				tags: JSON.parse(question.tags) as string[],
				shuffle: question.shuffle === null ? null : question.shuffle === 1,
				stale: question.stale === 1
			}
		])
	);
	return ids.flatMap((id) => byId.get(id) ?? []);
}

/** The place of a question in a list that is counted by what is kept, from 0; null where it is not in it. */
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
	const more = conditionFor(filter.filters);
	// by_place
	const before = await row<{ n: number }>(
		db,
		`SELECT COUNT(*) AS n FROM questions q WHERE q.bank_id = ? AND q.category_id <=> ?${more.sql} AND q.id < ?`,
		[filter.bankId, stretch.categoryId, ...more.parameters, questionId]
	);
	return stretch.from + before!.n;
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
	const startOf = (place: number | null) => Math.floor((place ?? 0) / pageSize) * pageSize;
	const asked = 'from' in at ? at.from : null;
	const inTree = filter.sort === 'tree' && !filter.down && !filter.words.trim();
	if (inTree) {
		const stretches = isCounted(filter)
			? stretchesOf(filter, tree, counts)
			: await countedStretches(pool, filter, tree);
		const total = stretches.reduce((sum, stretch) => sum + stretch.count, 0);
		const wanted = 'from' in at ? null : at.questionId;
		const from = startOf(asked ?? (wanted === null ? 0 : await placeOf(pool, filter, stretches, wanted)));
		return { total, from, rows: await rowsOf(pool, await keysInOrder(pool, filter, stretches, from)) };
	}
	const { sort } = filter;
	if (sort !== 'tree' && sort !== 'snags') {
		const from = startOf(asked);
		const whole = stretchesOf(filter, tree, counts).reduce((sum, { count }) => sum + count, 0);
		const { total, keys } = await windowOf(pool, { ...filter, sort }, tree, from, whole);
		return { total, from, rows: await rowsOf(pool, keys) };
	}
	const keys = await keysFound(pool, filter, tree);
	const from = startOf(asked ?? Math.max(0, keys.indexOf('from' in at ? 0 : (at.questionId ?? 0))));
	return { total: keys.length, from, rows: await rowsOf(pool, keys.slice(from, from + pageSize)) };
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
