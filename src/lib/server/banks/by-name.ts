import type { Pool } from 'mysql2/promise';
import { rows } from '../db/pool';
import type { Condition } from './conditions';
import { nameOf, type QuestionFilter } from './filter';
import { keysInOrder } from './ordered';
import { memory } from '../db/memory';
import { foundBy, keysOfFew, lengthOf, type Stretch } from './stretches';
import type { CategoryNode } from './tree';

/** What questions point at and are ordered by the names of: the column, and the table with the names. */
const named = {
	// by_changer
	by: { column: 'q.changed_by', table: 'people', name: 'name' },
	// by_arrival
	load: { column: 'q.load_id', table: 'loads', name: 'file_name' }
};

/** A filter with an order by such names. */
export type FilterByName = QuestionFilter & { sort: keyof typeof named };

/** Whether a filter has such an order. */
export const isByName = (filter: QuestionFilter): filter is FilterByName => Object.hasOwn(named, filter.sort);

/** The questions of a list that point at the same, or at nothing: from a place of it on, so many. */
interface NameStretch {
	key: number | null;
	from: number;
	count: number;
}

const stretchesFor = memory<Promise<NameStretch[]>>(200);

/** The stretches of a list that is ordered by names: first what points at nothing, or all of it the other way round. */
async function stretchesByName(pool: Pool, filter: FilterByName, tree: CategoryNode[]): Promise<NameStretch[]> {
	const { column, table, name } = named[filter.sort];
	const { sql, parameters } = foundBy(filter, tree, { index: '' });
	const held = await rows<{ key: number | null; count: number }>(
		pool,
		`SELECT ${column} AS \`key\`, COUNT(*) AS count ${sql} GROUP BY ${column}`,
		parameters
	);
	const keys = held.flatMap(({ key }) => key ?? []);
	const inOrder = keys.length
		? await rows<{ id: number }>(pool, `SELECT id FROM ${table} WHERE id IN (?) ORDER BY ${name}, id`, [keys])
		: [];
	const countOf = new Map(held.map(({ key, count }) => [key, count]));
	const order = [null, ...inOrder.map(({ id }) => id)].filter((key) => countOf.has(key));
	let from = 0;
	return (filter.down ? order.reverse() : order).map((key) => {
		const stretch = { key, from, count: countOf.get(key)! };
		from += stretch.count;
		return stretch;
	});
}

/** The keys in a window of a list that is ordered by such names; remembered for a `state` of the course. */
export async function keysByName(
	pool: Pool,
	filter: FilterByName,
	tree: CategoryNode[],
	inTree: readonly Stretch[],
	{ from, count, state }: { from: number; count: number; state: string | undefined }
): Promise<number[]> {
	const { column, table, name } = named[filter.sort];
	const way = filter.down ? 'DESC' : 'ASC';
	const few = await keysOfFew(pool, filter, inTree);
	if (few) {
		if (!few.length) return [];
		const found = await rows<{ id: number }>(
			pool,
			`SELECT q.id FROM questions q LEFT JOIN ${table} n ON n.id = ${column} WHERE q.id IN (?) ORDER BY n.${name} ${way}, n.id ${way}, q.id ${way} LIMIT ?, ?`,
			[few, from, count]
		);
		return found.map(({ id }) => id);
	}
	const stretches = await stretchesFor(pool, nameOf(state, filter), () => stretchesByName(pool, filter, tree));
	const to = from + Math.min(count, lengthOf(inTree) - from);
	const wanted = stretches.filter((stretch) => stretch.from < to && stretch.from + stretch.count > from);
	if (!wanted.length) return [];
	const foundOf = (key: number | null, more: Condition = { sql: '', parameters: [] }) =>
		foundBy(filter, tree, {
			index: '',
			more: { sql: ` AND ${column} <=> ?${more.sql}`, parameters: [key, ...more.parameters] }
		});
	const [{ key: only, from: before, count: total }] = wanted as [NameStretch];
	if (wanted.length === 1) {
		const list = {
			name: nameOf(state, filter, before + 1),
			column: 'q.id',
			down: filter.down,
			total,
			found: (more?: Condition) => foundOf(only, more)
		};
		return keysInOrder(pool, list, from - before, to - from);
	}
	const parts = wanted.map(({ key, from: start, count: held }, at) => {
		const skip = Math.max(0, from - start);
		const { sql, parameters } = foundOf(key);
		return {
			sql: `(SELECT ${at} AS stretch, q.id ${sql} ORDER BY q.id ${way} LIMIT ?, ?)`,
			parameters: [...parameters, skip, Math.min(held - skip, to - Math.max(from, start))]
		};
	});
	const found = await rows<{ id: number }>(
		pool,
		`${parts.map((part) => part.sql).join(' UNION ALL ')} ORDER BY stretch, id ${way}`,
		parts.flatMap((part) => part.parameters)
	);
	return found.map(({ id }) => id);
}
