import { isTake, type Network, type Step } from './network';
import type { Plan } from './plan';

/** The least and the most that a filling can be worth. */
export interface Bounds {
	least: number;
	most: number;
}

/** The least, the most and the mean of something over all sittings; the error is that of the mean, and 0 where it is exact. */
export interface Total extends Bounds {
	mean: number;
	/** Whether it is the same for all. */
	equal: boolean;
	error: number;
}

/** What something about a question amounts to where a part gives it, as its points; a part may say it for all. */
export interface Measure {
	ofQuestion: (question: number) => number;
	/** What a part says of each of its questions instead, or null. */
	ofPart: (part: number) => number | null;
}

/** The points of questions, as their parts have it. */
export function pointsMeasure({ questions, parts }: Plan): Measure {
	return { ofQuestion: (question) => questions[question]!.points, ofPart: (part) => parts[part]!.points };
}

/** What the questions of a unit amount to in a part. */
export function amountOf(plan: Plan, { ofQuestion, ofPart }: Measure, unit: number, part: number): number {
	const { counted } = plan.units[unit]!;
	const fixed = ofPart(part);
	if (fixed !== null) return fixed * counted.length;
	return counted.reduce((sum, question) => sum + ofQuestion(question), 0);
}

/** What the moves of steps cost at the least and at the most. */
class Costs {
	/** For each cell, the sums of the smallest and of the greatest units, by how many. */
	readonly #sums = new Map<object, { small: number[]; great: number[] }>();

	constructor(
		readonly plan: Plan,
		readonly measure: Measure
	) {}

	#sumsOf(cell: { lists: number[][] }, part: number) {
		const known = this.#sums.get(cell);
		if (known) return known;
		const amounts = cell.lists.map((list) => list.map((unit) => amountOf(this.plan, this.measure, unit, part)));
		const sorted = (of: (...values: number[]) => number) => amounts.map((list) => of(...list)).sort((a, b) => a - b);
		const running = (list: number[]) => {
			const sums = [0];
			for (const value of list) sums.push(sums.at(-1)! + value);
			return sums;
		};
		const made = { small: running(sorted(Math.min)), great: running(sorted(Math.max).reverse()) };
		this.#sums.set(cell, made);
		return made;
	}

	/** Of like units, those that go to parts with points of their own are any; of the others the cheapest, or the dearest. */
	of(step: Step, left: number, move: number): Bounds {
		if (!isTake(step)) {
			const all = step.cell.options[move]!.ways.map((way) =>
				way.reduce(
					(sum, part, at) => (part < 0 ? sum : sum + amountOf(this.plan, this.measure, step.cell.units[at]!, part)),
					0
				)
			);
			return { least: Math.min(...all), most: Math.max(...all) };
		}
		const { lists, parts } = step.cell;
		const part = parts[step.which]!;
		if (this.measure.ofPart(part) !== null) {
			const cost = move * amountOf(this.plan, this.measure, lists[0]![0]!, part);
			return { least: cost, most: cost };
		}
		const following = parts[step.which + 1];
		if (following !== undefined && this.measure.ofPart(following) === null) return { least: 0, most: 0 };
		const taken = lists.length - left + move;
		const { small, great } = this.#sumsOf(step.cell, part);
		return { least: small[taken]!, most: great[taken]! };
	}
}

/** The least and the most that a filling by a network can amount to. There has to be a filling. */
export function boundsOf(network: Network, plan: Plan, measure: Measure): Bounds {
	const costs = new Costs(plan, measure);
	let now: (Bounds | undefined)[] = [{ least: 0, most: 0 }];
	network.steps.forEach((step, at) => {
		const next: (Bounds | undefined)[] = [];
		const { from, to, move } = network.moves[at]!;
		for (let each = 0; each < from.length; each += 1) {
			const before = now[from[each]!];
			if (!before || !network.completions[at + 1]![to[each]!]) continue;
			const cost = costs.of(step, network.leftAt(at, from[each]!), move[each]!);
			const there = next[to[each]!];
			const [least, most] = [before.least + cost.least, before.most + cost.most];
			next[to[each]!] = there
				? { least: Math.min(there.least, least), most: Math.max(there.most, most) }
				: { least, most };
		}
		now = next;
	});
	return now[0]!;
}
