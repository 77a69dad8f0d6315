import type { Severity } from '$core/reports/report';
import { row, rows, type Database } from '../db/pool';
import { conditionOf, type SnagFilter } from './filter';
import { withBankTwins } from './twins';

/** A snag as the list shows it: a question that a check speaks of. */
export interface SnagRow {
	/** Its own key, which changes as the question is checked again. */
	id: number;
	rule: string;
	severity: Severity;
	questionId: number;
	bankId: number;
	bank: string;
	category: string | null;
	title: string;
	kind: string;
	message: string;
	words: string[];
	/** How many others say the same, where the check is about that. */
	twins: number;
}

/** How many snags are sent at once. */
export const snagPageSize = 50;

/** Some of the snags that a filter finds, one a check and question, in the order of the questions, from the place `from` on. */
export async function snagRows(db: Database, courseId: number, filter: SnagFilter, from = 0): Promise<SnagRow[]> {
	const { from: tables, sql, parameters } = await conditionOf(db, courseId, filter);
	// of one check each question once, as the index has them: nothing is sorted
	const each = filter.check === null ? 's.question_id, s.rule' : 's.question_id';
	// by_rule, or by_question_severity
	const found = await rows<Omit<SnagRow, 'words' | 'twins'> & { words: string }>(
		db,
		`SELECT s.id, s.rule, s.severity, s.question_id AS questionId, q.bank_id AS bankId, b.name AS bank, c.name AS category, q.title, q.kind, s.message, s.words
		FROM (SELECT MIN(s.id) AS id FROM ${tables} WHERE ${sql} GROUP BY ${each} ORDER BY ${each} LIMIT ?, ${snagPageSize}) f
		JOIN snags s ON s.id = f.id JOIN questions q ON q.id = s.question_id JOIN banks b ON b.id = q.bank_id LEFT JOIN categories c ON c.id = q.category_id ORDER BY s.question_id, s.rule`,
		[...parameters, from]
	);
	return (await withBankTwins(db, courseId, found)).map((snag) => ({
		...snag,
		words: JSON.parse(snag.words) as string[]
	}));
}

/** How many snags a filter finds, one a check and question. */
export async function snagsFound(db: Database, courseId: number, filter: SnagFilter): Promise<number> {
	const { from: tables, sql, parameters } = await conditionOf(db, courseId, filter);
	return (await row<{ n: number }>(
		db,
		`SELECT COUNT(DISTINCT s.question_id, s.rule) AS n FROM ${tables} WHERE ${sql}`,
		parameters
	))!.n;
}

/** The place of the first snag of a question among those that a filter finds, from 0; 0 where it has none. */
export async function snagPlace(
	db: Database,
	courseId: number,
	filter: SnagFilter,
	questionId: number
): Promise<number> {
	const { from: tables, sql, parameters } = await conditionOf(db, courseId, filter);
	const found = await row<{ n: number; there: number }>(
		db,
		`SELECT COUNT(DISTINCT IF(s.question_id < ?, CONCAT(s.question_id, ' ', s.rule), NULL)) AS n, MAX(s.question_id = ?) AS there FROM ${tables} WHERE ${sql} AND s.question_id <= ?`,
		[questionId, questionId, ...parameters, questionId]
	);
	return found?.there ? found.n : 0;
}
