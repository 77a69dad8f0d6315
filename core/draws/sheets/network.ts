import { choose, ratio } from './binomial';
import { TooMany, type Component, type Count, type LikeCell, type PairedCell } from './cells';

/** A step by which a part takes some of units that are alike. */
export interface TakeStep {
	cell: LikeCell;
	/** Which of the parts that may take of the cell does. */
	which: number;
	isFirst: boolean;
	isLast: boolean;
}

/** A step by which one of the ways of units that must not come together is taken. */
export interface PairedStep {
	cell: PairedCell;
}

/** A step of counting. */
export type Step = TakeStep | PairedStep;

/** Whether a step takes of units that are alike. */
export const isTake = (step: Step): step is TakeStep => 'which' in step;

/** What is still open between two steps: the counts that have begun and not ended, and how many of the cell at hand are left. */
interface Layer {
	live: number[];
	/** The counts of each state, in the order of `live`, and behind them what is left of the cell. */
	states: number[][];
}

/** The moves of a step: from a state before it to one behind it, by so many units or by an option. */
interface Moves {
	from: number[];
	to: number[];
	move: number[];
}

/** Moves of a step with their chances, each under one place of all four. */
export interface Chances {
	from: Int32Array;
	to: Int32Array;
	move: Int32Array;
	chance: Float64Array;
}

/** More states between two steps, or more moves in all, are not gone through. */
export const mostStates = 100_000;
const mostMoves = 1_000_000;
/** Of more cells the order in which they are gone through is not looked for. */
const mostOrdered = 400;

type AnyCell = LikeCell | PairedCell;
const countsOf = (cell: AnyCell): number[] =>
	'options' in cell ? cell.counts : [...new Set(cell.adds.flatMap(({ counts }) => counts))];

/** The cells in an order in which as few counts as can be are open at once: always that one next which leaves the fewest states. */
function ordered({ likes, paired, counts }: Component): AnyCell[] {
	const cells: AnyCell[] = [...likes, ...paired];
	if (cells.length > mostOrdered) return cells.sort((a, b) => a.parts[0]! - b.parts[0]!);
	const touched = new Map(cells.map((cell) => [cell, countsOf(cell)]));
	const waiting = counts.map(() => 0);
	for (const own of touched.values()) for (const count of own) waiting[count]! += 1;
	const open = new Set<number>();
	const size = (count: number) => Math.log(counts[count]!.cap + 1);
	const order: AnyCell[] = [];
	while (touched.size) {
		let best: { cell: AnyCell; cost: number } | null = null;
		for (const [cell, own] of touched) {
			const cost = own.reduce(
				(sum, count) =>
					sum + (waiting[count] === 1 ? (open.has(count) ? -size(count) : 0) : open.has(count) ? 0 : size(count)),
				0
			);
			if (!best || cost < best.cost) best = { cell, cost };
		}
		for (const count of touched.get(best!.cell)!) {
			waiting[count]! -= 1;
			if (waiting[count]) open.add(count);
			else open.delete(count);
		}
		touched.delete(best!.cell);
		order.push(best!.cell);
	}
	return order;
}

function stepsOf(component: Component): Step[] {
	return ordered(component).flatMap((cell): Step[] =>
		'options' in cell
			? [{ cell }]
			: cell.parts.map((_, which) => ({ cell, which, isFirst: which === 0, isLast: which === cell.parts.length - 1 }))
	);
}

/** To which counts a step adds, at the most how much to each. */
function supply(step: Step): [count: number, most: number][] {
	if (isTake(step)) {
		const { counts, weights } = step.cell.adds[step.which]!;
		return counts.map((count, at) => [count, weights[at]! * step.cell.lists.length]);
	}
	const { cell } = step;
	return cell.counts.map((count, at) => [count, Math.max(0, ...cell.options.map(({ adds }) => adds[at]!))]);
}

/**
 * All fillings of some parts, counted: a dynamic programme over cells whose state is what each part and each quota has
 * so far. Completions are exact whole numbers, so that what is drawn by them is uniform and the same on every machine.
 */
export class Network {
	readonly steps: Step[];
	readonly counts: Count[];
	readonly layers: Layer[] = [];
	readonly moves: Moves[] = [];
	/** In how many ways each state of a layer can be brought to an end. */
	readonly completions: bigint[][] = [];
	readonly #chances: Chances[] = [];
	readonly #reached: Float64Array[] = [];
	#all = 0;

	/** Throws TooMany where the states pass the bound. */
	constructor(component: Component) {
		this.counts = component.counts;
		this.steps = stepsOf(component);
		this.#forward();
		this.#backward();
	}

	/** How many fillings there are. */
	get total(): bigint {
		return this.completions[0]?.[0] ?? 0n;
	}

