import { chancesOf, type UnitChance } from './chances';
import type { Network } from './network';
import type { Plan, PlannedQuestion } from './plan';
import type { Method, Sampler } from './sampler';
import { Simulation, type Estimate } from './simulate';
import { summed, type Distribution } from './distributions';
import { sharedOf } from './shared';
import { spreadOf, type Worth } from './spread';
import { amountOf, boundsOf, pointsMeasure, type Bounds, type Measure, type Total } from './totals';

/** What students get of a sheet that can be filled (draws.md). */
export interface Figures {
	method: Method;
	/** How many different sittings there are, exactly or as a power of ten; orders do not count. */
	sittings: string;
	/** The chance of each question to be in a sitting, by its place; those that no part can give are left out. */
	questions: Map<number, Estimate>;
	/** How many questions two students have in common. */
	overlap: { expected: number; atLeast: number[]; error: number };
	points: Total;
	/** Null where no question has a reading time. */
	seconds: Total | null;
	/** The difficulties of a sitting's questions, added up; null where one that can be drawn has none. */
	difficulty: Total | null;
	/** For each category, by its steps, the chance of 0, 1, 2 … questions of it and of what is under it. */
	categories: { path: string[]; chances: Distribution; holds: number }[];
	/** The same for kinds and for tags; empty where they are not asked for. */
	kinds: ValueSpread[];
	tags: ValueSpread[];
	/** The error of the chances of categories, kinds and tags; 0 where they are exact. */
	categoriesError: number;
}

/** How many questions of a sitting have a value, as chances of 0, 1, 2 … */
export interface ValueSpread {
	name: string;
	chances: Distribution;
	/** How many of the questions that can be drawn have it. */
	holds: number;
}

/** What is worked out beside what every sheet gets. */
export interface Wanted {
	/** The spread over kinds and tags too. */
	values?: boolean;
	/** Hears how many sittings are drawn of how many, where some have to be; it may throw to end it. */
	told?: (done: number, total: number) => void;
}

const sizes =
	(plan: Plan): Worth =>
	(unit) =>
		plan.units[unit]!.counted.length;

const secondsMeasure = ({ questions }: Plan): Measure => ({
	ofQuestion: (question) => questions[question]!.seconds ?? 0,
	ofPart: () => null
});

const difficultyMeasure = ({ questions }: Plan): Measure => ({
	ofQuestion: (question) => questions[question]!.difficulty ?? 0,
	ofPart: () => null
});

/** Whether each question that can be drawn has a difficulty. */
const isGraded = ({ questions, units, parts }: Plan): boolean =>
	parts.every((part) =>
		part.units.every((unit) => units[unit]!.counted.every((question) => questions[question]!.difficulty !== null))
	);

/** The totals of a plan, each as `total` finds it. */
const totalsOf = (
	plan: Plan,
	total: (measure: Measure) => Total
): Pick<Figures, 'points' | 'seconds' | 'difficulty'> => ({
	points: total(pointsMeasure(plan)),
	seconds: plan.questions.some(({ seconds }) => seconds !== null) ? total(secondsMeasure(plan)) : null,
	difficulty: isGraded(plan) ? total(difficultyMeasure(plan)) : null
});

/** A category with how many questions of each unit stand in it or under it. */
interface CountedCategory {
	path: string[];
	worth: Float64Array;
	holds: number;
}

/** The units that parts can give, in the order of their places. */
function drawableOf(parts: Plan['parts'], all: number): number[] {
	const isThere = new Uint8Array(all);
	for (const part of parts) for (const unit of part.units) isThere[unit] = 1;
	return [...isThere.keys()].filter((unit) => isThere[unit]);
}

