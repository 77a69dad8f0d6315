import { hypergeometric } from './binomial';
import { DensePlaces, Distributions, filled, type Distribution } from './distributions';
import { isTake, type Network, type Step } from './network';

/** Where working something out would take more than this many sums, it is found by simulation. */
const mostSums = 2e7;
/** Adds a distribution, shifted by another one and times a chance, to a third, which is long enough. */
function addTo(target: Float64Array, source: Float64Array, by: ArrayLike<number>, chance: number): void {
	for (let shift = 0; shift < by.length; shift += 1) {
		const factor = by[shift]! * chance;
		if (factor === 0) continue;
		const length = Math.min(source.length, target.length - shift);
		for (let at = 0; at < length; at += 1) target[at + shift]! += source[at]! * factor;
	}
}

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
export const drawnBy = (network: Network) =>
	network.counts.reduce((sum, { quota, most }) => (quota === null ? sum + most : sum), 0);

/** By a move of a step that ends a cell: of how many of its lists one was taken, or which option. */
export function taken(network: Network, step: Step, at: number, from: number, move: number): number {
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
