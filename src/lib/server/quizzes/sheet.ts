import { poolOf } from '$core/draws/pool';
import { planOfPools, type PooledPart } from '$core/draws/sheets/of-pools';
import { formOfQuota } from '$core/draws/sheets/of-quiz';
import type { Plan, PlannedQuestion, SheetQuota } from '$core/draws/sheets/plan';
import { pathOfKey } from '$core/take-in/paths';
import { plainRules, type KeptQuota, type KeptRules } from '$lib/forms/quiz';
import type { CourseCounts } from '../courses/counts';
import type { Database } from '../db/pool';
import { everything, keptPoolSource, poolSource, type CoursePools } from './pools';
import type { EditedPart } from './save';

/** The sheet of a quiz with what it draws from, as drawing needs it. */
export interface QuizSheet {
	plan: Plan;
	/** The keys of the questions of the plan, by their places. */
	ids: number[];
	/** What each part can give, by keys. */
	pools: number[][];
	source: CoursePools;
}

/** A part as drawing needs it. */
export type DrawnPart = Omit<EditedPart, 'lost'>;

/** A quiz as drawing needs it. */
export interface DrawnQuiz {
	parts: readonly DrawnPart[];
	rules?: KeptRules | undefined;
}

/** The path of each category with the name of its bank before it; a bank stands under its key made negative. */
export function pathsOf({ tree }: Pick<CoursePools, 'tree'>): Map<number, string[]> {
	let bank = '';
	return new Map(
		tree.map(({ id, name, key }) => {
			if (id < 0) bank = name;
			return [id, id < 0 ? [bank] : [bank, ...pathOfKey(key)]];
		})
	);
}

/** No question has this as the name of its bank: names are not empty. */
const gone = [''];

const quotaForm = (quota: KeptQuota, paths: Map<number, string[]>): SheetQuota =>
	formOfQuota({
		...quota,
		values: quota.values.map(({ category, ...value }) =>
			quota.by === 'category' ? { category: paths.get(category ?? 0) ?? gone } : value
		)
	});

const noFacts = { tags: [], difficulty: null, seconds: undefined };

/** The sheet of a quiz out of what its parts draw from. What its rules name and no part can give is left out of it. */
export function sheetIn(source: CoursePools, { parts, rules = plainRules() }: DrawnQuiz): QuizSheet {
	const paths = pathsOf(source);
	const rank = new Map(source.tree.map(({ id }, at) => [id, at]));
	const pools = parts.map((part) => poolOf(part, source));
	const texts = new Set(source.texts);
	// a group of which a pool holds only some is not in it: all of it has to be known
	const meant = new Set([...pools.flat(), ...rules.together.flat().filter((id) => source.places.has(id))]);
	const placeOf = (id: number) => source.places.get(id) ?? 0;
	const ids = [...meant].sort((a, b) => (rank.get(placeOf(a)) ?? 0) - (rank.get(placeOf(b)) ?? 0) || a - b);
	const at = new Map(ids.map((id, place) => [id, place]));
	const questions = ids.map((id): PlannedQuestion => {
		const { tags, difficulty, seconds = null } = source.facts?.get(id) ?? noFacts;
		return {
			id: `#${id}`,
			category: paths.get(placeOf(id)) ?? [],
			kind: source.facts?.get(id)?.kind ?? '',
			points: source.points[id] ?? 0,
			difficulty,
			tags: [...tags],
			seconds,
			isText: texts.has(id)
		};
	});
	const places = (keys: readonly number[]) => keys.flatMap((id) => at.get(id) ?? []);
	const pooled = parts.map(({ title, draw, pointsEach, order, questions: listed, quotas = [] }, part): PooledPart => ({
		title,
		draw,
		points: pointsEach,
		order,
		pool: places(pools[part]!),
		isList: listed.length > 0,
		quotas: quotas.map((quota) => quotaForm(quota, paths))
	}));
	const never = rules.never.flatMap((pair) => {
		const [one, other] = places(pair);
		return one === undefined || other === undefined ? [] : [[one, other] as const];
	});
	const together = rules.together.map(places).filter((group) => group.length > 1);
	return {
		plan: planOfPools(questions, pooled, { never, together, partsShuffled: rules.partsShuffled }),
		ids,
		pools,
		source
	};
}

/** The sheet of a quiz of a course, with what it draws from as it is now. */
export async function sheetOf(
	db: Database,
	courseId: number,
	quiz: DrawnQuiz,
	counts?: CourseCounts
): Promise<QuizSheet> {
	return sheetIn(
		await poolSource(db, courseId, quiz.parts, counts, everything, (quiz.rules?.together ?? []).flat()),
		quiz
	);
}

/** The same out of what was read before, where nothing has changed in the course since. */
export const keptSheetOf = async (db: Database, courseId: number, quiz: DrawnQuiz): Promise<QuizSheet> =>
	sheetIn(await keptPoolSource(db, courseId, quiz.parts, (quiz.rules?.together ?? []).flat()), quiz);
