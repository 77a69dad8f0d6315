import type { Severity } from '$core/reports/report';
import type { Outcome } from '$core/take-in/planned-question';
import type { Effect } from '$core/take-in/effects';
import { row, rows, type Database } from '../db/pool';

const outcomes = ['taken', 'replaced', 'aside', 'left', 'skipped'] as const;

/** One line of a receipt. It adds up: found = taken + replaced + aside + left + skipped. */
export interface ReceiptLine extends Record<Outcome, number> {
	/** What the line speaks of: a category of the file, or a kind, as it is stored. */
	key: string;
	found: number;
}

async function lines(db: Database, loadId: number, by: 'category_path' | 'kind'): Promise<ReceiptLine[]> {
	// by_number
	const found = await rows<Record<'found' | Outcome, string> & { line_key: string }>(
		db,
		`SELECT ${by} AS line_key, COUNT(*) AS found, ${outcomes.map((outcome) => `SUM(outcome = '${outcome}') AS \`${outcome}\``).join(', ')}
		FROM staged_questions WHERE load_id = ? GROUP BY ${by} ORDER BY MIN(number)`,
		[loadId]
	);
	return found.map((line) => ({
		key: line.line_key,
		found: Number(line.found),
		taken: Number(line.taken),
		replaced: Number(line.replaced),
		aside: Number(line.aside),
		left: Number(line.left),
		skipped: Number(line.skipped)
	}));
}

/** What became of every question of a load, by the categories of its file and by kinds. */
export async function receipt(
	db: Database,
	loadId: number
): Promise<{ categories: ReceiptLine[]; kinds: ReceiptLine[] }> {
	const [categories, kinds] = await Promise.all([lines(db, loadId, 'category_path'), lines(db, loadId, 'kind')]);
	return { categories, kinds };
}

/** How many questions of a load each rule speaks of, the most first. */
export async function receiptSnags(
	db: Database,
	loadId: number
): Promise<{ rule: string; severity: Severity; questions: number }[]> {
	// by_load
	return rows(
		db,
		'SELECT rule, MIN(severity) AS severity, COUNT(DISTINCT staged_id) AS questions FROM staged_reports WHERE load_id = ? AND staged_id IS NOT NULL GROUP BY rule ORDER BY questions DESC, rule',
		[loadId]
	);
}

/** Where a load went and when, by whom, and by which rules that are not the plain ones. */
export interface ReceiptHead {
	bank: { id: number; name: string } | null;
	/** The quizzes that came, with what of each had no place in the course, in sentences. */
	quizzes: { id: number; title: string; lacks: string[] }[];
	/** The quizzes of the course that say the same as one that came, which was not taken in again. */
	sameQuizzes: { id: number; title: string }[];
	settled: Date | null;
	takenBy: string | null;
	effects: Effect[];
}

/** The head of a receipt. */
export async function receiptHead(db: Database, loadId: number): Promise<ReceiptHead> {
	const [found, quizzes, sameQuizzes] = await Promise.all([
		row<{
			bankId: number | null;
			bank: string | null;
			settled: Date | null;
			takenBy: string | null;
			effects: string | null;
		}>(
			db,
			`SELECT l.bank_id AS bankId, b.name AS bank, l.settled, l.effects,
				(SELECT p.name FROM ledger d JOIN people p ON p.id = d.person_id WHERE d.course_id = l.course_id AND d.deed = 'took in' AND d.address = CONCAT('/courses/', l.course_id, '/loads/', l.id, '/receipt') ORDER BY d.id DESC LIMIT 1) AS takenBy
			FROM loads l LEFT JOIN banks b ON b.id = l.bank_id WHERE l.id = ?`,
			[loadId]
		),
		rows<{ id: number; title: string; lacks: string | null }>(
			db,
			'SELECT id, title, lacks FROM quizzes WHERE load_id = ? ORDER BY id',
			[loadId]
		),
		rows<{ id: number; title: string }>(
			db,
			'SELECT z.id, z.title FROM staged_quizzes f JOIN quizzes z ON z.id = f.same_as WHERE f.load_id = ? ORDER BY f.id',
			[loadId]
		)
	]);
	return {
		bank: found?.bankId ? { id: found.bankId, name: found.bank! } : null,
		quizzes: quizzes.map(({ lacks, ...quiz }) => ({ ...quiz, lacks: lacks ? (JSON.parse(lacks) as string[]) : [] })),
		sameQuizzes,
		settled: found?.settled ?? null,
		takenBy: found?.takenBy ?? null,
		effects: found?.effects ? (JSON.parse(found.effects) as Effect[]) : []
	};
}

/** The questions behind one number of a receipt. */
export async function receiptQuestions(
	db: Database,
	loadId: number,
	outcome: Outcome | null,
	category: string | null,
	kind: string | null = null,
	most = 2000
): Promise<
	{
		stagedId: number;
		number: number;
		title: string;
		kind: string;
		outcome: string;
		category: string;
		questionId: number | null;
		bankId: number | null;
		why: string | null;
	}[]
> {
	return rows(
		db,
		`SELECT s.id AS stagedId, s.number, s.title, s.kind, s.outcome, s.category_path AS category, q.id AS questionId, q.bank_id AS bankId,
			(SELECT r.message FROM staged_reports r WHERE r.staged_id = s.id AND r.severity = 'broken' ORDER BY r.id LIMIT 1) AS why
		FROM staged_questions s LEFT JOIN questions q ON (q.staged_id = s.id AND q.load_id = s.load_id) OR (s.outcome IN ('replaced', 'skipped') AND q.id = s.match_question_id)
		WHERE s.load_id = ? AND (? IS NULL OR s.outcome = ?) AND (? IS NULL OR s.category_path = ?) AND (? IS NULL OR s.kind = ?) ORDER BY s.number LIMIT ?`,
		[loadId, outcome, outcome, category, category, kind, kind, most]
	);
}
