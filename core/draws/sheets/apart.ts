import { Generator } from '../../numbers/generator';
import type { Plan } from './plan';
import type { Filling } from './sample';
import type { Sampler } from './sampler';
import { sittingOf, type SheetSitting } from './sitting';

/** Sittings that have as little in common as was found, with what they share: by pairs of them, in all, and the least that is possible at all. */
export interface ApartSittings {
	sittings: SheetSitting[];
	/** How many questions each two share: by the first, then by the second, which comes later. */
	shared: number[][];
	/** All of these together. */
	reached: number;
	/** No choice of as many sittings shares less in all than this. */
	least: number;
}

/** So many sittings are looked at for each that is chosen, and so often one is exchanged for a better one. */
const candidates = 300;
const exchanges = 4;

/** By unit, how many questions of it count. */
const sizesOf = ({ units }: Plan) => units.map(({ counted }) => counted.length);

function sharedBy(sizes: readonly number[], one: Filling, other: Filling): number {
	let sum = 0;
	for (const unit of one.keys()) if (other.has(unit)) sum += sizes[unit]!;
	return sum;
}

/** Parts that share questions, as groups of their places. */
function groupsOf({ parts }: Plan): number[][] {
	const groups: { parts: number[]; units: Set<number> }[] = [];
	parts.forEach(({ units }, at) => {
		const meeting = groups.filter((group) => units.some((unit) => group.units.has(unit)));
		for (const group of meeting) groups.splice(groups.indexOf(group), 1);
		groups.push({
			parts: [...meeting.flatMap((group) => group.parts), at],
			units: new Set([...meeting.flatMap((group) => [...group.units]), ...units])
		});
	});
	return groups.map((group) => group.parts);
}

/**
 * The least that so many sittings share in all: where parts that share questions draw n of N together, each question
 * stands in as many of the sittings as any other, or in one more, and u of them share it in u (u − 1) / 2 pairs.
 */
export function leastShared(plan: Plan, count: number): number {
	const sizes = sizesOf(plan);
	return groupsOf(plan).reduce((sum, group) => {
		const units = new Set(group.flatMap((part) => plan.parts[part]!.units));
		const there = [...units].reduce((all, unit) => all + sizes[unit]!, 0);
		const drawn = group.reduce((all, part) => all + plan.parts[part]!.draw, 0) * count;
		if (!there) return sum;
		const [low, over] = [Math.floor(drawn / there), drawn % there];
		return sum + (there - over) * ((low * (low - 1)) / 2) + over * (((low + 1) * low) / 2);
	}, 0);
}

/** Whether nothing but the sizes of its parts binds a sheet: then questions are dealt like cards. */
function isPlain({ parts, units }: Plan): boolean {
	const all = parts.flatMap((part) => part.units);
	return (
		new Set(all).size === all.length &&
		parts.every(({ quotas }) => !quotas.length) &&
		units.every(({ never, members }) => !never.length && members.length === 1)
	);
}

/** Deals the questions of each part like cards: the pack is gone through, and begun anew in another order. */
function dealt({ parts }: Plan, count: number, generator: Generator): Filling[] {
	const fillings: Filling[] = Array.from({ length: count }, () => new Map<number, number>());
	parts.forEach(({ units, draw }, part) => {
		let pack: number[] = [];
		for (const filling of fillings)
			for (let drawn = 0; drawn < draw; drawn += 1) {
				if (!pack.length) pack = generator.shuffle([...units]);
				// of a pack that was begun anew, the next that the sitting has not
				const at = pack.findIndex((unit) => !filling.has(unit));
				if (at < 0) {
					const fresh = generator.shuffle(units.filter((unit) => !filling.has(unit) && !pack.includes(unit)));
					filling.set(fresh.shift()!, part);
					pack.push(...fresh);
				} else filling.set(pack.splice(at, 1)[0]!, part);
			}
	});
	return fillings;
}

/** Chooses sittings one after the other, each the one of many that shares the least with those before; then exchanges them. */
function chosen(plan: Plan, sampler: Sampler, count: number, generator: Generator): Filling[] {
	const sizes = sizesOf(plan);
	const found: Filling[] = [];
	const cost = (filling: Filling, others: readonly Filling[]) =>
		others.reduce((sum, other) => sum + sharedBy(sizes, filling, other), 0);
	const best = (others: readonly Filling[], known: Filling | null): Filling => {
		let [least, at] = [known ? cost(known, others) : Infinity, known];
		for (let tried = 0; tried < candidates && least > 0; tried += 1) {
			const filling = sampler.draw(generator);
			const own = cost(filling, others);
			if (own < least) [least, at] = [own, new Map(filling)];
		}
		return at!;
	};
	for (let at = 0; at < count; at += 1) found.push(best(found, null));
	for (let round = 0; round < exchanges; round += 1)
		found.forEach((filling, at) => {
			found[at] = best(
				found.filter((_, other) => other !== at),
				filling
			);
		});
	return found;
}

/** So many sittings with as little in common as can be found; the same plan, count and seed give the same. */
export function apart(plan: Plan, sampler: Sampler, count: number, seed: string): ApartSittings {
	const generator = new Generator(`${seed}/apart`);
	const fillings = isPlain(plan) ? dealt(plan, count, generator) : chosen(plan, sampler, count, generator);
	const sizes = sizesOf(plan);
	const shared = fillings.map((one, at) => fillings.slice(at + 1).map((other) => sharedBy(sizes, one, other)));
	return {
		sittings: fillings.map((filling, at) => {
			const own = `${seed}/${at + 1}`;
			return sittingOf(plan, filling, own, new Generator(own));
		}),
		shared,
		reached: shared.flat().reduce((sum, value) => sum + value, 0),
		least: leastShared(plan, count)
	};
}
