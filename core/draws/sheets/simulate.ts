import { Generator } from '../../numbers/generator';
import { logChoose } from './binomial';
import type { Plan } from './plan';
import type { Filling } from './sample';
import type { Sampler } from './sampler';
import type { Distribution } from './distributions';
import { amountOf, type Measure, type Total } from './totals';

/** A chance with its error, which it keeps 99 times of 100; 0 where it is exact. */
export interface Estimate {
	chance: number;
	error: number;
}

/** So many sittings are drawn for the figures. */
export const simulated = 20_000;
/** For the errors they are taken in so many batches, each of which is as good as independent of the others. */
const batches = 20;
/** Student's t for 99 % and 19 degrees of freedom. */
const t = 2.861;

/** The mean of the means of batches, with its error (batch means). */
function estimated(means: readonly number[]): { mean: number; error: number } {
	const mean = means.reduce((sum, value) => sum + value, 0) / means.length;
	const variance = means.reduce((sum, value) => sum + (value - mean) ** 2, 0) / (means.length - 1);
	return { mean, error: t * Math.sqrt(variance / means.length) };
}

/** Figures by sittings that are drawn, with their errors. The same plan gives the same. */
export class Simulation {
	readonly #plan: Plan;
	readonly #fillings: Filling[];
	readonly #magnitude: number | undefined;

	/** `told` hears how many are drawn, and may throw to end it. */
	constructor(
		plan: Plan,
		sampler: Sampler,
		told: (done: number, total: number) => void = () => undefined,
		count = simulated
	) {
		this.#plan = plan;
		this.#magnitude = sampler.magnitude;
		const generator = new Generator('figures');
		this.#fillings = Array.from({ length: count }, (_, at) => {
			if (at % 250 === 0) told(at, count);
			return sampler.draw(generator);
		});
	}

	/** The mean of something over batches of sittings. */
	#mean(of: (filling: Filling) => number): { mean: number; error: number } {
		const size = this.#fillings.length / batches;
		return estimated(
			Array.from({ length: batches }, (_, batch) => {
				let sum = 0;
				for (let at = batch * size; at < (batch + 1) * size; at += 1) sum += of(this.#fillings[at]!);
				return sum / size;
			})
		);
	}

	/** The greatest error that a share of the sittings can have, were they independent of one another. */
	get errorOfShares(): number {
		return (2.576 * 0.5) / Math.sqrt(this.#fillings.length);
	}

	/** The chance of each of some questions. */
	chances(questions: readonly number[]): Map<number, Estimate> {
		const unitOf = new Map(
			this.#plan.units.flatMap(({ members }, unit) => members.map((question) => [question, unit] as const))
		);
		const size = this.#fillings.length / batches;
		const counts = this.#plan.units.map(() => new Array<number>(batches).fill(0));
		this.#fillings.forEach((filling, at) => {
			for (const unit of filling.keys()) counts[unit]![Math.floor(at / size)]! += 1 / size;
		});
		return new Map(
			questions.map((question) => {
				const { mean, error } = estimated(counts[unitOf.get(question)!]!);
				// what was never drawn, or always, may still be rare, or nearly sure
				return [question, { chance: mean, error: Math.max(error, 4.6 / this.#fillings.length) }];
			})
		);
	}

	/** What two sittings have in common: each is held against the one that is drawn half of them later. */
	overlap(): { expected: number; atLeast: number[]; error: number } {
		const half = Math.floor(this.#fillings.length / 2);
		const counts: number[] = [];
		for (let at = 0; at < half; at += 1) {
			let shared = 0;
			for (const unit of this.#fillings[at]!.keys())
				if (this.#fillings[at + half]!.has(unit)) shared += this.#plan.units[unit]!.counted.length;
			counts[shared] = (counts[shared] ?? 0) + 1;
		}
		const chances = Array.from(counts, (count) => (count ?? 0) / half);
		const expected = chances.reduce((sum, chance, at) => sum + chance * at, 0);
		let left = 1;
		const atLeast = chances.map((chance) => {
			const here = left;
			left = Math.max(0, left - chance);
			return here;
		});
		const variance = chances.reduce((sum, chance, at) => sum + chance * (at - expected) ** 2, 0);
		return { expected, atLeast, error: Math.max(2.576 * Math.sqrt(variance / half), (2.576 * 0.5) / Math.sqrt(half)) };
	}

	/** The least, the most and the mean of something. */
	total(measure: Measure): Total {
		const of = (filling: Filling) =>
			[...filling].reduce((sum, [unit, part]) => sum + amountOf(this.#plan, measure, unit, part), 0);
		let [least, most] = [Infinity, -Infinity];
		const { mean, error } = this.#mean((filling) => {
			const sum = of(filling);
			[least, most] = [Math.min(least, sum), Math.max(most, sum)];
			return sum;
		});
		return { least, most, mean, equal: most - least < 1e-9, error };
	}

	/** How many questions of a sitting count, as chances of 0, 1, 2 …; `worth` says how many each unit does. */
	spread(worth: ArrayLike<number>): Distribution {
		const counts: number[] = [];
		for (const filling of this.#fillings) {
			let sum = 0;
			for (const unit of filling.keys()) sum += worth[unit]!;
			counts[sum] = (counts[sum] ?? 0) + 1;
		}
		return Array.from(counts, (count) => (count ?? 0) / this.#fillings.length);
	}

	/** About how many sittings there are, as a power of ten; where nothing better is known, at the most as many as if each part drew by itself. */
	powerOfTen(): string {
		const { parts, units } = this.#plan;
		const alone = parts.reduce((sum, part) => {
			const there = part.units.reduce((all, unit) => all + units[unit]!.counted.length, 0);
			return sum + logChoose(there, part.draw);
		}, 0);
		return `10^${Math.max(0, Math.floor(this.#magnitude ?? alone / Math.LN10))}`;
	}
}
