import { leastLacking } from '../../checks/quiz-flow';
import { Generator } from '../../numbers/generator';
import { componentsOf, takersOf, TooMany } from './cells';
import { handFor, type Hand } from './hand';
import { Network } from './network';
import type { Plan } from './plan';
import { fill, type Filling } from './sample';
import { Wander } from './wander';

/** How fillings are drawn: uniformly by exact counting, by rejection from independent draws, or by a Markov chain. */
export type Method = 'counted' | 'rejected' | 'chain';

/** What fillings of a plan are drawn by. */
export interface Sampler {
	method: Method;
	/** The networks by which all fillings are counted; null where there are too many states. */
	networks: Network[] | null;
	/** Draws one; the same generator gives the same. */
	draw: (generator: Generator) => Filling;
	/** About how many fillings there are, as their common logarithm, where it was seen while some were drawn. */
	magnitude?: number;
	/** The same as the units of each part, where that is faster; they stand until one is drawn again. */
	deal?: (generator: Generator) => Hand;
}

/** What is known of a plan: how it is drawn, that it cannot be filled, or neither. */
export type Known = Sampler | 'unfillable' | 'unknown';

/** So many draws in a row may be rejected. */
const mostRejected = 20_000;
/** Rejection is used where at least so many of the first tries are accepted. */
const tries = 3000;
const leastAccepted = 15;
/** Between two sittings of a chain each drawn unit is exchanged so often, and so often before the first. */
const between = 2;
const before = 400;

/** The units and parts of a plan without what makes counting long: a part by itself. */
function alone(plan: Plan, part: number, bound: readonly (number | null)[]): Plan {
	const own = plan.parts[part]!;
	const units = own.units.filter((unit) => bound[unit] === null || bound[unit] === part);
	return { ...plan, parts: [{ ...own, units }] };
}

/** The same, with what only concerns pairs and quotas left out. */
function bare(plan: Plan): Plan {
	return {
		...plan,
		units: plan.units.map((unit) => ({ ...unit, never: [] })),
		parts: plan.parts.map((part) => ({ ...part, quotas: [] }))
	};
}

/** Draws from networks into a hand, which is emptied before. */
function dealt(networks: readonly Network[], hand: Hand, generator: Generator): Hand {
	hand.clear();
	for (const network of networks) fill(network, generator, hand);
	return hand;
}

/** What a hand holds as a filling. */
function fillingOf(hand: Hand): Filling {
	const filling: Filling = new Map();
	for (let part = 0; part < hand.begins.length; part += 1) for (const unit of hand.of(part)) filling.set(unit, part);
	return filling;
}

function networksOf(plan: Plan): Network[] | null {
	return componentsOf(plan)?.map((component) => new Network(component)) ?? null;
}

/** The networks of a plan, without its quotas and pairs where those make it too long; null where even that is too long. */
function networksOrBare(plan: Plan): Network[] | null {
	for (const tried of [plan, bare(plan)])
		try {
			return networksOf(tried);
		} catch (error) {
			if (!(error instanceof TooMany)) throw error;
		}
	return null;
}

/** Whether a filling breaks no rule. */
export function isValid(plan: Plan, filling: Filling): boolean {
	const parts = plan.parts.map(({ quotas }) => ({ drawn: 0, counted: quotas.map(() => 0) }));
	for (const [unit, part] of filling) {
		const { counted, never } = plan.units[unit]!;
		if (never.some((other) => filling.has(other))) return false;
		parts[part]!.drawn += counted.length;
		plan.parts[part]!.quotas.forEach(({ has }, at) => {
			parts[part]!.counted[at]! += counted.filter((question) => has(plan.questions[question]!)).length;
		});
	}
	return parts.every(
		({ drawn, counted }, at) =>
			drawn === plan.parts[at]!.draw &&
			plan.parts[at]!.quotas.every(({ least, most }, quota) => counted[quota]! >= least && counted[quota]! <= most)
	);
}

