import { Generator } from '../../numbers/generator';
import { handFor, type Hand } from './hand';
import type { Plan, PlannedPart } from './plan';
import type { Filling } from './sample';

/** One student's copy: the questions of each part in their order, by their places in the sheet. */
export interface SheetSitting {
	seed: string;
	/** In the order of the parts in the sheet. */
	parts: number[][];
	/** The numbers of the parts as they are shown, where the sheet shuffles them. */
	order?: number[];
	points: number;
}

/** The order in which a pool's questions are kept: by the category that comes first in the sheet, then by their own place. */
function keptRanks({ questions }: Plan): number[] {
	const categories = new Map<string, number>();
	const rank = questions.map(({ category }, at) => {
		const key = JSON.stringify(category);
		if (!categories.has(key)) categories.set(key, categories.size);
		return [categories.get(key)!, at] as const;
	});
	const order = [...rank.keys()].sort((a, b) => rank[a]![0] - rank[b]![0] || a - b);
	const places: number[] = [];
	order.forEach((question, at) => (places[question] = at));
	return places;
}

const ranks = new WeakMap<Plan, number[]>();

/** What units of a part are ordered by: the smallest comes first. */
function ranking(plan: Plan, part: PlannedPart): (members: readonly number[]) => number[] {
	if (!ranks.has(plan)) ranks.set(plan, keptRanks(plan));
	const kept = ranks.get(plan)!;
	const listed = new Map(part.list.map((question, at) => [question, at]));
	const place = (question: number) => (part.list.length ? (listed.get(question) ?? Infinity) : kept[question]!);
	const first = (members: readonly number[]) => Math.min(...members.map(place));
	if (part.order === 'kept') return (members) => [first(members)];
	// a group stands by its first member that counts
	const counted = (members: readonly number[]) => members.find((question) => !plan.questions[question]!.isText);
	return (members) => [plan.questions[counted(members) ?? members[0]!]!.difficulty ?? Infinity, first(members)];
}

/** What is asked of a plan for every sitting, close together in memory. */
interface Packed {
	/** The question of each unit; -1 where it is a group. */
	single: Int32Array;
	/** What each question is worth by itself; one that does not count is worth 0. */
	points: Float64Array;
	/** Which questions do not count; null where all do. */
	texts: ReadonlySet<number> | null;
	/** Whether each part is shuffled. */
	shuffled: boolean[];
}

const packs = new WeakMap<Plan, Packed>();

function packed(plan: Plan): Packed {
	let known = packs.get(plan);
	if (!known) {
		const texts = new Set(plan.questions.flatMap(({ isText }, question) => (isText ? [question] : [])));
		known = {
			single: Int32Array.from(plan.units, ({ members }) => (members.length === 1 ? members[0]! : -1)),
			points: Float64Array.from(plan.questions, ({ points, isText }) => (isText ? 0 : points)),
			texts: texts.size ? texts : null,
			shuffled: plan.parts.map(({ order }) => order === 'shuffled')
		};
		packs.set(plan, known);
	}
	return known;
}

/** The questions of units that stand in a hand from a place to another one. */
function questionsOf(plan: Plan, { single }: Packed, units: Int32Array, begin: number, end: number): number[] {
	const questions = new Array<number>(end - begin);
	for (let at = begin; at < end; at += 1) {
		const question = single[units[at]!]!;
		if (question < 0) return [...units.subarray(begin, end)].flatMap((unit) => plan.units[unit]!.members);
		questions[at - begin] = question;
	}
	return questions;
}

/** The questions of a part in an order that is not drawn, whose units stand in a hand. */
function inOrder(plan: Plan, part: PlannedPart, units: Int32Array): number[] {
	const rank = ranking(plan, part);
	const keyed = [...units].map((unit) => {
		const group = plan.units[unit]!.members;
		return { group, key: rank(group) };
	});
	const compare = (a: number[], b: number[]) => {
		const at = a.findIndex((value, place) => value !== b[place]);
		return at < 0 ? 0 : a[at]! < b[at]! ? -1 : 1;
	};
	return keyed.sort((a, b) => compare(a.key, b.key)).flatMap(({ group }) => group);
}

/** What the questions that are given are worth. */
export const pointsOf = (plan: Plan, given: readonly number[][]): number => worthOf(plan, packed(plan), given);

function worthOf(plan: Plan, { points: own, texts }: Packed, given: readonly number[][]): number {
	let sum = 0;
	for (let part = 0; part < given.length; part += 1) {
		const list = given[part]!;
		const { points } = plan.parts[part]!;
		if (points === null) for (let at = 0; at < list.length; at += 1) sum += own[list[at]!]!;
		else sum += points * (texts ? list.filter((question) => !texts.has(question)).length : list.length);
	}
	return Math.round(sum * 1e6) / 1e6;
}

/** A sitting out of a filling, with its orders drawn, each of those that are allowed as likely as any other. */
export function sittingOf(plan: Plan, filling: Filling, seed: string, generator: Generator): SheetSitting {
	const hand = handFor(plan);
	for (const [unit, part] of filling) hand.put(unit, part);
	return sittingIn(plan, hand, seed, generator);
}

/** The same out of a hand, whose units are put in other orders. */
export function sittingIn(plan: Plan, hand: Hand, seed: string, generator: Generator): SheetSitting {
	const known = packed(plan);
	const { units, begins, ends } = hand;
	const parts: number[][] = [];
	for (let at = 0; at < plan.parts.length; at += 1) {
		const begin = begins[at]!;
		const end = ends[at]!;
		// what is drawn by a seed does not depend on the order in which units were given
		sort(units, begin, end);
		if (known.shuffled[at]) {
			generator.mix(units, begin, end);
			parts.push(questionsOf(plan, known, units, begin, end));
		} else parts.push(inOrder(plan, plan.parts[at]!, hand.of(at)));
	}
	const points = worthOf(plan, known, parts);
	if (!plan.partsShuffled) return { seed, parts, points };
	return { seed, parts, order: generator.shuffle([...plan.parts.keys()]), points };
}

/** Puts numbers in their order, few of them by insertion, many by the machine's own way. */
function sort(numbers: Int32Array, begin: number, end: number): void {
	if (end - begin > 24) {
		numbers.subarray(begin, end).sort();
		return;
	}
	for (let at = begin + 1; at < end; at += 1) {
		const value = numbers[at]!;
		let to = at;
		for (; to > begin && numbers[to - 1]! > value; to -= 1) numbers[to] = numbers[to - 1]!;
		numbers[to] = value;
	}
}

/** The seeds that follow one, by how many later they come: its trailing digits go on, with as many figures; where it has none, -2, -3 … are added. */
export function seedsFrom(seed: string): (at: number) => string {
	const [, head = '', digits = ''] = /^(.*?)(\d*)$/s.exec(seed)!;
	const number = Number(digits);
	return (at) => {
		if (!at) return seed;
		if (!digits) return `${seed}-${at + 1}`;
		if (digits.length < 15) return head + String(number + at).padStart(digits.length, '0');
		return head + (BigInt(digits) + BigInt(at)).toString().padStart(digits.length, '0');
	};
}

/** The seed that comes so many later than one. */
export const seedAt = (seed: string, at: number): string => seedsFrom(seed)(at);
