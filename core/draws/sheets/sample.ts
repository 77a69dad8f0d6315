import { Decks } from '../../numbers/decks';
import type { Generator } from '../../numbers/generator';
import type { Hand } from './hand';
import { isTake, type Network, type PairedStep, type TakeStep } from './network';
import { Turns } from './turns';

/** Notes for each unit the part that it goes to. */
export type Filling = Map<number, number>;

/** What drawing of a network needs again and again. */
interface Drawing {
	turns: Turns;
	/** The part that takes in each step; -1 where one of several ways is drawn. */
	parts: Int32Array;
	/** The deck that each step takes from, and whether it is the first to. */
	deckOf: Int32Array;
	isFirst: Uint8Array;
	/** Whether the deck of each step is of units; else it is of places of lists of them. */
	isSingle: Uint8Array;
	decks: Decks;
}

const known = new WeakMap<Network, Drawing>();

function drawingOf(network: Network): Drawing {
	const before = known.get(network);
	if (before) return before;
	const { steps } = network;
	const cells = [...new Set(steps.flatMap((step) => (isTake(step) ? [step.cell] : [])))];
	const singles = cells.map(({ lists }) => lists.every(({ length }) => length === 1));
	const places = new Map(cells.map((cell, at) => [cell, at]));
	const deckOf = Int32Array.from(steps, (step) => (isTake(step) ? places.get(step.cell)! : -1));
	const made = {
		turns: new Turns(network),
		parts: Int32Array.from(steps, (step) => (isTake(step) ? step.cell.parts[step.which]! : -1)),
		deckOf,
		isFirst: Uint8Array.from(steps, (step) => (isTake(step) && step.isFirst ? 1 : 0)),
		isSingle: Uint8Array.from(deckOf, (deck) => (singles[deck] ? 1 : 0)),
		decks: new Decks(cells.map(({ lists }, cell) => lists.map(([unit], list) => (singles[cell] ? unit! : list))))
	};
	known.set(network, made);
	return made;
}

/** Puts a unit of each of some lists in the place of the number of the list, each of its units as likely as any other. */
function unitsOf({ cell: { lists } }: TakeStep, units: Int32Array, begin: number, end: number, generator: Generator) {
	for (let at = begin; at < end; at += 1) {
		const list = lists[units[at]!]!;
		units[at] = list[list.length > 1 ? generator.below(list.length) : 0]!;
	}
}

/** Takes one of the ways of units that must not come together. */
function takeOne({ cell }: PairedStep, option: number, generator: Generator, hand: Hand): void {
	const { ways } = cell.options[option]!;
	const way = ways[generator.below(ways.length)]!;
	for (let which = 0; which < way.length; which += 1) if (way[which]! >= 0) hand.put(cell.units[which]!, way[which]!);
}

/** Fills the parts of a network: every filling is as likely as any other. There has to be one. */
export function fill(network: Network, generator: Generator, hand: Hand): void {
	const { turns, parts, deckOf, isFirst, isSingle, decks } = drawingOf(network);
	let state = 0;
	for (let at = 0; at < parts.length; at += 1) {
		const chosen = turns.draw(at, state, generator);
		const move = turns.numbers[chosen]!;
		state = turns.numbers[chosen + 1]!;
		const part = parts[at]!;
		if (part < 0) {
			takeOne(network.steps[at] as PairedStep, move, generator, hand);
			continue;
		}
		if (isFirst[at]) decks.gather(deckOf[at]!);
		if (!move) continue;
		const begin = hand.ends[part]!;
		const end = begin + move;
		decks.take(deckOf[at]!, generator, move, hand.units, begin);
		hand.ends[part] = end;
		// which unit of larger lists is taken is drawn once all lists are
		if (!isSingle[at]) unitsOf(network.steps[at] as TakeStep, hand.units, begin, end, generator);
	}
}
