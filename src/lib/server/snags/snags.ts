import type { Pool } from 'mysql2/promise';
import { bankNames } from '../banks/banks';
import { countsOf, type CourseCounts } from '../courses/counts';
import { row, rows, type Database } from '../db/pool';
import { withBankTwins } from './twins';

/** A check with the number of questions of a course that it speaks of. */
export type SnagCount = CourseCounts['rules'][number];

/** How many questions each rule speaks of in a course. */
export async function snagCounts(pool: Pool, courseId: number): Promise<SnagCount[]> {
	return (await countsOf(pool, courseId)).rules;
}

/** A question that a rule speaks of. */
export interface SnagRow {
	questionId: number;
	bankId: number;
	bank: string;
	category: string | null;
	title: string;
	kind: string;
	message: string;
	words: string[];
	/** How many others say the same, where the rule is about that. */
	twins: number;
}

/** How many questions are sent at once. */
export const snagPageSize = 50;

/** Some of the questions that a rule speaks of, in the order in which they came: those from the place `from` on. */
export async function snagRows(db: Database, courseId: number, rule: string, from = 0): Promise<SnagRow[]> {
	// by_rule
	const found = await rows<Omit<SnagRow, 'words' | 'twins'> & { words: string; rule: string }>(
		db,
		`SELECT s.question_id AS questionId, q.bank_id AS bankId, b.name AS bank, c.name AS category, q.title, q.kind, s.rule, s.message, s.words
		FROM (SELECT MIN(id) AS id FROM snags WHERE course_id = ? AND rule = ? GROUP BY question_id ORDER BY question_id LIMIT ?, ${snagPageSize}) f
		JOIN snags s ON s.id = f.id JOIN questions q ON q.id = s.question_id JOIN banks b ON b.id = q.bank_id LEFT JOIN categories c ON c.id = q.category_id ORDER BY s.question_id`,
		[courseId, rule, from]
	);
	return (await withBankTwins(db, courseId, found)).map((snag) => ({
		...snag,
		words: JSON.parse(snag.words) as string[]
	}));
}

/** The place of a question among those that a rule speaks of, from 0; 0 where it is not among them. */
export async function snagPlace(db: Database, courseId: number, rule: string, questionId: number): Promise<number> {
	// by_rule
	const found = await row<{ n: number; there: number }>(
		db,
		'SELECT COUNT(DISTINCT IF(question_id < ?, question_id, NULL)) AS n, MAX(question_id = ?) AS there FROM snags WHERE course_id = ? AND rule = ? AND question_id <= ?',
		[questionId, questionId, courseId, rule, questionId]
	);
	return found?.there ? found.n : 0;
}

/** Open snags of a category, or of what stands in none of its bank, by how bad they are. */
export interface SnagPlace {
	name: string;
	broken: number;
	doubtful: number;
	untidy: number;
}

/** The categories of a course with the most open snags. */
export async function snagPlaces(pool: Pool, courseId: number, most = 8): Promise<SnagPlace[]> {
	const places = new Map<string, SnagPlace & { bankId: number; categoryId: number | null }>();
	for (const { bankId, categoryId, severity, snags } of (await countsOf(pool, courseId)).snags) {
		const key = `${bankId} ${categoryId}`;
		const place = places.get(key) ?? { name: '', bankId, categoryId, broken: 0, doubtful: 0, untidy: 0 };
		places.set(key, place);
		place[severity] += snags;
	}
	const inAll = ({ broken, doubtful, untidy }: SnagPlace) => broken + doubtful + untidy;
	const worst = [...places.values()].sort((a, b) => inAll(b) - inAll(a)).slice(0, most);
	const ids = worst.flatMap(({ categoryId }) => (categoryId === null ? [] : [categoryId]));
	const named = ids.length
		? await rows<{ id: number; name: string }>(pool, 'SELECT id, name FROM categories WHERE id IN (?)', [ids])
		: [];
	const categories = new Map(named.map(({ id, name }) => [id, name]));
	const banks = new Map((await bankNames(pool, courseId)).map(({ id, name }) => [id, name]));
	return worst.map(({ bankId, categoryId, ...place }) => ({
		...place,
		name: (categoryId === null ? banks.get(bankId) : categories.get(categoryId)) ?? ''
	}));
}
