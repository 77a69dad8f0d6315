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

/** What is less likely than that is nothing: all of it together does not reach the fifteenth figure of a chance. */
const nothing = 1e-18;

const filled = (of: Distribution): Distribution => Array.from(of, (chance) => chance ?? 0);

/** How many questions each unit counts towards something. */
export type Worth = (unit: number) => number;

/** How many lists are worth something, and how much, where that is the same for all of them; null where it is not. */
interface Even {
	marked: number;
	most: number;
}

/** The same of some lists, whatever is taken of each; null where one is worth more than another. */
function evenIn(units: readonly number[][], worth: Worth): Even | null {
	let [most, marked] = [0, 0];
	for (const list of units) {
		const own = worth(list[0]!);
		for (let at = 1; at < list.length; at += 1) if (worth(list[at]!) !== own) return null;
		if (!own) continue;
		if (most && own !== most) return null;
		most = own;
		marked += 1;
	}
	return { marked, most };
}

function ofEven(all: number, { marked, most }: Even, drawn: number): Distribution {
	if (!drawn || !most) return [1];
	const found: Distribution = [];
	for (let hits = 0; hits <= Math.min(marked, drawn); hits += 1)
		found[hits * most] = hypergeometric(all, marked, drawn, hits);
	return filled(found);
}

