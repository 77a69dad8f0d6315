import type { Pool } from 'mysql2/promise';
import { rows } from '../db/pool';
import type { QuestionFilter } from './filter';
import { memory, nameOf } from './remembered';
import {
	categoriesInTree,
	foundBy,
	inStretches,
	keysInStretches,
	lengthOf,
	placeInStretches,
	type Stretch
} from './stretches';
import type { CategoryNode } from './tree';

/** A list that is ordered by snags: the questions that have any, the worst first, and behind them the others as in the tree; or all of it the other way round. */
interface BySnags {
	filter: QuestionFilter;
	/** The keys of those that have any, in the order of the list. */
	heavy: number[];
	/** The stretches of the others. */
	light: Stretch[];
}

/** What snags weigh for each question of the course of a bank that has any: the worst first, then how many. */
const weights =
	'(SELECT question_id, MAX(4 - severity) * 1000 + COUNT(*) AS weight FROM snags WHERE course_id = (SELECT course_id FROM banks WHERE id = ?) GROUP BY question_id)';
const noSnag = ' AND NOT EXISTS (SELECT 1 FROM snags n WHERE n.question_id = q.id)';

/** Such lists; few, since each names all questions that have snags. */
const listsOf = memory<Promise<BySnags>>(12);

/** Such a list, by the stretches of all that the filter finds; remembered for a `state` of the course. */
export function bySnags(
	pool: Pool,
	filter: QuestionFilter,
	tree: CategoryNode[],
	stretches: readonly Stretch[],
	state: string | undefined
): Promise<BySnags> {
	return listsOf(pool, nameOf(state, filter), () => putInOrder(pool, filter, tree, stretches));
}

async function putInOrder(
	pool: Pool,
	filter: QuestionFilter,
	tree: CategoryNode[],
	stretches: readonly Stretch[]
): Promise<BySnags> {
	const { sql, parameters } = foundBy(filter, tree, {
		index: '',
		join: ` JOIN ${weights} g ON g.question_id = q.id`
	});
	const found = await rows<{ id: number; categoryId: number | null; weight: number }>(
		pool,
		`SELECT q.id, q.category_id AS categoryId, g.weight ${sql}`,
		[filter.bankId, ...parameters]
	);
	const place = new Map(categoriesInTree(filter, tree).map((id, at) => [id, at]));
	const way = filter.down ? -1 : 1;
	const weighed = found.map(({ id, categoryId, weight }) => ({
		id,
		place: place.get(categoryId) ?? 0,
		weight: Number(weight)
	}));
	weighed.sort((a, b) => way * (b.weight - a.weight || a.place - b.place || a.id - b.id));
	const held = new Map(stretches.map(({ categoryId, count }) => [categoryId, count]));
	for (const { categoryId } of found) held.set(categoryId, (held.get(categoryId) ?? 0) - 1);
	return { filter, heavy: weighed.map(({ id }) => id), light: inStretches(filter, tree, held) };
}

/** The keys in a window of such a list. */
export async function keysBySnags(
	pool: Pool,
	{ filter, heavy, light }: BySnags,
	from: number,
	count: number
): Promise<number[]> {
	const lights = lengthOf(light);
	const [heavyFrom, lightFrom] = filter.down ? [from - lights, from] : [from, from - heavy.length];
	const among = heavy.slice(Math.max(0, heavyFrom), Math.max(0, heavyFrom + count));
	const start = Math.max(0, lightFrom);
	const others = await keysInStretches(pool, filter, light, {
		from: start,
		count: Math.max(0, lightFrom + count - start),
		more: noSnag
	});
	return filter.down ? [...others, ...among] : [...among, ...others];
}

/** The place of a question in such a list, from 0; null where it is not in it. */
export async function placeBySnags(
	pool: Pool,
	{ filter, heavy, light }: BySnags,
	questionId: number
): Promise<number | null> {
	const at = heavy.indexOf(questionId);
	if (at >= 0) return at + (filter.down ? lengthOf(light) : 0);
	const place = await placeInStretches(pool, filter, light, questionId, noSnag);
	return place === null ? null : place + (filter.down ? 0 : heavy.length);
}
