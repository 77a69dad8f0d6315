import type { PoolConnection } from 'mysql2/promise';
import type { CarriedPool, CarriedQuota } from '$core/model/sheet';
import { pathKey } from '$core/take-in/paths';
import { plainRules, plainSettings, type KeptQuota, type KeptRules } from '$lib/forms/quiz';
import { categoryTree } from '../banks/tree';
import type { Changer } from '../banks/change';
import { rows } from '../db/pool';
import { carriedRules } from '../quizzes/carried';
import { makeQuizzes, type NewQuiz } from '../quizzes/make';
import type { EditedPart } from '../quizzes/save';
import { told } from '../told';
import { foundQuizzes, type StagedPart, type StagedQuiz } from './found-quizzes';
import { settleTitles } from './same-quizzes';

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

const named = ({ title }: StagedPart) => `The part “${title}”`;
const pathText = (path: readonly string[]) => (path.length ? `“${path.join(' › ')}”` : 'the whole bank');

/** The quotas of a part with their categories by their keys, without those that count by one that is not there, which is noted. */
function landedQuotas(part: StagedPart, placeOf: PlaceOf, lacks: string[]): KeptQuota[] {
	return (part.sheet?.quotas ?? []).flatMap((quota: CarriedQuota): KeptQuota[] => {
		if (quota.by !== 'category')
			return [{ ...quota, values: quota.values.map(({ name, range }) => ({ name, range })) }];
		const places = quota.values.map(({ category = [] }) => ({ category, place: placeOf(category) }));
		const gone = places.filter(({ place }) => place === undefined).map(({ category }) => pathText(category));
		if (!gone.length) return [{ ...quota, values: places.map(({ place }) => ({ category: place! })) }];
		lacks.push(
			`${named(part)} was balanced by ${gone.join(', ')}, which did not come into the course: it is not any more.`
		);
		return [];
	});
}

/**
 * A part as it is edited, out of what was found of it. A pool of which a category is not there becomes a list of the
 * questions that came for it; what was left out is noted.
 */
function landedPart(
	part: StagedPart,
	idsOf: (numbers: readonly number[]) => number[],
	placeOf: PlaceOf,
	lacks: string[]
): EditedPart {
	const { title, draw, pointsEach, shuffle, numbers, sheet } = part;
	const places = (pool: CarriedPool<number>) => {
		const found = pool.categories.map((path) => ({ path, place: placeOf(path) }));
		const gone = found.filter(({ place }) => place === undefined).map(({ path }) => pathText(path));
		if (!gone.length) return [...new Set(found.map(({ place }) => place!))];
		lacks.push(
			`${named(part)} drew from ${gone.join(', ')}, which did not come into the course: it draws from a list of the ${told(idsOf(numbers).length, 'question')} that came for it, and what is added later does not come in.`
		);
		return null;
	};
	const categories = sheet?.pool ? places(sheet.pool) : null;
	const pool = categories && sheet?.pool;
	const asked = pool ? [...pool.include, ...pool.exclude] : numbers;
	const gone = new Set(asked).size - idsOf(asked).length;
	if (gone > 0) lacks.push(`${named(part)} lacks ${told(gone, 'question')} that did not come into the course.`);
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
		quotas: landedQuotas(part, placeOf, lacks)
	};
}

/** The rules of a quiz with its questions by their keys, without pairs and groups of which one did not come, which is noted. */
function landedRules({ rules }: StagedQuiz, idOf: ReadonlyMap<number, number>, lacks: string[]): KeptRules {
	if (!rules) return plainRules();
	const landed = distinct(carriedRules(rules, { questions: idOf }));
	for (const [list, word, verb] of [
		['never', 'pair', 'never comes together'],
		['together', 'group', 'comes whole']
	] as const) {
		const gone = rules[list].length - landed[list].length;
		if (gone > 0)
			lacks.push(
				`${told(gone, word)} that ${verb} ${gone === 1 ? 'is' : 'are'} left out, since a question of ${gone === 1 ? 'it' : 'each'} did not come into the course.`
			);
	}
	return landed;
}

/**
 * Takes the quizzes of a load in. Their parts refer to the questions where they are now: those that were taken in, those
 * that took the place of another, and those that were in the course already. One that the course has already is not taken
 * in again.
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
	const brought = quizzes.map((quiz): NewQuiz & { lacks: string[] } => {
		const lacks: string[] = [];
		return {
			title: quiz.title,
			loadId,
			settings: { ...plainSettings(), ...quiz.settings },
			rules: landedRules(quiz, idOf, lacks),
			parts: quiz.parts.map((part) => landedPart(part, idsOf, placeOf, lacks)),
			lacks
		};
	});
	const made = await makeQuizzes(connection, who, brought);
	await settleTitles(
		connection,
		who.courseId,
		brought.map(({ title, lacks }, at) => ({ quizId: made[at]!, stagedId: quizzes[at]!.id, title, lacks }))
	);
}

/** Rules without pairs of a question with itself, and without a question in two groups: two in a file may be one here. */
function distinct(rules: KeptRules): KeptRules {
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
