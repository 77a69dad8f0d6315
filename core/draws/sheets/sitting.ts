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

function inOrder(plan: Plan, part: PlannedPart, units: number[], generator: Generator): number[] {
	const members = units.map((unit) => plan.units[unit]!.members);
	if (part.order === 'shuffled') return generator.shuffle(members).flat();
	const rank = ranking(plan, part);
	const keyed = members.map((group) => ({ group, key: rank(group) }));
	const compare = (a: number[], b: number[]) => {
		const at = a.findIndex((value, place) => value !== b[place]);
		return at < 0 ? 0 : a[at]! < b[at]! ? -1 : 1;
	};
	return keyed.sort((a, b) => compare(a.key, b.key)).flatMap(({ group }) => group);
}

/** What the questions that are given are worth. */
export function pointsOf({ questions, parts }: Plan, given: readonly number[][]): number {
	const each = given.flatMap((list, part) =>
		list.map((question) => (questions[question]!.isText ? 0 : (parts[part]!.points ?? questions[question]!.points)))
	);
	return Math.round(each.reduce((sum, points) => sum + points, 0) * 1e6) / 1e6;
}

/** A sitting out of a filling, with its orders drawn, each of those that are allowed as likely as any other. */
export function sittingOf(plan: Plan, filling: Filling, seed: string, generator: Generator): SheetSitting {
	const units: number[][] = plan.parts.map(() => []);
	for (const [unit, part] of [...filling].sort(([a], [b]) => a - b)) units[part]!.push(unit);
	const parts = plan.parts.map((part, at) => inOrder(plan, part, units[at]!, generator));
	const points = pointsOf(plan, parts);
	if (!plan.partsShuffled) return { seed, parts, points };
	return { seed, parts, order: generator.shuffle([...plan.parts.keys()]), points };
}

/** The seed that follows one: its trailing digits go on, with as many figures; where it has none, -2, -3 … are added. */
export function seedAt(seed: string, at: number): string {
	if (!at) return seed;
	const [, head = '', digits = ''] = /^(.*?)(\d*)$/s.exec(seed)!;
	if (!digits) return `${seed}-${at + 1}`;
	return head + (BigInt(digits) + BigInt(at)).toString().padStart(digits.length, '0');
}
