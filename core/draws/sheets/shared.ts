import { choose, hypergeometric } from './binomial';
import { DensePlaces, Distributions, filled, type Distribution, type Places } from './distributions';
import { isTake, type Network, type Step } from './network';
import { drawnBy, taken, type Worth } from './spread';

/** Where finding what two have in common would take more than this many sums, it is found by simulation. */
const mostShared = 6e7;

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

/** Up to so many states their pairs are kept in a table. */
const mostDense = 1000;

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
