import type { Pool } from 'mysql2/promise';
import { nameOf, type QuestionFilter } from './filter';
import { keysInOrder, type OrderedList } from './ordered';
import { foundBy, keysOfFew, lengthOf, type Stretch } from './stretches';
import type { CategoryNode } from './tree';

/** The columns by which a list is ordered in the database. */
const columns = {
	title: 'q.title',
	stem: 'q.stem_start',
	kind: 'q.kind',
	points: 'q.points',
	tags: 'q.tags_start',
	difficulty: 'q.difficulty',
	language: 'q.language',
	key: 'q.key_rank',
	created: 'q.created',
	changed: 'q.changed'
};

/** A filter with an order that the database gives. */
export type FilterByColumn = QuestionFilter & { sort: keyof typeof columns };

/** Whether a filter has such an order. */
export const isByColumn = (filter: QuestionFilter): filter is FilterByColumn => Object.hasOwn(columns, filter.sort);

/** The keys in a window of a list that the database orders by a column. A `state` of the course lets places be remembered. */
export async function keysByColumn(
	pool: Pool,
	filter: FilterByColumn,
	tree: CategoryNode[],
	stretches: readonly Stretch[],
	{ from, count, state }: { from: number; count: number; state: string | undefined }
): Promise<number[]> {
	const list: OrderedList = {
		name: nameOf(state, filter),
		column: columns[filter.sort],
		down: filter.down,
		total: lengthOf(stretches),
		found: (more) => foundBy(filter, tree, { index: '', more })
	};
	const few = await keysOfFew(pool, filter, stretches);
	if (few) {
		if (!few.length) return [];
		const condition = { sql: 'FROM questions q WHERE q.id IN (?)', parameters: [few] };
		return keysInOrder(pool, { ...list, name: null, found: () => condition }, from, count);
	}
	// by_title, by_stem, by_kind, by_points, by_tags, by_difficulty, by_language, by_key_rank, by_created or by_changed, until
	// enough are found
	return keysInOrder(pool, list, from, count);
}
