import { quotasOf, unitsIn, unitsOf, type Plan, type PlannedPart, type PlannedQuestion, type SheetQuota } from './plan';

/** A part of a sheet whose pool is known already. Questions are named by their places. */
export interface PooledPart {
	title: string;
	/** How many are drawn; null for all. */
	draw: number | null;
	/** What each is worth; null for its own points. */
	points: number | null;
	order: PlannedPart['order'];
	/** What it draws from; of a part that lists its questions, these in their order. */
	pool: readonly number[];
	isList: boolean;
	quotas: readonly SheetQuota[];
}

/** What holds for a whole sheet. Questions are named by their places. */
export interface SheetRules {
	/** Pairs that do not come together in one sitting. */
	never: readonly (readonly [number, number])[];
	/** Groups that come whole or not at all; each question is in one at the most. */
	together: readonly (readonly number[])[];
	partsShuffled: boolean;
}

function plannedPart(
	part: PooledPart,
	at: number,
	plan: Pick<Plan, 'questions' | 'units' | 'warnings'>,
	unitOf: number[]
) {
	const { questions, units } = plan;
	const givesAll = part.isList && part.draw === null;
	const pool = new Set(part.pool.filter((place) => givesAll || !questions[place]!.isText));
	const held = givesAll ? [...new Set([...pool].map((place) => unitOf[place]!))] : unitsIn(pool, units, unitOf);
	const torn = held.flatMap((unit) => units[unit]!.counted.filter((place) => !pool.has(place)));
	const given = held.flatMap((unit) => units[unit]!.counted.map((place) => questions[place]!));
	const draw = part.draw ?? given.length;
	const planned: PlannedPart = {
		title: part.title,
		draw,
		points: part.points,
		order: part.order,
		units: held,
		isAll: part.draw === null,
		list: part.isList ? [...pool] : [],
		quotas: part.quotas.flatMap((quota, which) =>
			quotasOf(quota, `parts[${at}].quotas[${which}]`, draw, given, plan.warnings)
		),
		impossible: torn.length
			? `It lists only some of a group: “${questions[torn[0]!]!.id}” is missing. List all of the group, or none.`
			: null
	};
	return planned;
}

/**
 * The plan of a sheet whose pools are known (draws.md). A pair of a question with itself, or of two in one group, keeps
 * the group out. Throws WrongSheet where a quota contradicts itself.
 */
export function planOfPools(
	questions: PlannedQuestion[],
	parts: readonly PooledPart[],
	{ never, together, partsShuffled }: SheetRules
): Plan {
	const { units, unitOf } = unitsOf(
		questions,
		together.map((group) => [...group])
	);
	for (const [one, other] of never) {
		const [a, b] = [unitOf[one]!, unitOf[other]!];
		units[a]!.never.push(b);
		if (a !== b) units[b]!.never.push(a);
	}
	const ground = { questions, units, warnings: [] };
	return { ...ground, parts: parts.map((part, at) => plannedPart(part, at, ground, unitOf)), partsShuffled };
}
