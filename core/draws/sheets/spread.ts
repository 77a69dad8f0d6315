import { choose, hypergeometric } from './binomial';
import { isTake, type Network, type Step } from './network';

/** The chance of 0, 1, 2 … of something. */
export type Distribution = number[];

/** Where working something out would take more than this many sums, it is found by simulation. */
const mostSums = 2e7;
/** The same for what two have in common, of which each sum is a small one. */
const mostShared = 6e7;

/** The distribution of the sum of two things that are independent of one another. */
export function summed(one: Distribution, other: Distribution): Distribution {
	const sum = new Array<number>(one.length + other.length - 1).fill(0);
	one.forEach((a, at) => {
		if (a) other.forEach((b, and) => (sum[at + and]! += a * b));
	});
	return sum;
}

/** Adds a distribution, shifted by another one and times a chance, to a third, which is long enough. */
function addTo(target: Float64Array, source: Float64Array, by: ArrayLike<number>, chance: number): void {
	for (let shift = 0; shift < by.length; shift += 1) {
		const factor = by[shift]! * chance;
		if (factor === 0) continue;
		const length = Math.min(source.length, target.length - shift);
		for (let at = 0; at < length; at += 1) target[at + shift]! += source[at]! * factor;
	}
}

/** What is less likely than that is nothing: all of it together is far below what a number can tell. */
const nothing = 1e-22;

/** The same distributions without what is as good as nothing at their ends. */
function shortened(all: Map<number, Float64Array>): Map<number, Float64Array> {
	for (const [key, chances] of all) {
		let length = chances.length;
		while (length > 1 && chances[length - 1]! < nothing) length -= 1;
		all.set(key, chances.subarray(0, length));
	}
	return all;
}

const filled = (of: Distribution): Distribution => Array.from(of, (chance) => chance ?? 0);

/** How many questions each unit counts towards something. */
export type Worth = (unit: number) => number;

/** The same where each list that is worth something is worth the same, whatever is taken of it; null where that is not so. */
function ofEven(units: readonly number[][], worth: Worth, drawn: number): Distribution | null {
	let [most, marked] = [0, 0];
	for (const list of units) {
		const own = worth(list[0]!);
		for (let at = 1; at < list.length; at += 1) if (worth(list[at]!) !== own) return null;
		if (!own) continue;
		if (most && own !== most) return null;
		most = own;
		marked += 1;
	}
	if (!drawn || !most) return [1];
	const found: Distribution = [];
	for (let hits = 0; hits <= Math.min(marked, drawn); hits += 1)
		found[hits * most] = hypergeometric(units.length, marked, drawn, hits);
	return filled(found);
}

/** The distribution of what some of like lists are worth, of each of which one unit was taken, any of them as likely as any other. */
function ofLike(units: readonly number[][], worth: Worth, drawn: number): Distribution {
	const even = ofEven(units, worth, drawn);
	if (even) return even;
	const lists = units.map((list) => list.map(worth));
	// how many choices of so many lists are worth so much, one list after the other
	const length = lists.reduce((sum, worths) => sum + Math.max(...worths), 1);
	const by = Array.from({ length: drawn + 1 }, () => new Float64Array(length));
	by[0]![0] = 1;
	lists.forEach((worths, place) => {
		const shift = new Float64Array(Math.max(...worths) + 1);
		for (const worth of worths) shift[worth]! += 1 / worths.length;
		for (let taken = Math.min(drawn, place + 1); taken > 0; taken -= 1) addTo(by[taken]!, by[taken - 1]!, shift, 1);
	});
	const ways = by[drawn]!.reduce((sum, value) => sum + value, 0);
	return Array.from(by[drawn]!, (value) => value / ways);
}

const emptyHanded: Distribution = [1];

/** For each move of a step that ends a cell, how what was taken of the cell is worth. */
class Ends {
	readonly #known = new Map<Step, Map<number, Distribution>>();

	constructor(readonly worth: Worth) {}

	/** Of like units so many were taken; of others one option was. */
	of(step: Step, which: number): Distribution {
		const known = this.#known.get(step) ?? new Map<number, Distribution>();
		this.#known.set(step, known);
		const there = known.get(which);
		if (there) return there;
		const found = this.#find(step, which);
		known.set(which, found);
		return found;
	}

	#find(step: Step, which: number): Distribution {
		if (isTake(step)) return ofLike(step.cell.lists, this.worth, which);
		const { ways } = step.cell.options[which]!;
		const found: Distribution = [];
		for (const way of ways) {
			const sum = way.reduce((all, part, at) => (part < 0 ? all : all + this.worth(step.cell.units[at]!)), 0);
			found[sum] = (found[sum] ?? 0) + 1 / ways.length;
		}
		return filled(found);
	}
}

/** Whether a step ends a cell of which some unit is worth something. */
const counts = (step: Step, worth: Worth) =>
	isTake(step)
		? step.isLast && step.cell.lists.some((list) => list.some((unit) => worth(unit) > 0))
		: step.cell.units.some((unit) => worth(unit) > 0);

/** How many questions a network draws at the most. */
const drawnBy = (network: Network) =>
	network.counts.reduce((sum, { quota, most }) => (quota === null ? sum + most : sum), 0);

