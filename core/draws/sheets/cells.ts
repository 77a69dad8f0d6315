import type { Plan, Unit } from './plan';

/** One thing that units which must not come together can add to the counts, with all ways to do it. */
export interface Option {
	/** What is added to each count that the cell touches, in the order of its `counts`. */
	adds: number[];
	/** Each way: the part of each unit of the cell, or -1 where none takes it. */
	ways: number[][];
}

/** Units that are alike: any may stand for any other. */
export interface LikeCell {
	/** The units, alone or as many together, each of which keeps the others of its list from being taken. */
	lists: number[][];
	/** The parts that may take of them: first those that count each question's own points, then the others. */
	parts: number[];
	/** Whether the one part that may take them has to take all. */
	isBound: boolean;
	/** What one unit adds, by part: to which counts, and how much. */
	adds: { counts: number[]; weights: number[] }[];
}

/** Units of which some must not come together: all ways are gone through. */
export interface PairedCell {
	units: number[];
	parts: number[];
	/** The counts that it adds to, by their places. */
	counts: number[];
	options: Option[];
}

/** What is counted while cells are gone through: the questions of a part, or those of them that a quota is about. */
export interface Count {
	part: number;
	/** The place of the quota in its part, or null for all that the part draws. */
	quota: number | null;
	least: number;
	most: number;
	/** Beyond that it does not matter how many there are. */
	cap: number;
}

/** Parts that have to do with one another, with their cells. */
export interface Component {
	parts: number[];
	counts: Count[];
	likes: LikeCell[];
	paired: PairedCell[];
}

/** More ways of a few units that must not come together are not gone through one by one. */
export const mostWays = 20_000;
/** Says that there is too much to be counted exactly. */
export class TooMany extends Error {}

/** The parts that may take each unit: where one has to, that one alone. Gives null where two parts have to. */
export function takersOf({ units, parts }: Plan): { takers: number[][]; bound: (number | null)[] } | null {
	const takers: number[][] = units.map(() => []);
	const bound: (number | null)[] = units.map(() => null);
	for (const [at, part] of parts.entries())
		for (const unit of part.units) {
			takers[unit]!.push(at);
			if (!part.isAll) continue;
			if (bound[unit] !== null) return null;
			bound[unit] = at;
		}
	bound.forEach((part, unit) => {
		if (part !== null) takers[unit] = [part];
	});
	return { takers, bound };
}

/** What one unit adds to each count of a part: its questions, and those with the value of each quota. */
function weightsIn({ questions, parts }: Plan, { counted }: Unit, part: number): number[] {
	const weights = [counted.length];
	for (const { has } of parts[part]!.quotas) {
		let weight = 0;
		for (const question of counted) if (has(questions[question]!)) weight += 1;
		weights.push(weight);
	}
	return weights;
}

/** Joins what belongs together (union-find, by path halving). */
class Joined {
	readonly #above = new Map<number, number>();
	top(one: number): number {
		let at = one;
		for (let above = this.#above.get(at); above !== undefined && above !== at; above = this.#above.get(at)) {
			this.#above.set(at, this.#above.get(above) ?? above);
			at = above;
		}
		return at;
	}
	join(one: number, other: number): void {
		const [a, b] = [this.top(one), this.top(other)];
		if (a !== b) this.#above.set(Math.max(a, b), Math.min(a, b));
	}
}

/** The options of units that must not come together: each way by itself, those that add the same put together. */
function optionsOfPairs(
	plan: Plan,
	units: number[],
	{ takers, bound }: { takers: number[][]; bound: (number | null)[] },
	counts: Count[],
	places: number[]
): Option[] {
	const options = new Map<string, Option>();
	const way: number[] = units.map(() => -1);
	const adds = places.map(() => 0);
	let found = 0;
	const weights = units.map(
		(unit) => new Map(takers[unit]!.map((part) => [part, weightsIn(plan, plan.units[unit]!, part)] as const))
	);
	const add = (at: number, part: number, sign: number) =>
		places.forEach((place, which) => {
			const count = counts[place]!;
			if (count.part === part)
				adds[which]! += sign * weights[at]!.get(part)![count.quota === null ? 0 : count.quota + 1]!;
		});
	const fits = () => places.every((place, which) => adds[which]! <= counts[place]!.most);
	const fill = (at: number) => {
		if (at === units.length) {
			if ((found += 1) > mostWays) throw new TooMany();
			const key = adds.join();
			const known = options.get(key);
			if (known) known.ways.push([...way]);
			else options.set(key, { adds: [...adds], ways: [[...way]] });
			return;
		}
		const unit = units[at]!;
		if (bound[unit] === null) fill(at + 1);
		const { never } = plan.units[unit]!;
		if (never.includes(unit) || units.some((other, place) => place < at && way[place]! >= 0 && never.includes(other)))
			return;
		for (const part of takers[unit]!) {
			way[at] = part;
			add(at, part, 1);
			if (fits()) fill(at + 1);
			add(at, part, -1);
			way[at] = -1;
		}
	};
	fill(0);
	return [...options.values()];
}

