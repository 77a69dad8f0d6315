import type { Pool } from 'mysql2/promise';
import { rows } from '../db/pool';
import type { Condition } from './conditions';
import { memory } from '../db/memory';

/** A list that the database puts in order by a column of questions `q`, and by their keys where that is the same. */
export interface OrderedList {
	/** The name by which it is remembered; null where it is not. */
	name: string | null;
	column: string;
	down: boolean;
	total: number;
	/** Its questions, of which more may be asked, as what stands from FROM on. */
	found: (more?: Condition) => Condition;
}

/** A question whose place in a list is known, with what it is ordered by. */
interface Mark {
	place: number;
	id: number;
	value: unknown;
}

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

/** The keys in a window of a list, come to from the nearest place that is known. */
export async function keysInOrder(pool: Pool, list: OrderedList, from: number, most: number): Promise<number[]> {
	const count = Math.min(most, list.total - from);
	if (count <= 0) return [];
	const marks = marksOf(pool, list.name, () => []);
	const { mark, isBack, skip } = shortestWay(marks, from, count, list.total);
	const { sql, parameters } = list.found(mark ? beyond(list.column, mark, list.down === isBack, !isBack) : undefined);
	const way = list.down === isBack ? 'ASC' : 'DESC';
	const found = await rows<{ id: number; value: unknown }>(
		pool,
		`SELECT q.id, ${list.column} AS value ${sql} ORDER BY ${list.column} ${way}, q.id ${way} LIMIT ${skip}, ${count}`,
		parameters
	);
	if (isBack) found.reverse();
	for (const at of [0, found.length - 1]) {
		const place = from + at;
		if (found[at] && !marks.some((known) => known.place === place)) marks.push({ place, ...found[at] });
	}
	if (marks.length > mostMarks) marks.splice(0, marks.length - mostMarks);
	return found.map(({ id }) => id);
}
