import type { Pool } from 'mysql2/promise';
import { rows, type Database } from '../db/pool';
import type { Condition } from './conditions';
import type { QuestionFilter, Sorting } from './filter';
import { memory, nameOf } from './remembered';
import { foundBy, keysInStretches, lengthOf, type Stretch } from './stretches';
import type { CategoryNode } from './tree';

/** The columns by which a list is ordered in the database; snags and the tree are put in order here. */
const columns: Record<Exclude<Sorting, 'tree' | 'snags'>, string> = {
	title: 'q.title',
	kind: 'q.kind',
	points: 'q.points',
	difficulty: 'q.difficulty',
	created: 'q.created',
	changed: 'q.changed'
};

/** A filter with an order that the database gives. */
export type ByColumn = QuestionFilter & { sort: keyof typeof columns };

/** A question whose place in a list is known, with what it is ordered by. */
interface Mark {
	place: number;
	id: number;
	value: unknown;
}

/** So few are found first and then put in order. */
const fewFound = 3000;
/** So many places are remembered of a list. */
const mostMarks = 200;
/** The places that were come to in lists, from which one goes on. */
const marksOf = memory<Mark[]>(200);

/** Those questions that stand behind a mark, or before it, where the column rises or falls that way; nothing comes before all else that rises. */
function beyond(column: string, { id, value }: Mark, isRising: boolean, isWithIt: boolean): Condition {
	const comparison = (isRising ? '>' : '<') + (isWithIt ? '=' : '');
	const same = `(${column} <=> ? AND q.id ${comparison} ?)`;
	const others =
		value === null
			? isRising
				? `${column} IS NOT NULL`
				: ''
			: isRising
				? `${column} > ?`
				: `${column} < ? OR ${column} IS NULL`;
	return {
		sql: ` AND (${same}${others && ` OR ${others}`})`,
		parameters: value === null ? [null, id] : [value, id, value]
	};
}

/** How a window of a list is come to: from a place that is known, upwards or downwards in the list, past so many. */
interface Way {
	mark: Mark | null;
	isBack: boolean;
	skip: number;
}

/** The shortest way to a window: from the beginning or the end of the list, or from a mark. */
function shortestWay(marks: readonly Mark[], from: number, count: number, total: number): Way {
	const ways: Way[] = [
		{ mark: null, isBack: false, skip: from },
		{ mark: null, isBack: true, skip: total - from - count },
		...marks.map((mark) =>
			mark.place <= from
				? { mark, isBack: false, skip: from - mark.place }
				: { mark, isBack: true, skip: mark.place - from - count }
		)
	];
	return ways.reduce((best, way) => (way.skip >= 0 && way.skip < best.skip ? way : best));
}

/** The keys in a window of a list that the database orders by a column. A `state` of the course lets places be remembered. */
export async function keysByColumn(
	pool: Pool,
	filter: ByColumn,
	tree: CategoryNode[],
	stretches: readonly Stretch[],
	{ from, count: most, state }: { from: number; count: number; state: string | undefined }
): Promise<number[]> {
	const total = lengthOf(stretches);
	const count = Math.min(most, total - from);
	if (count <= 0) return [];
	const isAsked = filter.words.trim() !== '' || Object.keys(filter.filters).length > 0;
	if (isAsked && total <= fewFound) {
		const few = await keysInStretches(pool, { ...filter, down: false }, stretches, { from: 0, count: total });
		if (!few.length) return [];
		const condition = { sql: 'FROM questions q WHERE q.id IN (?)', parameters: [few] };
		return (await inOrder(pool, filter, condition, { isBack: false, skip: from, count })).map(({ id }) => id);
	}
	const marks = marksOf(pool, nameOf(state, filter), () => []);
	const { mark, isBack, skip } = shortestWay(marks, from, count, total);
	const more = mark ? beyond(columns[filter.sort], mark, filter.down === isBack, !isBack) : undefined;
	// by_title, by_kind, by_points, by_difficulty, by_created or by_changed, until enough are found
	const found = await inOrder(pool, filter, foundBy(filter, tree, { index: '', more }), { isBack, skip, count });
	for (const at of [0, found.length - 1]) {
		const place = from + at;
		if (found[at] && !marks.some((known) => known.place === place)) marks.push({ place, ...found[at] });
	}
	if (marks.length > mostMarks) marks.splice(0, marks.length - mostMarks);
	return found.map(({ id }) => id);
}

/** Questions in the order of a filter past the first so many, or, going back, past the last. */
async function inOrder(
	db: Database,
	filter: ByColumn,
	{ sql, parameters }: Condition,
	{ isBack, skip, count }: { isBack: boolean; skip: number; count: number }
): Promise<{ id: number; value: unknown }[]> {
	const column = columns[filter.sort];
	const way = filter.down === isBack ? 'ASC' : 'DESC';
	const found = await rows<{ id: number; value: unknown }>(
		db,
		`SELECT q.id, ${column} AS value ${sql} ORDER BY ${column} ${way}, q.id ${way} LIMIT ${skip}, ${count}`,
		parameters
	);
	return isBack ? found.reverse() : found;
}