/** The distribution of what some of like lists are worth, of each of which one unit was taken, any of them as likely as any other. */
function ofLike(units: readonly number[][], worth: Worth, drawn: number): Distribution {
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
	readonly #even = new Map<Step, Even | null>();

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
		if (isTake(step)) {
			const { lists } = step.cell;
			let even = this.#even.get(step);
			if (even === undefined) this.#even.set(step, (even = evenIn(lists, this.worth)));
			return even ? ofEven(lists.length, even, which) : ofLike(lists, this.worth, which);
		}
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
function counts(step: Step, worth: Worth): boolean {
	if (!isTake(step)) return step.cell.units.some((unit) => worth(unit) > 0);
	if (!step.isLast) return false;
	const { lists } = step.cell;
	for (let at = 0; at < lists.length; at += 1) {
		const list = lists[at]!;
		for (let which = 0; which < list.length; which += 1) if (worth(list[which]!) > 0) return true;
	}
	return false;
}

/** How many questions a network draws at the most. */
const drawnBy = (network: Network) =>
	network.counts.reduce((sum, { quota, most }) => (quota === null ? sum + most : sum), 0);

/** By a move of a step that ends a cell: of how many of its lists one was taken, or which option. */
function taken(network: Network, step: Step, at: number, from: number, move: number): number {
	return isTake(step) ? step.cell.lists.length - network.leftAt(at, from) + move : move;
}

/** Whether all that a network can draw is worth as much as its sizes. */
const isAll = (network: Network, worth: Worth, sizes: Worth): boolean =>
	network.steps.every(({ cell }) =>
		'lists' in cell
			? cell.lists.every((list) => list.every((unit) => worth(unit) === sizes(unit)))
			: cell.units.every((unit) => worth(unit) === sizes(unit))
	);

/** The distribution of what is drawn by a network is worth, where `sizes` gives how many questions a unit counts; null where that would take too long. */
export function spreadOf(network: Network, worth: Worth, sizes: Worth): Distribution | null {
	const counting = new Set(network.steps.flatMap((step, at) => (counts(step, worth) ? [at] : [])));
	if (!counting.size) return emptyHanded;
	const drawn = drawnBy(network);
	if (isAll(network, worth, sizes)) return [...new Array<number>(drawn).fill(0), 1];
	if (network.moves.reduce((sum, { from }) => sum + from.length, 0) * (drawn + 1) * 2 > mostSums) return null;
	const ends = new Ends(worth);
	// before the first cell that counts, and behind the last, nothing is added: only how likely the states are matters
	const [first, last] = [Math.min(...counting), Math.max(...counting)];
	let now = new Distributions(1);
	network.reachedAt(first).forEach((chance, state) => {
		if (chance) now.chances[now.place(state)] = chance;
	});
	now.trim();
	for (let at = first; at <= last; at += 1)
		now = spreadStep(network, at, now, drawn + 1, counting.has(at) ? ends : null);
	const all = new Float64Array(drawn + 1);
	for (let place = 0; place < now.keys.length; place += 1)
		for (let each = 0; each < now.lengths[place]!; each += 1) all[each]! += now.chances[place * now.size + each]!;
	return Array.from(all);
}

/** The states behind a step, each with the distribution of what was drawn by then; `ends` gives what is added by the step. */
function spreadStep(
	network: Network,
	at: number,
	now: Distributions,
	length: number,
	ends: Ends | null
): Distributions {
	const step = network.steps[at]!;
	const { from, to, move, chance } = network.chancesAt(at);
	const by = Array.from(from, (state, each) =>
		ends ? ends.of(step, taken(network, step, at, state, move[each]!)) : emptyHanded
	);
	const longest = by.reduce((most, own) => Math.max(most, own.length), 1);
	const next = new Distributions(Math.min(length, now.longest + longest - 1));
	const before = new DensePlaces(network.layers[at]!.states.length);
	now.keys.forEach((state, place) => before.set(state, place));
	const places = new DensePlaces(network.layers[at + 1]!.states.length);
	for (let each = 0; each < from.length; each += 1) {
		const place = before.get(from[each]!);
		if (place === undefined) continue;
		let target = places.get(to[each]!);
		if (target === undefined) places.set(to[each]!, (target = next.place(to[each]!)));
		next.add(target, now, place, by[each]!, chance[each]!);
	}
	next.trim();
	return next;
}

/** What two independent draws of a cell have in common, by how many units or by which option each took. */
class Shared {
	/** By what the one took, then by what the other did. */
	#known: (Float64Array | undefined)[][] = [];

	constructor(readonly sizes: Worth) {}

	/** Begins a step, of which nothing is known yet. */
	begin(): void {
		this.#known = [];
	}

	of(step: Step, one: number, other: number): Float64Array {
		const [low, high] = one < other ? [one, other] : [other, one];
		const known = (this.#known[low] ??= []);
		return (known[high] ??= Float64Array.from(
			isTake(step) ? this.#ofLike(step.cell.lists, low, high) : this.#ofWays(step, low, high)
		));
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
	let now = new Distributions(1);
	now.chances[now.place(0)] = 1;
	now.trim();
	network.steps.forEach((step, at) => {
		shared.begin();
		now = sharedStep(network, at, now, length, (one, other) =>
			!isTake(step) || step.isLast ? shared.of(step, one, other) : nothingShared
		);
	});
	return Array.from(now.chances.subarray(0, now.lengths[0] ?? 0));
}

const nothingShared = Float64Array.of(1);

/** Distributions by keys, as the state that a draw is in, or the two states that two are in, one behind the other in memory. */
class Distributions {
	/** A state; of two, the smaller one times how many there are, and the greater one. */
	readonly keys: number[] = [];
	/** How many chances each has room for, and how many of them count. */
	readonly lengths: number[] = [];
	chances: Float64Array;

	constructor(readonly size: number) {
		this.chances = new Float64Array(64 * size);
	}

	/** Makes room for one more; gives where it stands. */
	place(key: number): number {
		const place = this.keys.push(key) - 1;
		if ((place + 1) * this.size > this.chances.length) {
			const more = new Float64Array(this.chances.length * 2);
			more.set(this.chances);
			this.chances = more;
		}
		return place;
	}

	/** How long the longest is. */
	get longest(): number {
		return this.lengths.reduce((most, own) => Math.max(most, own), 1);
	}

	/** Leaves out what is as good as nothing at the end of each. */
	trim(): void {
		for (let place = 0; place < this.keys.length; place += 1) {
			let length = this.size;
			while (length > 1 && this.chances[place * this.size + length - 1]! < nothing) length -= 1;
			this.lengths[place] = length;
		}
	}

	/** Adds one of others to the one at a place, shifted by a distribution and times a chance. */
	add(place: number, others: Distributions, at: number, by: ArrayLike<number>, chance: number): void {
		const { chances: target, size } = this;
		const { chances: source } = others;
		const length = others.lengths[at]!;
		const from = at * others.size;
		for (let shift = 0; shift < by.length; shift += 1) {
			const factor = by[shift]! * chance;
			if (factor === 0) continue;
			const to = place * size + shift;
			const end = Math.min(length, size - shift);
			for (let each = 0; each < end; each += 1) target[to + each]! += source[from + each]! * factor;
		}
	}
}

/** Where the distribution of each key stands. */
type Places = Pick<Map<number, number>, 'get'> & { set: (key: number, place: number) => unknown };

/** Up to so many states their pairs are kept in a table. */
const mostDense = 1000;

/** The same in a table, which is faster than a map. */
class DensePlaces implements Places {
	readonly #places: Int32Array;

	/** `size` is one more than the greatest key. */
	constructor(size: number) {
		this.#places = new Int32Array(size).fill(-1);
	}

	get(key: number): number | undefined {
		const place = this.#places[key]!;
		return place < 0 ? undefined : place;
	}

	set(key: number, place: number): void {
		this.#places[key] = place;
	}
}

/** The pairs behind a step; `common` gives what two moves have in common by what each took of the cell. */
function sharedStep(
	network: Network,
	at: number,
	now: Distributions,
	length: number,
	common: (one: number, other: number) => Float64Array
): Distributions {
	const step = network.steps[at]!;
	const { from, to, move, chance } = network.chancesAt(at);
	const width = network.layers[at]!.states.length;
	const nextWidth = network.layers[at + 1]!.states.length;
	const movesOf: number[][] = Array.from({ length: width }, () => []);
	from.forEach((state, each) => movesOf[state]!.push(each));
	const all = Array.from(from, (state, each) => taken(network, step, at, state, move[each]!));
	// as long as it can get by this step, which is far shorter than by all of them
	let longest = 1;
	for (const one of new Set(all)) longest = Math.max(longest, common(one, one).length);
	const size = Math.min(length, now.longest + longest - 1);
	const next = new Distributions(size);
	const places: Places = nextWidth <= mostDense ? new DensePlaces(nextWidth * nextWidth) : new Map<number, number>();
	for (let pair = 0; pair < now.keys.length; pair += 1) {
		const key = now.keys[pair]!;
		const others = movesOf[key % width]!;
		for (const one of movesOf[Math.floor(key / width)]!)
			for (const other of others) {
				const [a, b] = [to[one]!, to[other]!];
				const behind = a < b ? a * nextWidth + b : b * nextWidth + a;
				let place = places.get(behind);
				if (place === undefined) places.set(behind, (place = next.place(behind)));
				next.add(place, now, pair, common(all[one]!, all[other]!), chance[one]! * chance[other]!);
			}
	}
	next.trim();
	return next;
}
