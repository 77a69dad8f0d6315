import { fits, restricts, type PoolConditions, type PoolFacts } from './conditions';

/** What a part of a quiz draws from, as it is kept: categories by their keys, or questions that it names. */
export interface PoolPart {
	categories: readonly number[];
	/** Whether what is under a category belongs to it. */
	withUnder: boolean;
	questions: readonly number[];
	/** How many are drawn; null for all. */
	draw: number | null;
	/** What is asked of the questions of its categories; missing where nothing is. */
	conditions?: PoolConditions;
	/** Questions that belong to it beside those, and such as do not: these win. */
	include?: readonly number[];
	exclude?: readonly number[];
}

/** What there is to draw from. Categories and questions are named by their keys. */
export interface PoolSource {
	/** The categories in the order of their trees, each behind the one that it stands in. */
	tree: readonly { id: number; parentId: number | null }[];
	/** The questions that can be drawn, by category, in the order of the bank. */
	inCategory: Readonly<Record<number, readonly number[]>>;
	/** The points of each question that can be drawn; null where it has none of its own. */
	points: Readonly<Record<number, number | null>>;
	/** Texts without an answer: they are never drawn, but a part that gives all that it names shows them too. */
	texts: readonly number[];
	/** What conditions can ask of the questions; only where some part asks. */
	facts?: ReadonlyMap<number, PoolFacts>;
}

/**
 * The questions of a part, each once, in the order in which a part that keeps its order shows them: that of its list, or
 * that of the categories' tree and then of the bank. What cannot be read, and what is gone, is no part of it.
 */
export function poolOf(part: PoolPart, source: PoolSource): number[] {
	if (part.questions.length) {
		const shown = new Set(part.draw === null ? source.texts : []);
		return [...new Set(part.questions)].filter((id) => Object.hasOwn(source.points, id) || shown.has(id));
	}
	const chosen = new Set(part.categories);
	if (part.withUnder)
		for (const node of source.tree) if (node.parentId !== null && chosen.has(node.parentId)) chosen.add(node.id);
	const { conditions, include = [], exclude = [] } = part;
	const asked = conditions && restricts(conditions) ? conditions : null;
	const found = source.tree
		.filter((node) => chosen.has(node.id))
		.flatMap((node) => source.inCategory[node.id] ?? [])
		.filter((id) => !asked || fits(asked, source.facts!.get(id)!));
	if (!include.length && !exclude.length) return found;
	const out = new Set(exclude);
	return [...new Set([...found, ...include.filter((id) => Object.hasOwn(source.points, id))])].filter(
		(id) => !out.has(id)
	);
}

const sum = (list: number[]) => Math.round(list.reduce((all, one) => all + one, 0) * 100) / 100;

/** The points of a part for any draw: the least and the most. `pool` is what `poolOf` gives for it. */
export function pointsRange(
	part: PoolPart & { pointsEach: number | null },
	pool: readonly number[],
	source: Pick<PoolSource, 'points'>
): [number, number] {
	const worth = pool
		.filter((id) => Object.hasOwn(source.points, id))
		.map((id) => part.pointsEach ?? source.points[id] ?? 0);
	const sorted = worth.sort((a, b) => a - b);
	const drawn = Math.min(part.draw ?? sorted.length, sorted.length);
	return [sum(sorted.slice(0, drawn)), sum(sorted.slice(sorted.length - drawn))];
}