/** The categories of the questions that can be drawn, with those above them, in the order in which they come. */
function categoriesOf({ questions, units, parts }: Plan): CountedCategory[] {
	const found = new Map<string, CountedCategory>();
	/** For each path, what is counted under it and above it. */
	const chains = new Map<string, CountedCategory[]>();
	const chainOf = (category: string[]): CountedCategory[] =>
		category.map((_, at) => {
			const path = category.slice(0, at + 1);
			const key = JSON.stringify(path);
			const known = found.get(key) ?? { path, worth: new Float64Array(units.length), holds: 0 };
			found.set(key, known);
			return known;
		});
	const drawable = drawableOf(parts, units.length);
	// most questions stand in the category of the one before them
	let last: string[] = [];
	let chain: CountedCategory[] = [];
	for (const unit of drawable)
		for (const question of units[unit]!.counted) {
			const { category } = questions[question]!;
			if (category.length !== last.length || category.some((name, at) => name !== last[at])) {
				const key = JSON.stringify(category);
				chain = chains.get(key) ?? chainOf(category);
				chains.set(key, chain);
				last = category;
			}
			for (const counted of chain) {
				counted.worth[unit]! += 1;
				counted.holds += 1;
			}
		}
	return [...found.values()];
}

/** Sums up from the far end: the chance of so many or more. */
function atLeast(chances: Distribution): number[] {
	let sum = 0;
	return chances
		.map((_, at) => (sum += chances[chances.length - 1 - at]!))
		.reverse()
		.map((chance, at) => (at ? Math.min(1, chance) : 1));
}

const rounded = (number: number) => Math.round(number * 1e9) / 1e9;

/** A distribution without the numbers beyond the greatest that can be. */
function trimmed(chances: Distribution): Distribution {
	let length = chances.length;
	while (length > 1 && !(chances[length - 1]! > 1e-15)) length -= 1;
	return chances.slice(0, length);
}

/** The distribution over all networks, or null where one takes too long. */
function overAll(networks: readonly Network[], of: (network: Network) => Distribution | null): Distribution | null {
	let all: Distribution = [1];
	for (const network of networks) {
		const own = of(network);
		if (!own) return null;
		all = summed(all, own);
	}
	return trimmed(all);
}

function exactTotal(plan: Plan, networks: readonly Network[], chances: readonly UnitChance[], measure: Measure): Total {
	const bounds = networks.map((network) => boundsOf(network, plan, measure));
	const least = bounds.reduce((sum, own) => sum + own.least, 0);
	const most = bounds.reduce((sum, own) => sum + own.most, 0);
	let mean = 0;
	for (const { units, part, chance } of chances) {
		let amount = 0;
		for (const unit of units) amount += amountOf(plan, measure, unit, part);
		mean += chance * amount;
	}
	return { least: rounded(least), most: rounded(most), mean: rounded(mean), equal: most - least < 1e-9, error: 0 };
}

/** So many tags are told of at the most: those that the most questions have. */
const mostTags = 40;

/** What the questions that can be drawn have of something, with how many of each unit; those that are the most frequent first. */
function valuesOf(
	{ questions, units, parts }: Plan,
	of: (question: PlannedQuestion) => readonly string[]
): { name: string; worth: Float64Array; count: number }[] {
	const found = new Map<string, { name: string; worth: Float64Array; count: number }>();
	for (const unit of drawableOf(parts, units.length))
		for (const question of units[unit]!.counted) {
			const names = of(questions[question]!);
			for (const name of names.length > 1 ? new Set(names) : names) {
				let known = found.get(name);
				if (!known) found.set(name, (known = { name, worth: new Float64Array(units.length), count: 0 }));
				known.worth[unit]! += 1;
				known.count += 1;
			}
		}
	return [...found.values()].sort((a, b) => b.count - a.count || (a.name < b.name ? -1 : 1)).slice(0, mostTags);
}

