import type { Pool } from 'mysql2/promise';
import { pointsRange } from '$core/draws/pool';
import { attemptsOf, type Attempt } from '$core/draws/sheets/attempts';
import { figuresOf, lookInto, type Figures, type Plan } from '$core/draws/sheets';
import type { Sampler } from '$core/draws/sheets/sampler';
import type { Total } from '$core/draws/sheets/totals';
import { WrongSheet } from '$core/draws/sheets/wrong';
import { Refused } from '../loads/refused';
import { tellProgress } from '../threads/progress';
import { withTitles } from './titles';
import { keptSheetOf, type DrawnQuiz, type QuizSheet } from './sheet';

/** What a part of a sheet has to draw from, and what comes of it by itself. */
export interface PartLook {
	/** How many questions its pool holds, and how many of them it gives. */
	holds: number;
	draws: number;
	/** The points of any draw: the least and the most. */
	points: [least: number, most: number];
	/** For each of its quotas, by value: how many of the pool have it, and how many are drawn at the least and the most. */
	quotas: { holds: number; least: number; most: number }[][];
	/** The kinds and the tags of its pool, those of the most questions first, and its easiest and hardest question. */
	kinds: { name: string; holds: number }[];
	tags: { name: string; holds: number }[];
	difficulty: [least: number, most: number] | null;
	/** What the questions of its pool are worth by themselves, the least first, and how many are. */
	worths: { points: number; holds: number }[];
}

/** How many questions of a sitting have a value: the chances of 0, 1, 2 …, and how many the pools hold. */
export interface ValueLook {
	/** The steps of a category with its bank before them; the one name of anything else. */
	path: string[];
	chances: number[];
	holds: number;
}

/** What students get of a sheet that can be filled. */
export interface FiguresLook {
	/** Counted exactly, or by so many sittings that were drawn. */
	isExact: boolean;
	sittings: string;
	points: Total;
	seconds: Total | null;
	/** The mean difficulty of a sitting's questions; null where one that can be drawn has none. */
	difficulty: Total | null;
	overlap: Figures['overlap'];
	categories: ValueLook[];
	kinds: ValueLook[];
	tags: ValueLook[];
	/** The error of these chances; 0 where they are exact. */
	error: number;
	/** The least and the greatest chance of a question that can come. */
	chance: { least: number; most: number; error: number; questions: number };
	attempts: Attempt[];
	/** How many questions of the pools no sitting can have. */
	never: number;
}

/** A sheet that was looked into. */
export interface SheetLook {
	parts: PartLook[];
	state: 'fillable' | 'unfillable' | 'unknown';
	/** The parts that cannot hold together and why, or why it is not known; empty where it can be filled. */
	stops: { parts: number[]; message: string };
	/** What may be a slip, for people. */
	warnings: string[];
	/** Nothing where it cannot be filled, or was not asked for. */
	figures: FiguresLook | null;
	/** The chance of each question to be in a sitting, by keys; empty where it is not known. */
	chances: { ids: number[]; chances: number[] };
}

/** What of it a page is told at once; the chances come with the questions. */
export type ShownLook = Omit<SheetLook, 'chances'>;

const rounded = (value: number) => Math.round(value * 1e6) / 1e6;

/** So many kinds or tags of a pool are told at the most. */
const mostValues = 100;

function counted(names: readonly string[]): { name: string; holds: number }[] {
	const counts = new Map<string, number>();
	for (const name of names) counts.set(name, (counts.get(name) ?? 0) + 1);
	return [...counts]
		.map(([name, holds]) => ({ name, holds }))
		.sort((a, b) => b.holds - a.holds || (a.name < b.name ? -1 : 1))
		.slice(0, mostValues);
}

function rangeOf(values: readonly number[]): [number, number] | null {
	if (!values.length) return null;
	return values.reduce<[number, number]>(
		([least, most], value) => [Math.min(least, value), Math.max(most, value)],
		[Infinity, -Infinity]
	);
}

/** The least and the most that so many questions are worth, within the quotas over their points; other quotas are not heeded. */
function pointsWithin(
	worths: readonly { points: number; holds: number }[],
	quotas: readonly { least: number; most: number; values: readonly number[][] }[],
	draw: number
): [number, number] | null {
	const bounds = worths.map(({ points, holds }) => {
		const own = quotas.filter(({ values }) => values.some(([from, to]) => points >= from! && points <= to!));
		const most = own.reduce((sum, quota) => Math.min(sum, quota.most), holds);
		return { points, most, least: Math.min(most, Math.max(0, ...own.map(({ least }) => least))) };
	});
	const sure = bounds.reduce((sum, { least }) => sum + least, 0);
	const worthOf = (ordered: typeof bounds) => {
		let left = draw - sure;
		return ordered.reduce((sum, { points, least, most }) => {
			const more = Math.min(left, most - least);
			left -= more;
			return sum + points * (least + more);
		}, 0);
	};
	return sure > draw ? null : [worthOf(bounds), worthOf(bounds.toReversed())];
}

