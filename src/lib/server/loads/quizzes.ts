import type { PoolConnection } from 'mysql2/promise';
import type { CarriedPool, CarriedQuota } from '$core/model/sheet';
import { pathKey } from '$core/take-in/paths';
import { plainRules, plainSettings, type KeptQuota } from '$lib/forms/quiz';
import { categoryTree } from '../banks/tree';
import type { Changer } from '../banks/change';
import { rows } from '../db/pool';
import { carriedRules } from '../quizzes/carried';
import { makeQuizzes, type NewQuiz } from '../quizzes/make';
import type { EditedPart } from '../quizzes/save';
import { foundQuizzes, type StagedPart, type StagedQuiz } from './found-quizzes';

/** Where the categories of a load land. */
export interface Landed {
	bankId: number;
	/** Where a path of the file lands in the bank. */
	land: (path: string[]) => string[];
}

/** The key of the category that a path of the file became, the bank's made negative; undefined where there is none. */
type PlaceOf = (path: string[]) => number | undefined;

async function placesIn(connection: PoolConnection, landed: Landed | null): Promise<PlaceOf> {
	if (!landed) return () => undefined;
	const tree = await categoryTree(connection, landed.bankId);
	const ids = new Map(tree.map(({ key, id }) => [key, id]));
	return (path) => {
		const to = landed.land(path);
		return to.length ? ids.get(pathKey(to)) : -landed.bankId;
	};
}

/** A quota with its categories by their keys; null where one of them is not there. */
function landedQuota(quota: CarriedQuota, placeOf: PlaceOf): KeptQuota | null {
	if (quota.by !== 'category') return { ...quota, values: quota.values.map(({ name, range }) => ({ name, range })) };
	const values = quota.values.flatMap(({ category = [] }) => {
		const place = placeOf(category);
		return place === undefined ? [] : [{ category: place }];
	});
	return values.length === quota.values.length ? { ...quota, values } : null;
}

/** A part as it is edited, out of what was found of it. A pool of which a category is not there becomes a list of the questions that came for it. */
function landedPart(part: StagedPart, idsOf: (numbers: readonly number[]) => number[], placeOf: PlaceOf): EditedPart {
	const { title, draw, pointsEach, shuffle, numbers, sheet } = part;
	const places = (pool: CarriedPool<number>) => {
		const found = pool.categories.map(placeOf);
		return found.every((place) => place !== undefined) ? [...new Set(found)] : null;
	};
	const categories = sheet?.pool ? places(sheet.pool) : null;
	const pool = categories && sheet?.pool;
	return {
		title: title.slice(0, 255),
		draw,
		pointsEach,
		order: sheet?.order ?? (shuffle ? 'shuffled' : 'kept'),
		shuffleOptions: sheet?.shuffleOptions ?? true,
		withUnder: pool?.withUnder ?? true,
		categories: categories ?? [],
		questions: pool ? [] : idsOf(numbers),
		...(pool ? { conditions: pool.conditions, include: idsOf(pool.include), exclude: idsOf(pool.exclude) } : {}),
		quotas: (sheet?.quotas ?? []).flatMap((quota) => landedQuota(quota, placeOf) ?? [])
	};
}

/**
 * Takes the quizzes of a load in. Their parts refer to the questions where they are now: those that were taken in, those
 * that took the place of another, and those that were in the course already.
 */
export async function takeInQuizzes(
	connection: PoolConnection,
	who: Changer,
	loadId: number,
	landed: Landed | null
): Promise<void> {
	const quizzes = await foundQuizzes(connection, loadId);
	if (!quizzes.length) return;
	const questions = await rows<{ id: number; number: number }>(
		connection,
		`SELECT q.id, s.number FROM questions q JOIN staged_questions s ON s.id = q.staged_id WHERE q.load_id = ?
		UNION SELECT q.id, s.number FROM staged_questions s JOIN questions q ON q.id = s.match_question_id AND q.course_id = ? WHERE s.load_id = ? AND s.outcome IN ('replaced', 'skipped')`,
		[loadId, who.courseId, loadId]
	);
	const idOf = new Map(questions.map(({ number, id }) => [number, id]));
	const idsOf = (numbers: readonly number[]) => [
		...new Set([...new Set(numbers)].flatMap((number) => idOf.get(number) ?? []))
	];
	const draws = quizzes.some(({ parts }) => parts.some(({ sheet }) => sheet?.pool ?? sheet?.quotas.length));
	const placeOf = await placesIn(connection, draws ? landed : null);
	await makeQuizzes(
		connection,
		who,
		quizzes.map(({ title, settings, rules, parts }: StagedQuiz): NewQuiz => ({
			title,
			loadId,
			settings: { ...plainSettings(), ...settings },
			rules: rules ? distinct(carriedRules(rules, { questions: idOf })) : plainRules(),
			parts: parts.map((part) => landedPart(part, idsOf, placeOf))
		}))
	);
}

/** Rules without pairs of a question with itself, and without a question in two groups: two in a file may be one here. */
function distinct(rules: ReturnType<typeof carriedRules>): ReturnType<typeof carriedRules> {
	const grouped = new Set<number>();
	return {
		...rules,
		never: rules.never.filter(([one, other]) => one !== other),
		together: rules.together.filter((group) => {
			const isOwn = new Set(group).size === group.length && !group.some((id) => grouped.has(id));
			if (isOwn) for (const id of group) grouped.add(id);
			return isOwn;
		})
	};
}
