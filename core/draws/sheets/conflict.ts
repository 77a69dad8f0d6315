import { leastLacking } from '../../checks/quiz-flow';
import { takersOf } from './cells';
import { partName, type Plan, type PlannedPart } from './plan';
import { samplerOf } from './sampler';

/** Parts that cannot hold together: any one of them taken out, the others do; with why, and what would mend it. */
export interface Conflict {
	/** Their places in the sheet, from 0. */
	parts: number[];
	message: string;
}

const only = (plan: Plan, parts: readonly number[]): Plan => ({ ...plan, parts: parts.map((at) => plan.parts[at]!) });
const without = (plan: Plan, change: (part: PlannedPart) => PlannedPart): Plan => ({
	...plan,
	parts: plan.parts.map(change)
});
const noQuotas = (plan: Plan) => without(plan, (part) => ({ ...part, quotas: [] }));
const noPairs = (plan: Plan): Plan => ({ ...plan, units: plan.units.map((unit) => ({ ...unit, never: [] })) });
const fails = (plan: Plan) => samplerOf(thinned(plan)) === 'unfillable';

/**
 * A plan that can be filled exactly where another can, with fewer units: of single questions that the same parts can give
 * and that count the same in their quotas, no more are needed than all parts draw together. Parts that give all they have
 * keep all of it.
 */
export function thinned(plan: Plan): Plan {
	const most = plan.parts.reduce((sum, { draw, isAll }) => sum + (isAll ? 0 : draw), 0);
	const signs: string[] = plan.units.map(() => '');
	const bound = new Set<number>();
	plan.parts.forEach(({ units, quotas, isAll }, part) => {
		for (const unit of units) {
			if (isAll) bound.add(unit);
			const [question] = plan.units[unit]!.counted;
			const counts = quotas.map(({ has }) => (question !== undefined && has(plan.questions[question]!) ? 1 : 0));
			signs[unit] = `${signs[unit] ?? ''}${part}:${counts.join('')} `;
		}
	});
	const kept = new Map<string, number>();
	const places: number[] = [];
	plan.units.forEach(({ members, never }, unit) => {
		const sign = signs[unit];
		if (!sign) return;
		const isLike = members.length === 1 && !never.length && !bound.has(unit);
		const count = kept.get(sign) ?? 0;
		if (isLike && count >= most) return;
		if (isLike) kept.set(sign, count + 1);
		places.push(unit);
	});
	const now = new Map(places.map((unit, at) => [unit, at]));
	const stay = (units: readonly number[]) => units.flatMap((unit) => now.get(unit) ?? []);
	return {
		...plan,
		units: places.map((unit) => ({ ...plan.units[unit]!, never: stay(plan.units[unit]!.never) })),
		parts: plan.parts.map((part) => ({ ...part, units: stay(part.units) }))
	};
}

/** The parts of a plan that cannot be filled, without those that have nothing to do with it. */
function smallest(whole: Plan): number[] {
	const plan = thinned(whole);
	// most often it is one part by itself
	const alone = [...plan.parts.keys()].find((part) => fails(only(plan, [part])));
	if (alone !== undefined) return [alone];
	let kept = [...plan.parts.keys()];
	for (const part of [...kept].reverse()) {
		const others = kept.filter((at) => at !== part);
		if (others.length && fails(only(plan, others))) kept = others;
	}
	return kept;
}

const listOf = (names: readonly string[]): string =>
	names.length < 2 ? (names[0] ?? '') : `${names.slice(0, -1).join(', ')} and ${names.at(-1)!}`;
const counted = (number: number, one: string) => `${number} ${one}${number === 1 ? '' : 's'}`;

/** The category that all these questions stand in or under, in words; nothing where there is none. */
function commonPlace(plan: Plan, questions: readonly number[]): string {
	const [first, ...rest] = questions.map((at) => plan.questions[at]!.category);
	if (!first) return '';
	let depth = first.length;
	for (const path of rest) while (depth && first.slice(0, depth).some((step, at) => path[at] !== step)) depth -= 1;
	return depth ? `“${first.slice(0, depth).join(' › ')}”` : '';
}

