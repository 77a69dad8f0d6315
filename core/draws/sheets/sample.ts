import type { Generator } from '../../numbers/generator';
import { Deck } from '../../numbers/deck';
import { isTake, type Network } from './network';
import { Turn } from './turns';

/** Notes for each unit the part that it goes to. */
export type Filling = Map<number, number>;

/** What drawing of a network needs again and again. */
interface Prepared {
	/** The moves of each step by the state that they begin in. */
	moves: number[][][];
	turns: (Turn | undefined)[][];
	/** The lists of units of the cell of each step, of which nobody has taken yet what is still in it. */
	decks: (Deck | null)[];
	/** The unit of each list of the cell, where every list is of one unit. */
	singles: (Int32Array | null)[];
}

const known = new WeakMap<Network, Prepared>();

function prepared(network: Network): Prepared {
	const before = known.get(network);
	if (before) return before;
	const decks = new Map<object, Deck>();
	const made: Prepared = {
		moves: network.moves.map(({ from }, at) => {
			const lists: number[][] = network.layers[at]!.states.map(() => []);
			from.forEach((state, each) => lists[state]!.push(each));
			return lists;
		}),
		turns: network.moves.map(() => []),
		decks: network.steps.map((step) => {
			if (!isTake(step)) return null;
			const deck = decks.get(step.cell) ?? new Deck(step.cell.lists.length);
			decks.set(step.cell, deck);
			return deck;
		}),
		singles: network.steps.map((step) =>
			isTake(step) && step.cell.lists.every((list) => list.length === 1)
				? Int32Array.from(step.cell.lists, ([unit]) => unit!)
				: null
		)
	};
	known.set(network, made);
	return made;
}

/**
 * Fills the parts of a network: every filling is as likely as any other. There has to be one. `put` hears of each unit
 * that is given, with its part.
 */
export function fill(network: Network, generator: Generator, put: (unit: number, part: number) => void): void {
	const { moves, turns, decks, singles } = prepared(network);
	let state = 0;
	for (let at = 0; at < network.steps.length; at += 1) {
		const step = network.steps[at]!;
		const { to, move } = network.moves[at]!;
		const turn = (turns[at]![state] ??= new Turn(network, at, state, moves[at]![state]!));
		const chosen = turn.draw(generator);
		if (isTake(step)) {
			const { lists, parts } = step.cell;
			const part = parts[step.which]!;
			const deck = decks[at]!;
			if (step.isFirst) deck.gather();
			const single = singles[at];
			const first = deck.taken;
			for (let left = move[chosen]!; left > 0; left -= 1) {
				const list = deck.take(generator);
				if (single) put(single[list]!, part);
			}
			// of larger lists, which unit is taken is drawn once all lists are
			for (let place = single ? deck.taken : first; place < deck.taken; place += 1) {
				const list = lists[deck.at(place)]!;
				put(list[list.length > 1 ? generator.below(list.length) : 0]!, part);
			}
		} else {
			const { ways } = step.cell.options[move[chosen]!]!;
			const way = ways[generator.below(ways.length)]!;
			for (let which = 0; which < way.length; which += 1)
				if (way[which]! >= 0) put(step.cell.units[which]!, way[which]!);
		}
		state = to[chosen]!;
	}
}
