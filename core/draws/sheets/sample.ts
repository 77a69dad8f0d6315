import type { Generator } from '../../numbers/generator';
import { Deck } from '../../numbers/deck';
import { isTake, type Network, type Step, type TakeStep } from './network';
import { Turn } from './turns';

/** Notes for each unit the part that it goes to. */
export type Filling = Map<number, number>;

/** A step as it is drawn by, with what it needs at hand. */
interface Drawing {
	step: Step;
	/** By the place of a move: the state that it leads to, and what it is. */
	to: readonly number[];
	move: readonly number[];
	/** The places of the moves by the state that they begin in. */
	from: number[][];
	/** What comes next from each state, as far as it was come to. */
	turns: (Turn | undefined)[];
	/** The lists of units of the cell, of which nobody has taken yet what is still in it. */
	deck: Deck | null;
	/** The unit of each list of the cell, where every list is of one unit. */
	single: Int32Array | null;
}

const known = new WeakMap<Network, Drawing[]>();

function drawingsOf(network: Network): Drawing[] {
	const before = known.get(network);
	if (before) return before;
	const decks = new Map<object, Deck>();
	const made = network.steps.map((step, at): Drawing => {
		const { from, to, move } = network.moves[at]!;
		const lists: number[][] = network.layers[at]!.states.map(() => []);
		from.forEach((state, each) => lists[state]!.push(each));
		const drawing = { step, to, move, from: lists, turns: [], deck: null, single: null };
		if (!isTake(step)) return drawing;
		const { lists: units } = step.cell;
		const deck = decks.get(step.cell) ?? new Deck(units.length);
		decks.set(step.cell, deck);
		const isSingle = units.every((list) => list.length === 1);
		return { ...drawing, deck, single: isSingle ? Int32Array.from(units, ([unit]) => unit!) : null };
	});
	known.set(network, made);
	return made;
}

/** Takes so many of the like units of a step. */
function take(
	drawing: Drawing,
	{ cell, isFirst }: TakeStep,
	count: number,
	generator: Generator,
	into: number[]
): void {
	const { single } = drawing;
	const deck = drawing.deck!;
	if (isFirst) deck.gather();
	if (single) {
		deck.take(generator, count, into, single);
		return;
	}
	const lists: number[] = [];
	deck.take(generator, count, lists);
	// which unit of larger lists is taken is drawn once all lists are
	for (const list of lists) {
		const units = cell.lists[list]!;
		into.push(units[units.length > 1 ? generator.below(units.length) : 0]!);
	}
}

/** Fills the parts of a network: every filling is as likely as any other. There has to be one. What each part is given goes to the end of its list. */
export function fill(network: Network, generator: Generator, given: readonly number[][]): void {
	const drawings = drawingsOf(network);
	let state = 0;
	for (let at = 0; at < drawings.length; at += 1) {
		const drawing = drawings[at]!;
		const { step, to, move, from, turns } = drawing;
		const turn = (turns[state] ??= new Turn(network, at, state, from[state]!));
		const chosen = turn.draw(generator);
		if (isTake(step)) take(drawing, step, move[chosen]!, generator, given[step.cell.parts[step.which]!]!);
		else {
			const { ways } = step.cell.options[move[chosen]!]!;
			const way = ways[generator.below(ways.length)]!;
			for (let which = 0; which < way.length; which += 1)
				if (way[which]! >= 0) given[way[which]!]!.push(step.cell.units[which]!);
		}
		state = to[chosen]!;
	}
}
