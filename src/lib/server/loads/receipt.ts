import { pathOfKey } from '../../../../core/take-in/plan';
import { rows, type Database } from '../db/pool';

/** One line of a receipt. It adds up: found = taken + aside + left. */
export interface ReceiptLine {
	/** The path of the category in the file. */
	category: string[];
	key: string;
	found: number;
	taken: number;
	aside: number;
	left: number;
}

/** What became of every question of a load, by the categories of its file. */
export async function receipt(db: Database, loadId: number): Promise<ReceiptLine[]> {
	const found = await rows<Record<'found' | 'taken' | 'aside' | 'left_out', string> & { path: string }>(
		db,
		`SELECT category_path AS path, COUNT(*) AS found, SUM(outcome = 'taken') AS taken, SUM(outcome = 'aside') AS aside, SUM(outcome = 'left') AS left_out
		FROM staged_questions WHERE load_id = ? GROUP BY category_path ORDER BY MIN(number)`,
		[loadId]
	);
	return found.map((one) => ({
		category: pathOfKey(one.path),
		key: one.path,
		found: Number(one.found),
		taken: Number(one.taken),
		aside: Number(one.aside),
		left: Number(one.left_out)
	}));
}

/** The questions behind one number of a receipt. */
export async function receiptQuestions(
	db: Database,
	loadId: number,
	outcome: 'taken' | 'aside' | 'left' | null,
	category: string | null
): Promise<
	{
		stagedId: number;
		number: number;
		title: string;
		kind: string;
		outcome: string;
		questionId: number | null;
		bankId: number | null;
		why: string | null;
	}[]
> {
	return rows(
		db,
		`SELECT s.id AS stagedId, s.number, s.title, s.kind, s.outcome, q.id AS questionId, q.bank_id AS bankId,
			(SELECT r.message FROM staged_reports r WHERE r.staged_id = s.id AND r.severity = 'broken' ORDER BY r.id LIMIT 1) AS why
		FROM staged_questions s LEFT JOIN questions q ON q.staged_id = s.id AND q.load_id = s.load_id
		WHERE s.load_id = ? AND (? IS NULL OR s.outcome = ?) AND (? IS NULL OR s.category_path = ?) ORDER BY s.number LIMIT 2000`,
		[loadId, outcome, outcome, category, category]
	);
}