/** The spread over everything that is asked for, each as `spread` finds it. */
function spreadsOf(
	plan: Plan,
	{ values = false }: Wanted,
	spread: (worth: Float64Array) => Distribution
): Pick<Figures, 'categories' | 'kinds' | 'tags'> {
	const over = (of: (question: PlannedQuestion) => readonly string[]) =>
		values ? valuesOf(plan, of).map(({ name, worth, count }) => ({ name, chances: spread(worth), holds: count })) : [];
	return {
		categories: categoriesOf(plan).map(({ path, worth, holds }) => ({ path, chances: spread(worth), holds })),
		kinds: over(({ kind }) => [kind]),
		tags: over(({ tags }) => tags)
	};
}

/** The figures of a sheet by its networks; those that take too long are found by simulation, each with its error. */
function exactFigures(plan: Plan, sampler: Sampler, networks: readonly Network[], wanted: Wanted): Figures {
	const chances = networks.flatMap(chancesOf);
	const byUnit = new Float64Array(plan.units.length);
	const isDrawable = new Uint8Array(plan.units.length);
	for (const { units, chance } of chances)
		for (const unit of units) {
			byUnit[unit]! += chance;
			isDrawable[unit] = 1;
		}
	const questions = new Map<number, Estimate>();
	plan.units.forEach(({ counted }, unit) => {
		if (isDrawable[unit])
			for (const question of counted) questions.set(question, { chance: rounded(byUnit[unit]!), error: 0 });
	});
	let simulation: Simulation | null = null;
	const simulated = () => (simulation ??= new Simulation(plan, sampler, wanted.told));
	const shared = overAll(networks, (network) => sharedOf(network, sizes(plan)));
	let isSimulated = false;
	const spreads = spreadsOf(plan, wanted, (worth) => {
		const exact = overAll(networks, (network) => spreadOf(network, (unit) => worth[unit]!, sizes(plan)));
		isSimulated ||= exact === null;
		return exact ?? simulated().spread(worth);
	});
	const expected = expectedShared(plan, byUnit);
	return {
		method: sampler.method,
		sittings: networks.reduce((product, { total }) => product * total, 1n).toString(),
		questions,
		overlap: shared ? { expected, atLeast: atLeast(shared), error: 0 } : { ...simulated().overlap(), expected },
		...totalsOf(plan, (measure) => exactTotal(plan, networks, chances, measure)),
		...spreads,
		categoriesError: isSimulated ? simulated().errorOfShares : 0
	};
}

/** The points of a sitting at the least and the most; null where they cannot be counted exactly. */
export function totalOf(plan: Plan, { networks }: Sampler): Bounds | null {
	if (!networks) return null;
	const bounds = networks.map((network) => boundsOf(network, plan, pointsMeasure(plan)));
	return {
		least: rounded(bounds.reduce((sum, own) => sum + own.least, 0)),
		most: rounded(bounds.reduce((sum, own) => sum + own.most, 0))
	};
}

/** The expected number of questions that two students share: the sum of the squares of their chances. */
function expectedShared(plan: Plan, byUnit: Float64Array): number {
	return rounded(byUnit.reduce((sum, chance, unit) => sum + plan.units[unit]!.counted.length * chance ** 2, 0));
}

/** What students get of a sheet that can be filled: exact where it can be counted, else by simulation. */
export function figuresOf(plan: Plan, sampler: Sampler, wanted: Wanted = {}): Figures {
	if (sampler.networks) return exactFigures(plan, sampler, sampler.networks, wanted);
	const simulation = new Simulation(plan, sampler, wanted.told);
	const drawable = new Set(plan.parts.flatMap(({ units }) => units.flatMap((unit) => plan.units[unit]!.counted)));
	return {
		method: sampler.method,
		sittings: simulation.powerOfTen(),
		questions: simulation.chances([...drawable].sort((a, b) => a - b)),
		overlap: simulation.overlap(),
		...totalsOf(plan, (measure) => simulation.total(measure)),
		...spreadsOf(plan, wanted, (worth) => simulation.spread(worth)),
		categoriesError: simulation.errorOfShares
	};
}