	#forward(): void {
		const last = this.counts.map(() => -1);
		this.steps.forEach((step, at) => {
			for (const [count] of supply(step)) last[count] = at;
		});
		const left = this.counts.map(() => 0);
		for (const step of this.steps) for (const [count, most] of supply(step)) left[count]! += most;
		// what no cell adds to stays at nothing
		const isLost = this.counts.some(({ least }, count) => last[count] === -1 && least > 0);
		this.layers.push({ live: [], states: isLost ? [] : [[0]] });
		this.steps.forEach((step, at) => {
			for (const [count, most] of supply(step)) left[count]! -= most;
			this.#advance(step, (count) => last[count] === at, left);
		});
	}

	#advance(step: Step, ends: (count: number) => boolean, left: readonly number[]): void {
		const before = this.layers.at(-1)!;
		const here = [...new Set([...before.live, ...supply(step).map(([count]) => count)])];
		const live = here.filter((count) => !ends(count));
		const kept = here.flatMap((count, at) => (ends(count) ? [] : [at]));
		const keys = new Map<string, number>();
		const states: number[][] = [];
		const moves: Moves = { from: [], to: [], move: [] };
		const adds = this.#adds(step, here);
		before.states.forEach((state, from) => {
			const values = here.map((_, at) => (at < before.live.length ? state[at]! : 0));
			const there = isTake(step) ? (step.isFirst ? step.cell.lists.length : state.at(-1)!) : 0;
			for (let move = 0; move < adds.length; move += 1) {
				if (isTake(step) && (move > there || (step.isLast && step.cell.isBound && move < there))) continue;
				const next = this.#added(values, adds[move]!, here, ends, left);
				if (!next) continue;
				const behind = kept.map((place) => next[place]!);
				behind.push(isTake(step) && !step.isLast ? there - move : 0);
				const key = behind.join();
				let to = keys.get(key);
				if (to === undefined) {
					to = states.push(behind) - 1;
					keys.set(key, to);
					if (to >= mostStates) throw new TooMany();
				}
				moves.from.push(from);
				moves.to.push(to);
				moves.move.push(move);
				if ((this.#all += 1) > mostMoves) throw new TooMany();
			}
		});
		this.layers.push({ live, states });
		this.moves.push(moves);
	}

	/** What each move of a step adds to the counts at hand. */
	#adds(step: Step, here: readonly number[]): number[][] {
		if (!isTake(step)) return step.cell.options.map(({ adds }) => spread(here, step.cell.counts, adds));
		const { counts, weights } = step.cell.adds[step.which]!;
		const one = spread(here, counts, weights);
		const most = Math.min(
			step.cell.lists.length,
			...counts.flatMap((count, at) => {
				const { cap, most: bound } = this.counts[count]!;
				return cap === bound ? [Math.floor(bound / weights[at]!)] : [];
			})
		);
		return Array.from({ length: most + 1 }, (_, number) => one.map((weight) => weight * number));
	}

	/** The counts with what a move adds; null where one is beyond its bounds, or cannot come to them any more. */
	#added(
		values: readonly number[],
		adds: readonly number[],
		here: readonly number[],
		ends: (count: number) => boolean,
		left: readonly number[]
	): number[] | null {
		const next: number[] = [];
		for (let at = 0; at < here.length; at += 1) {
			const count = here[at]!;
			const { least, most, cap } = this.counts[count]!;
			const value = values[at]! + adds[at]!;
			if (cap === most && value > most) return null;
			if (ends(count) ? value < least : value + left[count]! < least) return null;
			next.push(Math.min(value, cap));
		}
		return next;
	}

	#backward(): void {
		const end = this.layers.at(-1)!;
		this.completions[this.steps.length] = end.states.map(() => 1n);
		for (let at = this.steps.length - 1; at >= 0; at -= 1) {
			const own = this.layers[at]!.states.map(() => 0n);
			const behind = this.completions[at + 1]!;
			const { from, to, move } = this.moves[at]!;
			for (let each = 0; each < from.length; each += 1) {
				const ending = behind[to[each]!]!;
				if (ending) own[from[each]!]! += this.ways(at, from[each]!, move[each]!) * ending;
			}
			this.completions[at] = own;
		}
	}

	/** In how many ways a move can be made from a state before a step. */
	ways(at: number, state: number, move: number): bigint {
		const step = this.steps[at]!;
		if (!isTake(step)) return BigInt(step.cell.options[move]!.ways.length);
		return choose(this.leftAt(at, state), move) * BigInt(step.cell.lists[0]!.length) ** BigInt(move);
	}

	/** How many lists of the cell at hand are left before a step. */
	leftAt(at: number, state: number): number {
		const step = this.steps[at]!;
		if (!isTake(step)) return 0;
		return step.isFirst ? step.cell.lists.length : this.layers[at]!.states[state]!.at(-1)!;
	}

	/** How likely each state before a step is, where every filling is as likely as any other. */
	reachedAt(at: number): Float64Array {
		let known = this.#reached[at];
		if (known) return known;
		known = new Float64Array(this.layers[at]!.states.length);
		if (at === 0) known[0] = 1;
		else {
			const before = this.reachedAt(at - 1);
			const { from, to, chance } = this.chancesAt(at - 1);
			for (let each = 0; each < from.length; each += 1) known[to[each]!]! += before[from[each]!]! * chance[each]!;
		}
		return (this.#reached[at] = known);
	}

	/** The moves of a step that lead to an end, each with its chance from the state before it, where every filling is as likely as any other. */
	chancesAt(at: number): Chances {
		return (this.#chances[at] ??= this.#find(at));
	}

	#find(at: number): Chances {
		const { from, to, move } = this.moves[at]!;
		const before = this.completions[at]!;
		const behind = this.completions[at + 1]!;
		const open = from.flatMap((state, each) => (before[state] && behind[to[each]!] ? [each] : []));
		return {
			from: Int32Array.from(open, (each) => from[each]!),
			to: Int32Array.from(open, (each) => to[each]!),
			move: Int32Array.from(open, (each) => move[each]!),
			chance: Float64Array.from(open, (each) =>
				ratio(this.ways(at, from[each]!, move[each]!) * behind[to[each]!]!, before[from[each]!]!)
			)
		};
	}
}

/** Values by some places as values by others; 0 where there is none. */
function spread(here: readonly number[], places: readonly number[], values: readonly number[]): number[] {
	const known = new Map(places.map((place, at) => [place, values[at]!]));
	return here.map((place) => known.get(place) ?? 0);
}
