import type { Severity } from '../../../../core/reports/report';
import { pathOfKey, type FoundCategory } from '../../../../core/take-in/plan';
import { parseQuestion } from '../../../../core/model/schema';
import type { OtherFile } from '../../../../core/formats/format';
import type { Kind, Question } from '../../../../core/model/question';
import { row, rows, type Database } from '../db/pool';

/** A report as it was stored. */
export interface StoredReport {
	rule: string;
	severity: Severity;
	message: string;
	words: string[];
	place: string;
	line: number | null;
}

/** A question of a load, for a list. */
export interface StagedRow {
	id: number;
	number: number;
	category: string;
	kind: Kind;
	title: string;
	points: number | null;
	broken: boolean;
	outcome: 'waiting' | 'taken' | 'aside' | 'left';
	/** The rules that speak of it, worst first, each with its severity. */
	marks: { rule: string; severity: Severity }[];
}

const marksOf = (text: string | null): StagedRow['marks'] =>
	(text ?? '')
		.split(',')
		.filter(Boolean)
		.map((one) => {
			const [severity, rule] = one.split(':') as [Severity, string];
			return { rule, severity };
		});

/** All questions of a load in the order of its file. */
export async function stagedRows(db: Database, loadId: number): Promise<StagedRow[]> {
	const found = await rows<Omit<StagedRow, 'marks' | 'broken'> & { broken: number; marks: string | null }>(
		db,
		`SELECT s.id, s.number, s.category_path AS category, s.kind, s.title, s.points, s.broken, s.outcome,
			(SELECT GROUP_CONCAT(DISTINCT CONCAT(r.severity, ':', r.rule) ORDER BY r.severity SEPARATOR ',') FROM staged_reports r WHERE r.staged_id = s.id) AS marks
		FROM staged_questions s WHERE s.load_id = ? ORDER BY s.number`,
		[loadId]
	);
	return found.map((one) => ({ ...one, broken: Boolean(one.broken), marks: marksOf(one.marks) }));
}

/** The categories of a load as they were found, in the order in which they first come. */
export async function foundCategories(db: Database, loadId: number): Promise<FoundCategory[]> {
	// by_number
	const found = await rows<{ path: string; questions: number; broken: string }>(
		db,
		'SELECT category_path AS path, COUNT(*) AS questions, SUM(broken) AS broken FROM staged_questions WHERE load_id = ? GROUP BY category_path ORDER BY MIN(number)',
		[loadId]
	);
	return found.map(({ path, questions, broken }) => ({ path: pathOfKey(path), questions, broken: Number(broken) }));
}

/** Reports out of stored rows: their words are kept as JSON. */
export function storedReports(found: (Omit<StoredReport, 'words'> & { words: string })[]): StoredReport[] {
	return found.map((one) => ({ ...one, words: JSON.parse(one.words) as string[] }));
}

/** One question of a load with its source and what is said about it. */
export async function stagedQuestion(
	db: Database,
	loadId: number,
	stagedId: number
): Promise<{ question: Question; source: string; reports: StoredReport[] } | undefined> {
	const found = await row<{ document: string; source: string }>(
		db,
		'SELECT document, source FROM staged_questions WHERE load_id = ? AND id = ?',
		[loadId, stagedId]
	);
	if (!found) return undefined;
	const reports = await rows<Omit<StoredReport, 'words'> & { words: string }>(
		db,
		'SELECT rule, severity, message, words, place, line FROM staged_reports WHERE staged_id = ? ORDER BY severity, id',
		[stagedId]
	);
	return { question: parseQuestion(JSON.parse(found.document)), source: found.source, reports: storedReports(reports) };
}

/** What is said about the file as a whole. */
export async function fileReports(db: Database, loadId: number): Promise<StoredReport[]> {
	return storedReports(
		await rows(
			db,
			'SELECT rule, severity, message, words, place, line FROM staged_reports WHERE load_id = ? AND staged_id IS NULL ORDER BY severity, id',
			[loadId]
		)
	);
}

/** What a package holds beside its questions. */
export async function foundOthers(db: Database, loadId: number): Promise<OtherFile[]> {
	return rows(db, 'SELECT path, type FROM staged_others WHERE load_id = ? ORDER BY id', [loadId]);
}

/** The titles of the quizzes that were found in a load. */
export async function foundQuizzes(db: Database, loadId: number): Promise<{ id: number; title: string }[]> {
	return rows(db, 'SELECT id, title FROM staged_quizzes WHERE load_id = ? ORDER BY id', [loadId]);
}
