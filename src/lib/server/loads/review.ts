import type { Severity } from '../../../../core/reports/report';
import type { Setting } from '../../../../core/take-in/adjust';
import type { MatchRule } from '../../../../core/take-in/decision';
import type { Match, Outcome, PlanRow } from '../../../../core/take-in/plan-row';
import { parseQuestion } from '../../../../core/kinds/schema';
import type { OtherFile } from '../../../../core/formats/format';
import type { Kind, Question } from '../../../../core/kinds';
import { row, rows, type Database } from '../db/pool';
import { twinRule, withStagedTwins } from '../snags/twins';

/** A report as it was stored. */
export interface StoredReport {
	rule: string;
	severity: Severity;
	message: string;
	words: string[];
	place: string;
	line: number | null;
}

/** A question of a load, for a list and for a plan. */
export interface StagedRow extends PlanRow {
	id: number;
	number: number;
	/** The category that it was found in; `category` is the one that it is in now. */
	foundIn: string;
	title: string;
	outcome: 'waiting' | Outcome;
	/** How like its counterpart in the course it is, in percent. */
	likeness: number | null;
	verified: boolean;
	edited: boolean;
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

const planColumns = `COALESCE(s.placed_path, s.category_path) AS category, s.broken, s.choice, s.match_rule AS matchRule, s.part_credits AS credits, s.quiz_only AS quizOnly,
	s.kind, s.points, s.shuffle, s.tags, s.set_alone AS alone, s.order_bound AS orderBound, IF(q.id IS NULL, 'new', s.match_kind) AS \`match\`, q.id AS target, q.bank_id AS targetBank,
	IF(q.id IS NOT NULL AND s.match_kind = 'same', (SELECT GROUP_CONCAT(CONCAT(x.id, ':', x.bank_id) ORDER BY x.id) FROM questions x WHERE x.course_id = q.course_id AND x.fingerprint = s.fingerprint AND x.id <> q.id), NULL) AS others`;
/** A counterpart that has gone from the course since counts no more. */
const withTarget = 'staged_questions s LEFT JOIN questions q ON q.id = s.match_question_id AND q.course_id = ?';

interface StoredPlanRow {
	category: string;
	broken: number;
	choice: PlanRow['choice'];
	matchRule: MatchRule | null;
	credits: string;
	quizOnly: number;
	kind: Kind;
	points: number | null;
	shuffle: number | null;
	tags: string;
	alone: string;
	orderBound: number;
	match: Match;
	target: number | null;
	targetBank: number | null;
	/** Further questions that are the same, as their key and that of their bank. */
	others: string | null;
}

const listOf = <T>(text: string): T[] => (text === '[]' ? [] : (JSON.parse(text) as T[]));

function planRowOf(one: StoredPlanRow): PlanRow {
	const others = (one.others ?? '').split(',').filter(Boolean);
	return {
		category: one.category,
		broken: Boolean(one.broken),
		choice: one.choice,
		match: one.match,
		twins:
			one.target === null
				? []
				: [
						{ id: one.target, bankId: one.targetBank! },
						...others.map((other) => {
							const [id, bankId] = other.split(':').map(Number);
							return { id: id!, bankId: bankId! };
						})
					],
		matchRule: one.matchRule,
		credits: listOf<number>(one.credits),
		quizOnly: Boolean(one.quizOnly),
		kind: one.kind,
		points: one.points,
		shuffle: one.shuffle === null ? null : Boolean(one.shuffle),
		tags: listOf<string>(one.tags),
		alone: listOf<Setting>(one.alone),
		orderBound: Boolean(one.orderBound)
	};
}

/** All questions of a load as a plan needs them, in the order of its file. */
export async function planRows(db: Database, courseId: number, loadId: number): Promise<(PlanRow & { id: number })[]> {
	const found = await rows<StoredPlanRow & { id: number }>(
		db,
		`SELECT s.id, ${planColumns} FROM ${withTarget} WHERE s.load_id = ? ORDER BY s.number`,
		[courseId, loadId]
	);
	return found.map((one) => ({ ...planRowOf(one), id: one.id }));
}

/** All questions of a load in the order of its file. */
export async function stagedRows(db: Database, courseId: number, loadId: number): Promise<StagedRow[]> {
	const found = await rows<
		StoredPlanRow &
			Pick<StagedRow, 'id' | 'number' | 'foundIn' | 'title' | 'outcome' | 'likeness'> & {
				marks: string | null;
				verified: number;
				edited: number;
			}
	>(
		db,
		`SELECT s.id, s.number, s.category_path AS foundIn, s.title, s.outcome, s.match_likeness AS likeness, s.verified IS NOT NULL AS verified, s.original IS NOT NULL AS edited, ${planColumns},
			(SELECT GROUP_CONCAT(DISTINCT CONCAT(r.severity, ':', r.rule) ORDER BY r.severity SEPARATOR ',') FROM staged_reports r WHERE r.staged_id = s.id AND (r.rule <> '${twinRule}' OR q.id IS NOT NULL OR EXISTS (SELECT 1 FROM staged_questions x WHERE x.load_id = s.load_id AND x.fingerprint = s.fingerprint AND x.id <> s.id))) AS marks
		FROM ${withTarget} WHERE s.load_id = ? ORDER BY s.number`,
		[courseId, loadId]
	);
	return found.map((one) => ({
		...planRowOf(one),
		id: one.id,
		number: one.number,
		foundIn: one.foundIn,
		title: one.title,
		outcome: one.outcome,
		likeness: one.likeness,
		verified: Boolean(one.verified),
		edited: Boolean(one.edited),
		marks: marksOf(one.marks)
	}));
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
	outcome: StagedRow['outcome'];
}

/** One question of a load with its source, what is said about it, and its counterpart in the course. */
export async function stagedQuestion(
	db: Database,
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
		outcome: StagedRow['outcome'];
	}>(
		db,
		`SELECT s.document, s.version, s.source, s.match_kind, s.match_likeness, s.outcome, s.original IS NOT NULL AS edited, p.name AS verified_by,
			q.id AS against_id, q.bank_id AS against_bank, q.document AS against_document
		FROM staged_questions s JOIN loads l ON l.id = s.load_id LEFT JOIN questions q ON q.id = s.match_question_id AND q.course_id = l.course_id LEFT JOIN people p ON p.id = s.verified_by
		WHERE s.load_id = ? AND s.id = ?`,
		[loadId, stagedId]
	);
	if (!found) return undefined;
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
		outcome: found.outcome
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

/** Where the categories of a load can come from: as they were read, the sections or the metadata of the package, or its folders. */
export const categorySources = ['package', 'sections', 'metadata', 'folders'] as const;

/** One of those. */
export type CategorySource = (typeof categorySources)[number];

/** The sources that put the questions of a load otherwise than they were read, and the one that is taken now; null where a person has put questions elsewhere. */
export async function sourcesOf(
	db: Database,
	loadId: number
): Promise<{ others: CategorySource[]; now: CategorySource | null }> {
	// by_number
	const found = await row<Record<string, number | string | null>>(
		db,
		`SELECT COUNT(DISTINCT folder_path) > 1 AND SUM(folder_path <> category_path) > 0 AS folders,
			COUNT(DISTINCT section_path) > 0 AND SUM(COALESCE(section_path, '') <> category_path) > 0 AS sections,
			COUNT(DISTINCT metadata_path) > 0 AND SUM(COALESCE(metadata_path, '') <> category_path) > 0 AS metadata,
			SUM(placed_path IS NOT NULL) = 0 AS now_package,
			SUM(COALESCE(placed_path, category_path) <> folder_path) = 0 AS now_folders,
			SUM(COALESCE(placed_path, category_path) <> COALESCE(section_path, '')) = 0 AS now_sections,
			SUM(COALESCE(placed_path, category_path) <> COALESCE(metadata_path, '')) = 0 AS now_metadata
		FROM staged_questions WHERE load_id = ?`,
		[loadId]
	);
	return {
		others: categorySources.filter((one) => one !== 'package' && Number(found?.[one]) > 0),
		now: categorySources.find((one) => Number(found?.[`now_${one}`]) > 0) ?? null
	};
}

/** The pictures and other files that the questions of a load use, the most used first, each with its size in bytes. */
export interface UsedFiles {
	count: number;
	size: number;
	/** Those that several questions share, as many as fit a list. */
	shared: { name: string; uses: number; hash: string }[];
}

const mostShared = 40;

/** What the questions of a load use beside their words. */
export async function usedFiles(db: Database, loadId: number): Promise<UsedFiles> {
	const all = await row<{ count: number; size: string | null }>(
		db,
		'SELECT COUNT(*) AS count, SUM(f.size) AS size FROM load_files u JOIN files f ON f.id = u.file_id WHERE u.load_id = ?',
		[loadId]
	);
	const shared = await rows<UsedFiles['shared'][number]>(
		db,
		`SELECT u.name, u.uses, LOWER(HEX(f.hash)) AS hash FROM load_files u JOIN files f ON f.id = u.file_id WHERE u.load_id = ? AND u.uses > 1 ORDER BY u.uses DESC, u.name LIMIT ${mostShared}`,
		[loadId]
	);
	return { count: all?.count ?? 0, size: Number(all?.size ?? 0), shared };
}

/** What a package holds beside its questions. */
export async function foundOthers(db: Database, loadId: number): Promise<OtherFile[]> {
	return rows(db, 'SELECT path, type FROM staged_others WHERE load_id = ? ORDER BY id', [loadId]);
}

/** A quiz that was found in a load, with the numbers of its questions in the file. */
export interface StagedQuiz {
	id: number;
	title: string;
	numbers: number[];
}

/** The quizzes that were found in a load. */
export async function foundQuizzes(db: Database, loadId: number): Promise<StagedQuiz[]> {
	const found = await rows<{ id: number; title: string; document: string }>(
		db,
		'SELECT id, title, document FROM staged_quizzes WHERE load_id = ? ORDER BY id',
		[loadId]
	);
	return found.map(({ id, title, document }) => ({
		id,
		title,
		numbers: [...new Set((JSON.parse(document) as { numbers: number[] }[]).flatMap((part) => part.numbers))]
	}));
}

/** A bank of the course that a load belongs to, since most of it is there already, and why it seems so. */
export interface LikelyBank {
	bankId: number;
	why: 'questions' | 'categories';
	/** How many of the load's are there, of how many. */
	there: number;
	of: number;
}

/**
 * The bank in which most of a load is already: the one with more than half of its questions, the same or changed, or else
 * with more than half of its categories. `banks` are those of the course with the paths of their categories.
 */
export async function likelyBank(
	db: Database,
	loadId: number,
	banks: { id: number; paths: string[] }[]
): Promise<LikelyBank | null> {
	// by_number
	const found = await rows<{ bankId: number | null; category: string; n: number }>(
		db,
		`SELECT q.bank_id AS bankId, s.category_path AS category, COUNT(*) AS n
		FROM staged_questions s LEFT JOIN questions q ON q.id = s.match_question_id AND s.match_kind IN ('same', 'changed') WHERE s.load_id = ? GROUP BY q.bank_id, s.category_path`,
		[loadId]
	);
	const all = found.reduce((sum, one) => sum + one.n, 0);
	const inBank = (bankId: number) => found.reduce((sum, one) => sum + (one.bankId === bankId ? one.n : 0), 0);
	const categories = [...new Set(found.map((one) => one.category).filter(Boolean))];
	const most = <T extends { there: number; of: number }>(list: T[]): T | null =>
		list.filter((one) => one.there * 2 > one.of).sort((a, b) => b.there - a.there)[0] ?? null;
	return (
		most(banks.map(({ id }) => ({ bankId: id, why: 'questions' as const, there: inBank(id), of: all }))) ??
		// one category of a common name says nothing
		(categories.length < 2
			? null
			: most(
					banks.map(({ id, paths }) => ({
						bankId: id,
						why: 'categories' as const,
						there: categories.filter((one) => paths.includes(one)).length,
						of: categories.length
					}))
				))
	);
}
