import { Generator as Numbers } from '../../numbers/generator';
import { conflictOf, type Conflict } from './conflict';
import { figuresOf, totalOf, type Figures } from './figures';
import { planOf, type Plan } from './plan';
import { samplerOf, type Sampler } from './sampler';
import { seedsFrom, sittingIn, sittingOf, type SheetSitting } from './sitting';

/** A sheet that was looked into: it can be filled, it cannot, or neither was found out within the bounds. */
export type Looked =
	{ plan: Plan; sampler: Sampler } | { plan: Plan; conflict: Conflict } | { plan: Plan; unknown: string };

/** Looks into a plan. */
export function lookInto(plan: Plan): Looked {
	const known = samplerOf(plan);
	if (known === 'unfillable') return { plan, conflict: conflictOf(plan) };
	if (known === 'unknown')
		return {
			plan,
			unknown:
				'Whether this sheet can be filled is not known: too many parts, quotas and pairs hang together to try them all, and no sitting was found. Take some of its rules out.'
		};
	return { plan, sampler: known };
}

/** Sittings of a plan from a seed and those that follow it, uniform over all that are valid. */
export function* sittings(plan: Plan, sampler: Sampler, seed: string, count: number): Generator<SheetSitting> {
	const seeds = seedsFrom(seed);
	for (let at = 0; at < count; at += 1) {
		const own = seeds(at);
		const generator = new Numbers(own);
		yield sampler.deal
			? sittingIn(plan, sampler.deal(generator), own, generator)
			: sittingOf(plan, sampler.draw(generator), own, generator);
	}
}

export { drawingRule } from './rule';
export { figuresOf, totalOf, planOf, type Figures, type Plan, type SheetSitting };