/** The counts of a plan: what each part draws, and what its quotas are about, but for quotas that bind nothing. */
function countsOf({ parts }: Plan): Count[] {
	return parts.flatMap(({ draw, quotas }, part) => [
		{ part, quota: null, least: draw, most: draw, cap: draw },
		...quotas.flatMap(({ least, most }, quota) => {
			const isFree = most >= draw;
			if (isFree && least <= 0) return [];
			return [{ part, quota, least, most: isFree ? draw : most, cap: isFree ? least : most }];
		})
	]);
}

interface Sorted {
	/** Units that are alike, by what they have in common. */
	likes: { lists: number[][]; parts: number[]; isBound: boolean; weights: Map<number, number[]> }[];
	/** Units that must not come together with others, with those. */
	clusters: number[][];
	/** The part by which each component is known. */
	top: (part: number) => number;
}

/** Whether each of some units keeps each of the others from being taken, and none itself. */
const isAlike = ({ units }: Plan, list: readonly number[]): boolean =>
	list.every((unit) => list.every((other) => (unit === other) !== units[unit]!.never.includes(other)));

/** Puts units together that are alike or must not come together, and parts that have to do with one another. */
function sorted(plan: Plan, { takers, bound }: NonNullable<ReturnType<typeof takersOf>>): Sorted {
	const together = new Joined();
	const parts = new Joined();
	const isPaired = new Set<number>();
	let joined: readonly number[] = [];
	plan.units.forEach(({ never }, unit) => {
		const own = takers[unit]!;
		const [first] = own;
		if (first === undefined) return;
		// neighbours mostly go to the same parts, which are joined already
		if (own.length !== joined.length || own.some((part, at) => part !== joined[at]))
			for (const part of own) parts.join(first, part);
		joined = own;
		for (const other of never) {
			if (!takers[other]!.length) continue;
			isPaired.add(unit);
			together.join(unit, other);
			parts.join(first, takers[other]![0]!);
		}
	});
	const lists = new Map<number, number[]>();
	plan.units.forEach((_, at) => {
		if (!takers[at]!.length) return;
		const top = isPaired.has(at) ? together.top(at) : at;
		const list = lists.get(top);
		if (list) list.push(at);
		else lists.set(top, [at]);
	});
	const clusters: number[][] = [];
	const likes = new Map<string, Sorted['likes'][number]>();
	const keyOf = (unit: number) => {
		let key = bound[unit] === null ? '' : 'bound';
		for (const part of takers[unit]!) key += `;${part}:${weightsIn(plan, plan.units[unit]!, part).join()}`;
		return key;
	};
	for (const list of lists.values()) {
		const [first] = list;
		const key = keyOf(first!);
		if (
			isPaired.has(first!) &&
			!(bound[first!] === null && isAlike(plan, list) && list.every((unit) => keyOf(unit) === key))
		) {
			clusters.push(list);
			continue;
		}
		const like = likes.get(`${list.length} ${key}`);
		if (like) like.lists.push(list);
		else {
			const own = takers[first!]!;
			const weights = new Map(own.map((part) => [part, weightsIn(plan, plan.units[first!]!, part)] as const));
			likes.set(`${list.length} ${key}`, { lists: [list], parts: own, isBound: bound[first!] !== null, weights });
		}
	}
	return { likes: [...likes.values()], clusters, top: (part) => parts.top(part) };
}

/**
 * What a plan is made of, in components that have nothing to do with one another. Units that the same parts may take and
 * that add the same to their counts are one cell; those that must not come together are one with what they are kept from.
 * Gives null where two parts have to give the same. Throws TooMany where a cell has too many ways.
 */
export function componentsOf(plan: Plan): Component[] | null {
	const found = takersOf(plan);
	if (!found) return null;
	const { likes, clusters, top } = sorted(plan, found);
	const components = new Map<number, Component>();
	plan.parts.forEach((_, part) => {
		const component = components.get(top(part)) ?? { parts: [], counts: [], likes: [], paired: [] };
		components.set(top(part), component);
		component.parts.push(part);
	});
	for (const count of countsOf(plan)) components.get(top(count.part))!.counts.push(count);
	const placesOf = ({ counts }: Component, of: readonly number[]) =>
		counts.flatMap(({ part }, place) => (of.includes(part) ? [place] : []));
	for (const { lists, parts, isBound, weights } of likes) {
		const component = components.get(top(parts[0]!))!;
		const isOwn = (part: number) => (plan.parts[part]!.points === null ? 0 : 1);
		const ordered = [...parts].sort((a, b) => isOwn(a) - isOwn(b) || a - b);
		const adds = ordered.map((part) => {
			const counts = placesOf(component, [part]);
			const own = weights.get(part)!;
			const each = counts.map((place) => own[(component.counts[place]!.quota ?? -1) + 1]!);
			return { counts: counts.filter((_, at) => each[at]! > 0), weights: each.filter((weight) => weight > 0) };
		});
		component.likes.push({ lists, parts: ordered, isBound, adds });
	}
	for (const units of clusters) {
		const parts = [...new Set(units.flatMap((unit) => found.takers[unit]!))].sort((a, b) => a - b);
		const component = components.get(top(parts[0]!))!;
		const counts = placesOf(component, parts);
		const options = optionsOfPairs(plan, units, found, component.counts, counts);
		component.paired.push({ units, parts, counts, options });
	}
	return [...components.values()];
}
