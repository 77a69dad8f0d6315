import { isTake, type Network } from './network';

/** How likely each of some units is to be given by a part. */
export interface UnitChance {
	units: readonly number[];
	part: number;
	chance: number;
}

/** The exact chances of the units of a network by forward and backward sums; a unit stands in as many as parts can give it. */
export function chancesOf(network: Network): UnitChance[] {
	return network.steps.flatMap((step, at): UnitChance[] => {
		const before = network.reachedAt(at);
		const moved = new Map<number, number>();
		const { from, move, chance } = network.chancesAt(at);
		for (let each = 0; each < from.length; each += 1) {
			const arrived = before[from[each]!]! * chance[each]!;
			moved.set(move[each]!, (moved.get(move[each]!) ?? 0) + arrived);
		}
		if (isTake(step)) {
			const expected = [...moved].reduce((sum, [taken, likely]) => sum + taken * likely, 0);
			const { lists, parts } = step.cell;
			// the lists of a cell are as long as one another
			const each = expected / lists.length / lists[0]!.length;
			return [{ units: lists.flat(), part: parts[step.which]!, chance: each }];
		}
		const { cell } = step;
		return [...moved].flatMap(([option, likely]) => {
			const { ways } = cell.options[option]!;
			return ways.flatMap((way) =>
				way.flatMap((part, which) =>
					part < 0 ? [] : [{ units: [cell.units[which]!], part, chance: likely / ways.length }]
				)
			);
		});
	});
}
