import type { Generator } from '../../numbers/generator';
import { takersOf } from './cells';
import type { Plan } from './plan';
import type { Filling } from './sample';

/** A part of a filling as it stands: its units, how many questions they are, and how many of them each quota counts. */
interface Held {
	units: number[];
	drawn: number;
	counted: number[];
}

/** So many steps are made at the most to find a filling where none is known. */
const mostSteps = 400_000;

/**
 * A filling that is changed step by step. It is how a filling is found, and how one is drawn, where there are too many
 * states to be counted: a Markov chain over valid fillings (Metropolis, 1953), each step the exchange of one unit for
 * another that is as likely in the other direction.
 */
export class Wander {
	readonly #plan: Plan;
	readonly #generator: Generator;
	readonly #takers: number[][];
	readonly #bound: (number | null)[];
	readonly #partOf: number[];
	readonly #held: Held[];
	readonly #weights: { size: number; counted: Map<number, number[]> }[];

	/** `bound` units stand where they have to from the beginning. */
	constructor(plan: Plan, found: NonNullable<ReturnType<typeof takersOf>>, generator: Generator) {
		this.#plan = plan;
		this.#generator = generator;
		this.#takers = found.takers;
		this.#bound = found.bound;
		this.#partOf = plan.units.map(() => -1);
		this.#held = plan.parts.map(({ quotas }) => ({ units: [], drawn: 0, counted: quotas.map(() => 0) }));
		this.#weights = plan.units.map(({ counted }, unit) => ({
			size: counted.length,
			counted: new Map(
				found.takers[unit]!.map((part) => [
					part,
					plan.parts[part]!.quotas.map(({ has }) => counted.filter((at) => has(plan.questions[at]!)).length)
				])
			)
		}));
		found.bound.forEach((part, unit) => {
			if (part !== null) this.#put(unit, part);
		});
	}

	#put(unit: number, part: number): void {
		const held = this.#held[part]!;
		this.#partOf[unit] = part;
		held.units.push(unit);
		held.drawn += this.#weights[unit]!.size;
		this.#weights[unit]!.counted.get(part)!.forEach((number, at) => (held.counted[at]! += number));
	}

	#take(unit: number): void {
		const part = this.#partOf[unit]!;
		const held = this.#held[part]!;
		this.#partOf[unit] = -1;
		held.units.splice(held.units.indexOf(unit), 1);
		held.drawn -= this.#weights[unit]!.size;
		this.#weights[unit]!.counted.get(part)!.forEach((number, at) => (held.counted[at]! -= number));
	}

	/** How far a part is from what it wants. */
	#lack(part: number): number {
		const { drawn, counted } = this.#held[part]!;
		const { draw, quotas } = this.#plan.parts[part]!;
		return quotas.reduce(
			(sum, { least, most }, at) => sum + Math.max(0, least - counted[at]!, counted[at]! - most),
			Math.abs(draw - drawn)
		);
	}

	/** With how many units that are given a unit must not come together. */
	#conflicts(unit: number): number {
		const { never } = this.#plan.units[unit]!;
		return never.filter((other) => other === unit || this.#partOf[other]! >= 0).length;
	}

	#lackOfAll(): number {
		const conflicts = this.#partOf.reduce((sum, part, unit) => (part < 0 ? sum : sum + this.#conflicts(unit)), 0);
		return this.#plan.parts.reduce((sum, _, part) => sum + this.#lack(part), conflicts / 2);
	}

	/** Looks for a filling by putting, taking and exchanging, ever seldomer for the worse; false where none was found in the bound. */
	find(): boolean {
		const generator = this.#generator;
		const parts = this.#plan.parts.flatMap(({ isAll, units }, part) => (isAll || !units.length ? [] : [part]));
		let lack = this.#lackOfAll();
		for (let step = 0; step < mostSteps && lack > 0 && parts.length; step += 1) {
			const part = parts[generator.below(parts.length)]!;
			const { units } = this.#plan.parts[part]!;
			const unit = units[generator.below(units.length)]!;
			if (this.#bound[unit] !== null) continue;
			const was = this.#partOf[unit]!;
			const held = this.#held[part]!.units.filter((other) => this.#bound[other] === null);
			const other = was !== part && held.length && generator.below(2) ? held[generator.below(held.length)]! : null;
			const redo = () => {
				if (other !== null) this.#take(other);
				if (this.#partOf[unit]! >= 0) this.#take(unit);
				if (was !== part) this.#put(unit, part);
			};
			const near = () =>
				this.#lack(part) +
				(was >= 0 && was !== part ? this.#lack(was) : 0) +
				[unit, ...(other === null ? [] : [other])].reduce(
					(sum, each) => (this.#partOf[each]! < 0 ? sum : sum + this.#conflicts(each)),
					0
				);
			const worse = -near();
			redo();
			const change = worse + near();
			const heat = 0.5 * (1 - step / mostSteps);
			if (change <= 0 || generator.below(1_000_000) < 1_000_000 * Math.exp(-change / heat)) {
				lack += change;
				// two that conflict with each other were counted from both sides
				if (lack <= 0) lack = this.#lackOfAll();
			} else {
				if (this.#partOf[unit]! >= 0) this.#take(unit);
				if (was >= 0) this.#put(unit, was);
				if (other !== null) this.#put(other, part);
			}
		}
		return lack === 0;
	}

	/** Makes so many steps from one valid filling to another; a step that would break a rule is not made. */
	walk(steps: number): void {
		const generator = this.#generator;
		const parts = this.#plan.parts.flatMap(({ isAll, draw }, part) => (isAll || !draw ? [] : [part]));
		if (!parts.length) return;
		for (let step = 0; step < steps; step += 1) {
			const part = parts[generator.below(parts.length)]!;
			const { units: held } = this.#held[part]!;
			const { units } = this.#plan.parts[part]!;
			const out = held[generator.below(held.length)]!;
			const into = units[generator.below(units.length)]!;
			this.#exchange(part, out, into);
		}
	}

	#exchange(part: number, out: number, into: number): void {
		const other = this.#partOf[into]!;
		if (other === part || this.#bound[out] !== null || this.#bound[into] !== null) return;
		if (this.#weights[out]!.size !== this.#weights[into]!.size) return;
		if (other >= 0 && !this.#takers[out]!.includes(other)) return;
		this.#take(out);
		if (other >= 0) this.#take(into);
		this.#put(into, part);
		if (other >= 0) this.#put(out, other);
		const isValid =
			!this.#lack(part) &&
			(other < 0 || !this.#lack(other)) &&
			!this.#conflicts(into) &&
			(other < 0 || !this.#conflicts(out));
		if (isValid) return;
		this.#take(into);
		if (other >= 0) this.#take(out);
		this.#put(out, part);
		if (other >= 0) this.#put(into, other);
	}

	/** The filling as it stands. */
	get filling(): Filling {
		return new Map(this.#partOf.flatMap((part, unit) => (part < 0 ? [] : [[unit, part] as const])));
	}
}
