import type { Generator } from '../../numbers/generator';
import { Deck } from '../../numbers/deck';
import { isTake, type Network } from './network';

/** A whole number below a limit of any size, each as likely as any other. */
export function belowLarge(generator: Generator, limit: bigint): bigint {
	if (limit <= 2n ** 32n) return BigInt(generator.below(Number(limit)));
	const words = Math.ceil(limit.toString(16).length / 8);
	const range = 1n << BigInt(32 * words);
	const fair = range - (range % limit);
	for (;;) {
		let value = 0n;
		for (let word = 0; word < words; word += 1) value = (value << 32n) | BigInt(generator.next());
		if (value < fair) return value % limit;
	}
}

/** Notes for each unit the part that it goes to. */
export type Filling = Map<number, number>;

/** The moves of a step by the state that they begin in. */
const byState = new WeakMap<Network, number[][][]>();

function movesFrom(network: Network): number[][][] {
	const known = byState.get(network);
	if (known) return known;
	const made = network.moves.map(({ from }, at) => {
		const lists: number[][] = network.layers[at]!.states.map(() => []);
		from.forEach((state, each) => lists[state]!.push(each));
		return lists;
	});
	byState.set(network, made);
	return made;
}

/** Fills the parts of a network: every filling is as likely as any other. There has to be one. */
export function fill(network: Network, generator: Generator, filling: Filling): void {
	const lists = movesFrom(network);
	let state = 0;
	/** The lists of units of the cell at hand, of which nobody has taken yet what is still in the deck. */
	let free = new Deck<number[]>([]);
	network.steps.forEach((step, at) => {
		const { to, move } = network.moves[at]!;
		let rest = belowLarge(generator, network.completions[at]![state]!);
		const chosen = lists[at]![state]!.find((each) => {
			const ending = network.completions[at + 1]![to[each]!]!;
			const ways = ending && network.ways(at, state, move[each]!) * ending;
			if (rest < ways) return true;
			rest -= ways;
			return false;
		})!;
		if (isTake(step)) {
			if (step.isFirst) free = new Deck(step.cell.lists);
			for (const list of free.take(move[chosen]!, generator))
				filling.set(list[list.length > 1 ? generator.below(list.length) : 0]!, step.cell.parts[step.which]!);
		} else {
			const { ways } = step.cell.options[move[chosen]!]!;
			ways[generator.below(ways.length)]!.forEach((part, which) => {
				if (part >= 0) filling.set(step.cell.units[which]!, part);
			});
		}
		state = to[chosen]!;
	});
}