/** Draws each part by itself, and all anew where they do not go together: what is accepted is uniform. */
function rejecting(plan: Plan, networks: readonly Network[][]): (generator: Generator) => Filling | null {
	const hands = plan.parts.map((part) => handFor({ ...plan, parts: [part] }));
	return (generator) => {
		const filling: Filling = new Map();
		let drawn = 0;
		for (const [part, own] of networks.entries()) {
			const here = dealt(own, hands[part]!, generator).of(0);
			drawn += here.length;
			for (const unit of here) filling.set(unit, part);
			if (filling.size !== drawn) return null;
		}
		return isValid(plan, filling) ? filling : null;
	};
}

/** The common logarithm of a whole number of any size, above 0. */
function magnitudeOf(number: bigint): number {
	const figures = number.toString();
	return Math.log10(Number(`0.${figures.slice(0, 15)}`)) + figures.length;
}

function byRejection(plan: Plan, bound: readonly (number | null)[]): Sampler | 'unfillable' | null {
	const networks: Network[][] = [];
	for (const part of plan.parts.keys()) {
		const own = networksOrBare(alone(plan, part, bound));
		if (!own) return null;
		if (own.some(({ total }) => total === 0n)) return 'unfillable';
		networks.push(own);
	}
	const once = rejecting(plan, networks);
	const generator = new Generator('tries');
	let accepted = 0;
	let tried = 0;
	for (; tried < tries && accepted < leastAccepted; tried += 1) if (once(generator)) accepted += 1;
	if (accepted < leastAccepted) return null;
	const drawn = networks.flat().reduce((sum, { total }) => sum + magnitudeOf(total), 0);
	return {
		method: 'rejected',
		networks: null,
		magnitude: drawn + Math.log10(accepted / tried),
		draw(from) {
			for (let at = 0; at < mostRejected; at += 1) {
				const filling = once(from);
				if (filling) return filling;
			}
			throw new TooMany();
		}
	};
}

/** What fillings of a plan are drawn by, or that there is none, or that neither could be found out within the bounds. */
export function samplerOf(plan: Plan): Known {
	if (plan.parts.some(({ impossible }) => impossible !== null)) return 'unfillable';
	const found = takersOf(plan);
	if (!found) return 'unfillable';
	try {
		const networks = networksOf(plan)!;
		if (networks.some(({ total }) => total === 0n)) return 'unfillable';
		const hand = handFor(plan);
		return {
			method: 'counted',
			networks,
			draw: (generator) => fillingOf(dealt(networks, hand, generator)),
			deal: (generator) => dealt(networks, hand, generator)
		};
	} catch (error) {
		if (!(error instanceof TooMany)) throw error;
	}
	if (isLacking(plan, found)) return 'unfillable';
	const rejected = byRejection(plan, found.bound);
	if (rejected) return rejected;
	if (!new Wander(plan, found, new Generator('found')).find()) return 'unknown';
	return { method: 'chain', networks: null, draw: chainOf(plan, found) };
}

/** Whether parts want more than there is, whatever else holds. */
function isLacking(plan: Plan, { takers }: NonNullable<ReturnType<typeof takersOf>>): boolean {
	return (
		leastLacking(
			plan.parts.map(({ draw }, part) => ({
				wanted: draw,
				pool: plan.units.flatMap(({ counted }, unit) => (takers[unit]!.includes(part) ? counted : []))
			}))
		) !== null
	);
}

/** Draws by a chain that begins anew with each generator, and goes on with it. */
function chainOf(plan: Plan, found: NonNullable<ReturnType<typeof takersOf>>): (generator: Generator) => Filling {
	const chains = new WeakMap<Generator, Wander>();
	const drawn = plan.parts.reduce((sum, { draw }) => sum + draw, 0);
	return (generator) => {
		let chain = chains.get(generator);
		if (chain) chain.walk(between * drawn);
		else {
			chain = new Wander(plan, found, generator);
			if (!chain.find()) throw new TooMany();
			chain.walk(before * drawn);
			chains.set(generator, chain);
		}
		return chain.filling;
	};
}
