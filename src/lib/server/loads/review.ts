import type { Severity } from '$core/reports/report';
import type { Match } from '$core/take-in/planned-question';
import { parseQuestion } from '$core/kinds/schema';
import type { OtherFile } from '$core/formats/format';
import type { Question } from '$core/kinds';
import { row, rows, type Database } from '../db/pool';
import { withStagedTwins } from '../snags/twins';
import { stagedWaivers, type StagedWaiver } from './waive';
import { listedQuestion, type ListedQuestion } from './listed';

/** A report as it was stored. */
export interface StoredReport {
	rule: string;
	severity: Severity;
	message: string;
	words: string[];
	place: string;
	line: number | null;
}

/** Reports out of stored rows: their words are kept as JSON. */
export function storedReports(found: (Omit<StoredReport, 'words'> & { words: string })[]): StoredReport[] {
	return found.map((one) => ({ ...one, words: JSON.parse(one.words) as string[] }));
}

/** One question of a load in full. */
export interface StagedQuestion {
	id: number;
	question: Question;
	/** Goes up with every change to the staged copy. */
	version: number;
	source: string;
	reports: StoredReport[];
	/** The question of the course that it is like, and how. */
	against: { match: Match; likeness: number | null; id: number; bankId: number; question: Question } | null;
	verifiedBy: string | null;
	/** Whether a person has changed it since it was read. */
	edited: boolean;
	/** The question as the list shows it. */
	listed: ListedQuestion;
	/** What is waived of it. */
	waived: StagedWaiver[];
}

/** One question of a load with its source, what is said about it, and its counterpart in the course. */
export async function stagedQuestion(
	db: Database,
	courseId: number,
	loadId: number,
	stagedId: number
): Promise<StagedQuestion | undefined> {
	const found = await row<{
		document: string;
		version: number;
		source: string;
		match_kind: Match;
		match_likeness: number | null;
		against_id: number | null;
		against_bank: number | null;
		against_document: string | null;
		verified_by: string | null;
		edited: number;
	}>(
		db,
		`SELECT s.document, s.version, s.source, s.match_kind, s.match_likeness, s.original IS NOT NULL AS edited, p.name AS verified_by,
			q.id AS against_id, q.bank_id AS against_bank, q.document AS against_document
		FROM staged_questions s JOIN loads l ON l.id = s.load_id LEFT JOIN questions q ON q.id = s.match_question_id AND q.course_id = l.course_id LEFT JOIN people p ON p.id = s.verified_by
		WHERE s.load_id = ? AND s.id = ?`,
		[loadId, stagedId]
	);
	const listed = await listedQuestion(db, courseId, stagedId);
	if (!found || !listed) return undefined;
	const reports = await rows<Omit<StoredReport, 'words'> & { words: string }>(
		db,
		'SELECT rule, severity, message, words, place, line FROM staged_reports WHERE staged_id = ? ORDER BY severity, id',
		[stagedId]
	);
	return {
		id: stagedId,
		question: parseQuestion(JSON.parse(found.document)),
		version: found.version,
		source: found.source,
		reports: await withStagedTwins(db, loadId, stagedId, storedReports(reports)),
		against:
			found.against_id === null || found.match_kind === 'new'
				? null
				: {
						match: found.match_kind,
						likeness: found.match_likeness,
						id: found.against_id,
						bankId: found.against_bank!,
						question: parseQuestion(JSON.parse(found.against_document!))
					},
		verifiedBy: found.verified_by,
		edited: Boolean(found.edited),
		listed,
		waived: await stagedWaivers(db, stagedId)
	};
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
