import { Generator } from '../../numbers/generator';
import type { Figures } from './figures';
import type { Plan } from './plan';
import type { Sampler } from './sampler';

/** What a student who has sat a quiz so many times meets the next time. */
export interface Attempt {
	/** How many attempts are over. */
	after: number;
	/** The share of all questions that can be drawn which such a student has seen, on average. */
	seen: number;
	/** How many questions of the next attempt were seen before, on average. */
	again: number;
	/** The chance that the next attempt brings any that was seen, with its error (99 %); 0 where it is exact. */
	anyAgain: number;
	error: number;
}

/** So many sittings are drawn where the chance cannot be counted. */
const drawn = 800;
/** Where two sittings nearly always share something, three or more do so even more often. */
const nearlySure = 0.999;

/** After one attempt up to `most` of them: what is seen of the pool, and what comes again. */
export function attemptsOf(plan: Plan, sampler: Sampler, figures: Figures, most: number): Attempt[] {
	const chances = [...figures.questions.values()].map(({ chance }) => chance);
	const generator = new Generator('attempts');
	const anyOfTwo = figures.overlap.atLeast[1] ?? 0;
	const isSure = anyOfTwo >= nearlySure && figures.overlap.error === 0;
	const fillings = most > 1 && !isSure ? Array.from({ length: drawn }, () => sampler.draw(generator)) : [];
	return Array.from({ length: most }, (_, at): Attempt => {
		const after = at + 1;
		const seen = chances.map((chance) => 1 - (1 - chance) ** after);
		const share = chances.length ? seen.reduce((sum, value) => sum + value, 0) / chances.length : 0;
		const again = chances.reduce((sum, chance, place) => sum + chance * seen[place]!, 0);
		if (after === 1)
			return {
				after,
				seen: share,
				again,
				anyAgain: anyOfTwo,
				error: figures.overlap.error
			};
		if (isSure) return { after, seen: share, again, anyAgain: anyOfTwo, error: 1 - anyOfTwo };
		let met = 0;
		fillings.forEach((next, place) => {
			// those before it in the list were drawn by themselves, as it was
			const before = Array.from({ length: after }, (_, back) => fillings[(place + back + 1) % drawn]!);
			if ([...next.keys()].some((unit) => plan.units[unit]!.counted.length && before.some((one) => one.has(unit))))
				met += 1;
		});
		const anyAgain = met / drawn;
		// neighbours in the list share sittings, so that the spread is that of fewer of them
		const error = 2.576 * Math.sqrt((Math.max(anyAgain * (1 - anyAgain), 1 / drawn) * (after + 1)) / drawn);
		return { after, seen: share, again, anyAgain, error };
	});
}