/** By a move of a step that ends a cell: of how many of its lists one was taken, or which option. */
function taken(network: Network, step: Step, at: number, from: number, move: number): number {
	return isTake(step) ? step.cell.lists.length - network.leftAt(at, from) + move : move;
}

/** The distribution of what is drawn by a network is worth; null where that would take too long. */
export function spreadOf(network: Network, worth: Worth): Distribution | null {
	if (!network.steps.some((step) => counts(step, worth))) return emptyHanded;
	const length = drawnBy(network) + 1;
	if (network.moves.reduce((sum, { from }) => sum + from.length, 0) * length * 2 > mostSums) return null;
	const ends = new Ends(worth);
	let now = new Map<number, Float64Array>([[0, Float64Array.of(1, ...new Float64Array(length - 1))]]);
	network.steps.forEach((step, at) => {
		const next = new Map<number, Float64Array>();
		const ending = counts(step, worth);
		const { from, to, move, chance } = network.chancesAt(at);
		for (let each = 0; each < from.length; each += 1) {
			const before = now.get(from[each]!);
			if (!before) continue;
			const target = next.get(to[each]!) ?? new Float64Array(length);
			next.set(to[each]!, target);
			const by = ending ? ends.of(step, taken(network, step, at, from[each]!, move[each]!)) : emptyHanded;
			addTo(target, before, by, chance[each]!);
		}
		now = shortened(next);
	});
	return Array.from(now.get(0) ?? []);
}

/** What two independent draws of a cell have in common, by how many units or by which option each took. */
class Shared {
	readonly #known = new Map<number, Distribution>();

	constructor(readonly sizes: Worth) {}

	of(step: Step, at: number, one: number, other: number): Distribution {
		const key = (at * 4096 + Math.min(one, other)) * 65536 + Math.max(one, other);
		const known = this.#known.get(key);
		if (known) return known;
		const found = isTake(step) ? this.#ofLike(step.cell.lists, one, other) : this.#ofWays(step, one, other);
		this.#known.set(key, found);
		return found;
	}

	#ofLike(lists: readonly number[][], one: number, other: number): Distribution {
		const [first] = lists;
		const size = this.sizes(first![0]!);
		// of a list that both have taken of, both have the same unit one time in so many
		const same = 1 / first!.length;
		const found: Distribution = [];
		for (let both = 0; both <= Math.min(one, other); both += 1) {
			const chance = hypergeometric(lists.length, one, other, both);
			for (let hits = 0; hits <= both; hits += 1)
				found[hits * size] =
					(found[hits * size] ?? 0) + chance * Number(choose(both, hits)) * same ** hits * (1 - same) ** (both - hits);
		}
		return filled(found);
	}

	#ofWays({ cell }: Extract<Step, { cell: { options: unknown } }>, one: number, other: number): Distribution {
		const [a, b] = [cell.options[one]!.ways, cell.options[other]!.ways];
		const found: Distribution = [];
		for (const first of a)
			for (const second of b) {
				const sum = first.reduce(
					(all, part, at) => (part >= 0 && second[at]! >= 0 ? all + this.sizes(cell.units[at]!) : all),
					0
				);
				found[sum] = (found[sum] ?? 0) + 1 / (a.length * b.length);
			}
		return filled(found);
	}
}

/** How many sums it takes to find what two draws by a network have in common. */
function costOfShared(network: Network, length: number): number {
	return network.steps.reduce((sum, step, at) => {
		const moves = network.moves[at]!.from.length;
		const ways = isTake(step) ? 0 : step.cell.options.reduce((all, { ways: of }) => all + of.length, 0);
		return sum + moves * moves * length + ways * ways * 4;
	}, 0);
}

/**
 * The distribution of the questions that two independent draws by a network have in common: both are gone through side by
 * side. `sizes` gives how many questions a unit counts. Null where that would take too long.
 */
export function sharedOf(network: Network, sizes: Worth): Distribution | null {
	const length = drawnBy(network) + 1;
	if (costOfShared(network, length) > mostShared) return null;
	const shared = new Shared(sizes);
	// the two may be taken for one another, so that a pair of states stands for both orders: the smaller one first
	let now = new Map<number, Float64Array>([[0, Float64Array.of(1, ...new Float64Array(length - 1))]]);
	network.steps.forEach((step, at) => {
		const next = new Map<number, Float64Array>();
		const { from, to, move, chance } = network.chancesAt(at);
		const width = network.layers[at]!.states.length;
		const nextWidth = network.layers[at + 1]!.states.length;
		const ending = !isTake(step) || step.isLast;
		const movesOf: number[][] = Array.from({ length: width }, () => []);
		from.forEach((state, each) => movesOf[state]!.push(each));
		const all = Array.from(from, (state, each) => taken(network, step, at, state, move[each]!));
		for (const [pair, before] of now)
			for (const one of movesOf[Math.floor(pair / width)]!)
				for (const other of movesOf[pair % width]!) {
					const [low, high] = to[one]! < to[other]! ? [to[one]!, to[other]!] : [to[other]!, to[one]!];
					const key = low * nextWidth + high;
					const target = next.get(key) ?? new Float64Array(length);
					next.set(key, target);
					const common = ending ? shared.of(step, at, all[one]!, all[other]!) : emptyHanded;
					addTo(target, before, common, chance[one]! * chance[other]!);
				}
		now = shortened(next);
	});
	return Array.from(now.get(0) ?? []);
}
