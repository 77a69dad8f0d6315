import type { Pool } from 'mysql2/promise';
import { rows } from '../db/pool';
import { nameOf, type QuestionFilter } from './filter';
import { memory } from '../db/memory';
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

/** What few questions have and weighs in an order: the others stand together, as in the tree. */
interface Weight {
	/** The weight of each question that has one, of the course of a bank. */
	sql: string;
	/** What the others are asked. */
	none: string;
	/** Whether the list begins with the heaviest where it is not the other way round. */
	heavyFirst: boolean;
}

const ofCourse = '(SELECT course_id FROM banks WHERE id = ?)';
const weights = {
	// the worst first, then how many
	snags: {
		sql: `(SELECT question_id, MAX(4 - severity) * 1000 + COUNT(*) AS weight FROM snags WHERE course_id = ${ofCourse} GROUP BY question_id)`,
		none: ' AND NOT EXISTS (SELECT 1 FROM snags n WHERE n.question_id = q.id)',
		heavyFirst: true
	},
	// in how many parts of quizzes
	used: {
		sql: `(SELECT u.question_id, COUNT(*) AS weight FROM quizzes z JOIN quiz_parts p ON p.quiz_id = z.id JOIN quiz_part_questions u ON u.part_id = p.id WHERE z.course_id = ${ofCourse} AND u.role <> 'excluded' GROUP BY u.question_id)`,
		none: " AND NOT EXISTS (SELECT 1 FROM quiz_part_questions n WHERE n.question_id = q.id AND n.role <> 'excluded')",
		heavyFirst: false
	}
} satisfies Record<string, Weight>;

/** A filter with such an order. */
export type FilterByWeight = QuestionFilter & { sort: keyof typeof weights };

/** Whether a filter has such an order. */
export const isByWeight = (filter: QuestionFilter): filter is FilterByWeight => Object.hasOwn(weights, filter.sort);

/** A list that is ordered by weight: the questions that have one, before or behind the others as in the tree; or all of it the other way round. */
interface ByWeight {
	filter: FilterByWeight;
	/** The keys of those that have one, in the order of the list. */
	heavy: number[];
	/** The stretches of the others. */
	light: Stretch[];
}

/** Such lists; few, since each names all questions that have a weight. */
const listsOf = memory<Promise<ByWeight>>(12);
const beginsHeavy = ({ sort, down }: FilterByWeight) => weights[sort].heavyFirst !== down;

/** Such a list, by the stretches of all that the filter finds; remembered for a `state` of the course. */
export function byWeight(
	pool: Pool,
	filter: FilterByWeight,
	tree: CategoryNode[],
	stretches: readonly Stretch[],
	state: string | undefined
): Promise<ByWeight> {
	return listsOf(pool, nameOf(state, filter), () => putInOrder(pool, filter, tree, stretches));
}

async function putInOrder(
	pool: Pool,
	filter: FilterByWeight,
	tree: CategoryNode[],
	stretches: readonly Stretch[]
): Promise<ByWeight> {
	const { sql, parameters } = foundBy(filter, tree, {
		index: '',
		join: ` JOIN ${weights[filter.sort].sql} g ON g.question_id = q.id`
	});
	const found = await rows<{ id: number; categoryId: number | null; weight: number }>(
		pool,
		`SELECT q.id, q.category_id AS categoryId, g.weight ${sql}`,
		[filter.bankId, ...parameters]
	);
	const place = new Map(categoriesInTree(filter, tree).map((id, at) => [id, at]));
	const [way, heavier] = [filter.down ? -1 : 1, weights[filter.sort].heavyFirst ? -1 : 1];
	const weighed = found.map(({ id, categoryId, weight }) => ({
		id,
		place: place.get(categoryId) ?? 0,
		weight: Number(weight)
	}));
	weighed.sort((a, b) => way * (heavier * (a.weight - b.weight) || a.place - b.place || a.id - b.id));
	const held = new Map(stretches.map(({ categoryId, count }) => [categoryId, count]));
	for (const { categoryId } of found) held.set(categoryId, (held.get(categoryId) ?? 0) - 1);
	return { filter, heavy: weighed.map(({ id }) => id), light: inStretches(filter, tree, held) };
}

/** The keys in a window of such a list. */
export async function keysByWeight(
	pool: Pool,
	{ filter, heavy, light }: ByWeight,
	from: number,
	count: number
): Promise<number[]> {
	const isHeavyFirst = beginsHeavy(filter);
	const [heavyFrom, lightFrom] = isHeavyFirst ? [from, from - heavy.length] : [from - lengthOf(light), from];
	const among = heavy.slice(Math.max(0, heavyFrom), Math.max(0, heavyFrom + count));
	const start = Math.max(0, lightFrom);
	const others = await keysInStretches(pool, filter, light, {
		from: start,
		count: Math.max(0, lightFrom + count - start),
		more: weights[filter.sort].none
	});
	return isHeavyFirst ? [...among, ...others] : [...others, ...among];
}

/** The place of a question in such a list, from 0; null where it is not in it. */
export async function placeByWeight(
	pool: Pool,
	{ filter, heavy, light }: ByWeight,
	questionId: number
): Promise<number | null> {
	const isHeavyFirst = beginsHeavy(filter);
	const at = heavy.indexOf(questionId);
	if (at >= 0) return at + (isHeavyFirst ? 0 : lengthOf(light));
	const place = await placeInStretches(pool, filter, light, questionId, weights[filter.sort].none);
	return place === null ? null : place + (isHeavyFirst ? heavy.length : 0);
}