function partLooks({ plan, pools, source }: QuizSheet, { parts }: DrawnQuiz): PartLook[] {
	return plan.parts.map((planned, at) => {
		const part = parts[at]!;
		const given = planned.units.flatMap((unit) => plan.units[unit]!.counted.map((place) => plan.questions[place]!));
		let next = 0;
		const worths = counted(given.map(({ points }) => String(points)))
			.map(({ name, holds }) => ({ points: Number(name), holds }))
			.sort((a, b) => a.points - b.points);
		// a quota of one worth; one over several asks the same of each
		const even = (part.quotas ?? []).flatMap(({ by, values, least, most, spread }) =>
			by === 'points' && !spread
				? values.map(({ range }) => ({ least: least ?? 0, most: most ?? planned.draw, values: [range ?? [0, 0]] }))
				: []
		);
		const isEven = part.pointsEach === null && even.length > 0;
		return {
			holds: given.length,
			draws: planned.draw,
			points: (isEven ? pointsWithin(worths, even, planned.draw) : null) ?? pointsRange(part, pools[at]!, source),
			kinds: counted(given.map(({ kind }) => kind)),
			tags: counted(given.flatMap(({ tags }) => tags)),
			worths,
			difficulty: rangeOf(given.flatMap(({ difficulty }) => difficulty ?? [])),
			quotas: (part.quotas ?? []).map(({ values }) =>
				values.map(() => {
					const { has, least, most } = planned.quotas[next++]!;
					return { holds: given.filter(has).length, least, most };
				})
			)
		};
	});
}

/** A total over the questions of a sitting as what one of them has on average. */
function perQuestion(total: Total, { parts }: Plan): Total | null {
	const drawn = parts.reduce((sum, { draw }) => sum + draw, 0);
	if (!drawn) return null;
	const { least, most, mean, error } = total;
	return { ...total, least: least / drawn, most: most / drawn, mean: mean / drawn, error: error / drawn };
}

function figuresLook(plan: Plan, sampler: Sampler, attempts: number): [FiguresLook, Figures] {
	const figures = figuresOf(plan, sampler, { values: true, told: tellProgress });
	const found = [...figures.questions.values()];
	const chances = found.map(({ chance }) => chance);
	const look: FiguresLook = {
		isExact: figures.categoriesError === 0 && figures.overlap.error === 0 && sampler.networks !== null,
		sittings: figures.sittings,
		points: figures.points,
		seconds: figures.seconds,
		difficulty: figures.difficulty && perQuestion(figures.difficulty, plan),
		overlap: figures.overlap,
		categories: figures.categories,
		kinds: figures.kinds.map(({ name, ...spread }) => ({ path: [name], ...spread })),
		tags: figures.tags.map(({ name, ...spread }) => ({ path: [name], ...spread })),
		error: figures.categoriesError,
		chance: {
			least: chances.reduce((least, chance) => (chance > 0 ? Math.min(least, chance) : least), chances.length ? 1 : 0),
			most: chances.reduce((most, chance) => Math.max(most, chance), 0),
			error: found.reduce((most, { error }) => Math.max(most, error), 0),
			questions: found.length
		},
		attempts: attemptsOf(plan, sampler, figures, attempts),
		never: found.filter(({ chance, error }) => chance === 0 && error === 0).length
	};
	return [look, figures];
}

const wrongTo = (error: unknown): never => {
	if (error instanceof WrongSheet) throw new Refused(error.message);
	throw error;
};

/** So many attempts are told of where a quiz does not limit them. */
const attemptsTold = 3;
const mostAttempts = 8;

/**
 * Looks into a sheet as it is edited: what each part has, whether it can be filled, and with `figures` what students get.
 * Throws Refused where a quota contradicts itself.
 */
export async function lookIntoSheet(
	db: Pool,
	courseId: number,
	quiz: DrawnQuiz,
	asked: { figures: boolean; attempts: number | null }
): Promise<SheetLook> {
	const sheet = await keptSheetOf(db, courseId, quiz).catch(wrongTo);
	const { plan } = sheet;
	const looked = lookInto(plan);
	const look: SheetLook = {
		parts: partLooks(sheet, quiz),
		state: 'sampler' in looked ? 'fillable' : 'conflict' in looked ? 'unfillable' : 'unknown',
		stops: { parts: [], message: '' },
		warnings: plan.warnings,
		figures: null,
		chances: { ids: [], chances: [] }
	};
	if ('conflict' in looked)
		look.stops = { ...looked.conflict, message: await withTitles(db, courseId, looked.conflict.message) };
	if ('unknown' in looked) look.stops = { parts: [], message: looked.unknown };
	if (!('sampler' in looked) || !asked.figures) return look;
	const most = Math.min(asked.attempts ?? attemptsTold, mostAttempts);
	const [figures, { questions }] = figuresLook(plan, looked.sampler, Math.max(1, most - (asked.attempts ? 1 : 0)));
	return {
		...look,
		figures,
		chances: {
			ids: [...questions.keys()].map((place) => sheet.ids[place]!),
			chances: [...questions.values()].map(({ chance }) => rounded(chance))
		}
	};
}