/** Says of parts that want more than there is. */
function shortage(plan: Plan, names: string[]): string | null {
	const found = takersOf(plan);
	if (!found) {
		const shared = plan.units.find(
			(_, unit) => plan.parts.filter((part) => part.isAll && part.units.includes(unit)).length > 1
		)!;
		const { id } = plan.questions[shared.members[0]!]!;
		return `${listOf(names)} give “${id}”, and no question comes twice. Take it out of one of them.`;
	}
	const pools = plan.parts.map((_, part) =>
		plan.units.flatMap(({ counted: own }, unit) => (found.takers[unit]!.includes(part) ? own : []))
	);
	const lacking = leastLacking(plan.parts.map(({ draw }, part) => ({ wanted: draw, pool: pools[part]! })));
	if (!lacking) return null;
	const short = lacking.wanted - lacking.there;
	const place = commonPlace(
		plan,
		lacking.parts.flatMap((part) => pools[part]!)
	);
	const wanting = lacking.parts.map((part) => names[part]!);
	const giving = names.filter((name) => !wanting.includes(name));
	const isOne = wanting.length === 1;
	const where = place || (isOne ? 'its pool' : 'their pools');
	const beside = giving.length ? ` beside what ${listOf(giving)} ${giving.length === 1 ? 'gives' : 'give'}` : '';
	return `${listOf(wanting)} ${isOne ? 'wants' : 'want'} ${lacking.wanted} from ${where}, which ${place || isOne ? 'has' : 'have'} ${lacking.there}${beside}: draw ${short} less, or add ${counted(short, 'question')}.`;
}

/** The quotas that cannot hold, one after the other left out until they can; as words. */
function quotaWords(plan: Plan, names: string[]): string {
	let now = plan;
	const needed: string[] = [];
	plan.parts.forEach((part, at) => {
		for (const quota of part.quotas) {
			const less = without(now, (other) =>
				other.title === part.title && other.quotas.includes(quota)
					? { ...other, quotas: other.quotas.filter((one) => one !== quota) }
					: other
			);
			if (fails(less)) now = less;
			else {
				const there = part.units
					.flatMap((unit) => plan.units[unit]!.counted)
					.filter((question) => quota.has(plan.questions[question]!)).length;
				const bounds =
					quota.most >= part.draw
						? `at least ${quota.least}`
						: quota.least
							? quota.least === quota.most
								? `exactly ${quota.least}`
								: `${quota.least} to ${quota.most}`
							: `at most ${quota.most}`;
				needed.push(
					`${names[at]!} wants ${bounds} of ${quota.name} among ${part.draw}, of which its pool has ${there}`
				);
			}
		}
	});
	const others = plan.parts.flatMap((part, at) => {
		if (needed.some((words) => words.startsWith(`${names[at]!} wants `))) return [];
		const there = part.units.reduce((sum, unit) => sum + plan.units[unit]!.counted.length, 0);
		return [`${names[at]!} ${part.isAll ? 'gives all' : `draws ${part.draw}`} of ${there}`];
	});
	const last = plan.parts.length - 1;
	const most = plan.parts[last]!.isAll ? null : mostOf(plan, last);
	const mend = most === null ? 'draw another number' : `draw ${most} in ${names[last]!}`;
	return `${[...needed, ...others].join('; ')}. That cannot hold together: change a quota, ${mend}, or add questions.`;
}

/** The most that a part could draw while all else stays; null where it could not draw even one. */
function mostOf(plan: Plan, part: number): number | null {
	for (let draw = plan.parts[part]!.draw - 1; draw > 0; draw -= 1) {
		const less = without(plan, (other) => (other === plan.parts[part] ? { ...other, draw, isAll: false } : other));
		if (!fails(less)) return draw;
	}
	return null;
}

function because(plan: Plan, names: string[]): string {
	const impossible = plan.parts.find((part) => part.impossible !== null);
	if (impossible) return `${names[plan.parts.indexOf(impossible)]!}: ${impossible.impossible!}`;
	const short = shortage(plan, names);
	if (short) return short;
	const last = plan.parts.length - 1;
	const most = plan.parts[last]!.isAll ? null : mostOf(plan, last);
	const mend =
		most === null
			? 'Take a pair out, draw less, or add questions.'
			: `Draw ${most} in ${names[last]!}, or add questions.`;
	const [hasPairs, hasQuotas] = [!fails(noPairs(plan)), !fails(noQuotas(plan))];
	if (!hasPairs && hasQuotas) return quotaWords(plan, names);
	if (hasPairs)
		return `${listOf(names)}: with the pairs that must not come together${hasQuotas ? ' and the quotas' : ''}, ${counted(
			plan.parts.reduce((sum, { draw }) => sum + draw, 0),
			'question'
		)} cannot be drawn. ${mend}`;
	return `${listOf(names)}: groups come whole or not at all, and with their sizes ${names.length === 1 ? 'it' : 'they'} cannot come to ${listOf(plan.parts.map(({ draw }) => String(draw)))}. ${most === null ? 'Draw another number, or take a group apart.' : `Draw ${most} in ${names[last]!}, or take a group apart.`}`;
}

/** A smallest set of parts that cannot hold together, where a plan cannot be filled. */
export function conflictOf(plan: Plan): Conflict {
	const parts = smallest(plan);
	const names = parts.map((at) => partName(plan.parts[at]!.title, at));
	return { parts, message: because(only(plan, parts), names) };
}
