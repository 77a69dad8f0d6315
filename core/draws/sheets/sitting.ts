import { Generator } from '../../numbers/generator';
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
}

const packs = new WeakMap<Plan, Packed>();

function packed(plan: Plan): Packed {
	let known = packs.get(plan);
	if (!known) {
		const texts = new Set(plan.questions.flatMap(({ isText }, question) => (isText ? [question] : [])));
		known = {
			single: Int32Array.from(plan.units, ({ members }) => (members.length === 1 ? members[0]! : -1)),
			points: Float64Array.from(plan.questions, ({ points, isText }) => (isText ? 0 : points)),
			texts: texts.size ? texts : null
		};
		packs.set(plan, known);
	}
	return known;
}

/** The questions of a part in their order, out of its units, whose list is used up. */
function inOrder(plan: Plan, part: PlannedPart, units: number[], generator: Generator): number[] {
	if (part.order === 'shuffled') {
		generator.mix(units);
		const { single } = packed(plan);
		for (let at = 0; at < units.length; at += 1) {
			const question = single[units[at]!]!;
			if (question < 0) return units.flatMap((unit, place) => (place < at ? unit : plan.units[unit]!.members));
			units[at] = question;
		}
		return units;
	}
	const rank = ranking(plan, part);
	const keyed = units.map((unit) => {
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
export function pointsOf(plan: Plan, given: readonly number[][]): number {
	const { points: own, texts } = packed(plan);
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
	const units: number[][] = plan.parts.map(() => []);
	for (const [unit, part] of filling) units[part]!.push(unit);
	return sittingIn(plan, units, seed, generator);
}

/** The same out of the units of each part, in any order. */
export function sittingIn(plan: Plan, units: number[][], seed: string, generator: Generator): SheetSitting {
	const parts = plan.parts.map((part, at) => inOrder(plan, part, ascending(units[at]!), generator));
	const points = pointsOf(plan, parts);
	if (!plan.partsShuffled) return { seed, parts, points };
	return { seed, parts, order: generator.shuffle([...plan.parts.keys()]), points };
}

/** Few numbers in their order, put in place by insertion; many by the machine's own way. */
function ascending(numbers: number[]): number[] {
	if (numbers.length > 24) return numbers.sort((a, b) => a - b);
	for (let at = 1; at < numbers.length; at += 1) {
		const value = numbers[at]!;
		let to = at;
		for (; to > 0 && numbers[to - 1]! > value; to -= 1) numbers[to] = numbers[to - 1]!;
		numbers[to] = value;
	}
	return numbers;
}

/** The seed that follows one: its trailing digits go on, with as many figures; where it has none, -2, -3 … are added. */
export function seedAt(seed: string, at: number): string {
	if (!at) return seed;
	const [, head = '', digits = ''] = /^(.*?)(\d*)$/s.exec(seed)!;
	if (!digits) return `${seed}-${at + 1}`;
	if (digits.length < 15) return head + String(Number(digits) + at).padStart(digits.length, '0');
	return head + (BigInt(digits) + BigInt(at)).toString().padStart(digits.length, '0');
}
