import { mendTools } from '../../../../core/formats/mend-tools';
import type { Pool } from 'mysql2/promise';
import { mendTitle } from '../../../../core/checks';
import { checkQuestion } from '../../../../core/checks/one';
import { parseQuestion } from '../../../../core/kinds/schema';
import type { Question } from '../../../../core/kinds';
import type { Severity } from '../../../../core/reports/report';
import { row, rows, run, transaction, type Database } from '../db/pool';
import { record } from '../ledger/ledger';
import { columnsOf, reportColumns } from '../questions/columns';
import { dropLoneTwins, stillTwin, withBankTwins } from './twins';

/** A check with the number of questions of a course that it speaks of. */
export interface SnagCount {
	rule: string;
	severity: Severity;
	questions: number;
}

/** How many questions each rule speaks of in a course. */
export async function snagCounts(db: Database, courseId: number): Promise<SnagCount[]> {
	// by_rule
	return rows(
		db,
		`SELECT s.rule, MIN(s.severity) AS severity, COUNT(DISTINCT s.question_id) AS questions FROM snags s JOIN questions q ON q.id = s.question_id WHERE s.course_id = ? AND ${stillTwin} GROUP BY s.rule`,
		[courseId]
	);
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

/** The questions that a rule speaks of. */
export async function snagRows(db: Database, courseId: number, rule: string): Promise<SnagRow[]> {
	const found = await rows<Omit<SnagRow, 'words' | 'twins'> & { words: string; rule: string }>(
		db,
		`SELECT s.question_id AS questionId, q.bank_id AS bankId, b.name AS bank, c.name AS category, q.title, q.kind, s.rule, s.message, s.words
		FROM snags s JOIN questions q ON q.id = s.question_id JOIN banks b ON b.id = q.bank_id LEFT JOIN categories c ON c.id = q.category_id
		WHERE s.course_id = ? AND s.rule = ? AND ${stillTwin} ORDER BY q.bank_id, q.category_id, q.id LIMIT 2000`,
		[courseId, rule]
	);
	return (await withBankTwins(db, courseId, found)).map((one) => ({
		...one,
		words: JSON.parse(one.words) as string[]
	}));
}
