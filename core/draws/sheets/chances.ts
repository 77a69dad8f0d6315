import { isTake, type Network } from './network';

/** The chance of each unit to be given by each part: by unit, then by part. */
export type UnitChances = Map<number, Map<number, number>>;

/** Adds the exact chances of the units of a network, by forward and backward sums. */
export function addChances(network: Network, chances: UnitChances): void {
	const add = (unit: number, part: number, chance: number) => {
		const known = chances.get(unit) ?? new Map<number, number>();
		chances.set(unit, known);
		known.set(part, (known.get(part) ?? 0) + chance);
	};
	network.steps.forEach((step, at) => {
		const before = network.reachedAt(at);
		const moved = new Map<number, number>();
		const { from, move, chance } = network.chancesAt(at);
		for (let each = 0; each < from.length; each += 1) {
			const arrived = before[from[each]!]! * chance[each]!;
			moved.set(move[each]!, (moved.get(move[each]!) ?? 0) + arrived);
		}
		if (isTake(step)) {
			const expected = [...moved].reduce((sum, [move, chance]) => sum + move * chance, 0);
			const { lists, parts } = step.cell;
			for (const list of lists)
				for (const unit of list) add(unit, parts[step.which]!, expected / lists.length / list.length);
		} else
			for (const [move, chance] of moved) {
				const { ways } = step.cell.options[move]!;
				for (const way of ways)
					way.forEach((part, which) => {
						if (part >= 0) add(step.cell.units[which]!, part, chance / ways.length);
					});
			}
	});
}
