import { poolOf } from '$core/draws/pool';
import { wordCondition } from '../banks/words';
import { rows, type Database } from '../db/pool';
import { poolSource } from './pools';
import type { DrawnPart } from './sheet';

/** A question as the page of a quiz names it. */
export interface NamedQuestion {
	id: number;
	title: string;
	kind: string;
	points: number | null;
	difficulty: string;
	category: string;
	bank: string;
	/** The chance to be in a sitting; null where it is not known. */
	chance: number | null;
}

/** How the questions of a pool are sorted: as the bank has them, or by their chance. */
export const poolSorts = ['order', 'rarest', 'likeliest'] as const;

/** So many questions of a pool are given at once. */
export const poolPageSize = 60;

/** Questions of a course by their keys, in that order; those that are gone are left out. */
export async function namedQuestions(
	db: Database,
	courseId: number,
	ids: readonly number[],
	chanceOf: (id: number) => number | null = () => null
): Promise<NamedQuestion[]> {
	if (!ids.length) return [];
	const found = await rows<Omit<NamedQuestion, 'chance'>>(
		db,
		"SELECT q.id, IF(q.title = '', LEFT(q.stem_text, 120), q.title) AS title, q.kind, q.points, q.difficulty, COALESCE(c.name, '') AS category, b.name AS bank FROM questions q JOIN banks b ON b.id = q.bank_id LEFT JOIN categories c ON c.id = q.category_id WHERE q.course_id = ? AND q.id IN (?)",
		[courseId, ids]
	);
	const byKey = new Map(found.map((question) => [question.id, question]));
	return ids.flatMap((id) => {
		const question = byKey.get(id);
		return question ? [{ ...question, chance: chanceOf(id) }] : [];
	});
}

/** A page of the questions that a part can give, each with its chance to be in a sitting of the whole sheet. */
export async function poolPage(
	db: Database,
	courseId: number,
	part: DrawnPart,
	chances: ReadonlyMap<number, number>,
	{ from, sort }: { from: number; sort: (typeof poolSorts)[number] }
): Promise<{ total: number; from: number; rows: NamedQuestion[] }> {
	const ids = poolOf(part, await poolSource(db, courseId, [part]));
	const chanceOf = (id: number) => chances.get(id) ?? null;
	const factor = sort === 'rarest' ? 1 : -1;
	const sorted =
		sort === 'order' ? ids : [...ids].sort((a, b) => factor * ((chanceOf(a) ?? 0) - (chanceOf(b) ?? 0)) || a - b);
	return {
		total: ids.length,
		from,
		rows: await namedQuestions(db, courseId, sorted.slice(from, from + poolPageSize), chanceOf)
	};
}

/** So many questions are found by words at the most. */
const mostFound = 20;

/** Questions of a course that have words in what they say and can stand in a quiz. */
export async function questionsByWords(db: Database, courseId: number, words: string): Promise<NamedQuestion[]> {
	const { sql, parameters } = wordCondition(words);
	if (!sql) return [];
	// by_searched
	const found = await rows<{ id: number }>(
		db,
		`SELECT q.id FROM banks b JOIN questions q FORCE INDEX (by_searched) ON q.bank_id = b.id WHERE b.course_id = ? AND q.kind <> 'unreadable'${sql} LIMIT ${mostFound}`,
		[courseId, ...parameters]
	);
	return namedQuestions(
		db,
		courseId,
		found.map(({ id }) => id)
	);
}
