import type { Severity } from '../../../../core/reports/report';
import type { Kind, Question } from '../../../../core/kinds';
import { parseQuestion } from '../../../../core/kinds/schema';
import { pathOfKey } from '../../../../core/take-in/paths';
import { row, rows, type Database } from '../db/pool';
import { storedReports, type StoredReport } from '../loads/review';
import { categoryTree, withUnder } from './tree';

/** A bank with the number of its questions. */
export interface Bank {
	id: number;
	name: string;
	questions: number;
}

/** The banks of a course by name. */
export async function banksOf(db: Database, courseId: number): Promise<Bank[]> {
	return rows(
		db,
		'SELECT b.id, b.name, (SELECT COUNT(*) FROM questions q WHERE q.bank_id = b.id) AS questions FROM banks b WHERE b.course_id = ? ORDER BY b.name',
		[courseId]
	);
}

/** A question of a bank, for a list. */
export interface QuestionRow {
	id: number;
	kind: Kind;
	title: string;
	points: number | null;
	categoryId: number | null;
	/** The worst of its open snags, and how many there are. */
	worst: Severity | null;
	snags: number;
}

/** What questions are looked for. */
export interface QuestionFilter {
	bankId: number;
	categoryId: number | null;
	withUnder: boolean;
	words: string;
	kind: string;
}

/** Words that the full-text index leaves out (InnoDB's own list) or that are too short for it; they are looked for in the text itself. */
const notIndexed = new Set(
	'a about an are as at be by com de en for from how i in is it la of on or that the this to was what when where who will with und www'.split(
		' '
	)
);
const shortest = 3;

function wordCondition(words: string): { sql: string; parameters: string[] } {
	const all = words.toLowerCase().match(/[\p{L}\p{N}]+/gu) ?? [];
	const indexed = all.filter((word) => word.length >= shortest && !notIndexed.has(word));
	const others = all.filter((word) => !indexed.includes(word));
	const sql =
		(indexed.length ? ' AND MATCH (q.title, q.stem_text) AGAINST (? IN BOOLEAN MODE)' : '') +
		others.map(() => " AND CONCAT(' ', q.title, ' ', q.stem_text) LIKE ?").join('');
	return {
		sql,
		parameters: [
			...(indexed.length ? [indexed.map((word) => `+${word}*`).join(' ')] : []),
			...others.map((word) => `% ${word}%`)
		]
	};
}

/** The questions of a bank that fit a filter, by category and in the order in which they came. */
export async function questionRows(db: Database, filter: QuestionFilter): Promise<QuestionRow[]> {
	const tree = filter.categoryId === null ? [] : await categoryTree(db, filter.bankId);
	const categories =
		filter.categoryId === null ? [] : filter.withUnder ? withUnder(tree, filter.categoryId) : [filter.categoryId];
	const words = wordCondition(filter.words);
	// by_category, or by_words where words are looked for
	return rows(
		db,
		`SELECT q.id, q.kind, q.title, q.points, q.category_id AS categoryId,
			(SELECT MIN(s.severity) FROM snags s WHERE s.question_id = q.id) AS worst, (SELECT COUNT(*) FROM snags s WHERE s.question_id = q.id) AS snags
		FROM questions q WHERE q.bank_id = ?${categories.length ? ' AND q.category_id IN (?)' : ''}${filter.kind ? ' AND q.kind = ?' : ''}${words.sql} ORDER BY q.category_id, q.id LIMIT 100000`,
		[
			filter.bankId,
			...(categories.length ? [categories] : []),
			...(filter.kind ? [filter.kind] : []),
			...words.parameters
		]
	);
}

/** A question with all that is known of it. */
export interface StoredQuestion {
	id: number;
	bankId: number;
	version: number;
	question: Question;
	source: string;
	reports: StoredReport[];
	category: string[];
	/** The file that it came in. */
	from: string | null;
	usedIn: { id: number; title: string }[];
	/** Who has verified its key, and when; null where nobody has. */
	verified: { by: string; at: Date } | null;
	/** What it was before something was put in its place, the newest first, with the file that did. */
	history: { version: number; replaced: Date; by: string | null; question: Question }[];
}

/** One question of a course in full. */
export async function storedQuestion(
	db: Database,
	courseId: number,
	questionId: number
): Promise<StoredQuestion | undefined> {
	const found = await row<{
		id: number;
		bank_id: number;
		category_id: number | null;
		version: number;
		document: string;
		source: string | null;
		file_name: string | null;
		verified: Date | null;
		verified_by: string | null;
	}>(
		db,
		`SELECT q.id, q.bank_id, q.category_id, q.version, q.document, q.verified, p.name AS verified_by, s.source, l.file_name
		FROM questions q LEFT JOIN staged_questions s ON s.id = q.staged_id LEFT JOIN loads l ON l.id = q.load_id LEFT JOIN people p ON p.id = q.verified_by WHERE q.id = ? AND q.course_id = ?`,
		[questionId, courseId]
	);
	if (!found) return undefined;
	const [reports, tree, usedIn, history] = await Promise.all([
		rows<Omit<StoredReport, 'words'> & { words: string }>(
			db,
			'SELECT rule, severity, message, words, place, line FROM snags WHERE question_id = ? ORDER BY severity, id',
			[questionId]
		),
		categoryTree(db, found.bank_id),
		rows<{ id: number; title: string }>(
			db,
			`SELECT DISTINCT z.id, z.title FROM quizzes z JOIN quiz_parts p ON p.quiz_id = z.id
			LEFT JOIN quiz_part_questions u ON u.part_id = p.id AND u.question_id = ? LEFT JOIN quiz_part_categories k ON k.part_id = p.id AND k.category_id = ?
			WHERE z.course_id = ? AND (u.part_id IS NOT NULL OR k.part_id IS NOT NULL)`,
			[questionId, found.category_id, courseId]
		),
		// by_question
		rows<{ version: number; replaced: Date; by: string | null; document: string }>(
			db,
			'SELECT v.version, v.replaced, l.file_name AS `by`, v.document FROM question_versions v LEFT JOIN loads l ON l.id = v.load_id WHERE v.question_id = ? ORDER BY v.version DESC LIMIT 50',
			[questionId]
		)
	]);
	const category = pathOfKey(tree.find((node) => node.id === found.category_id)?.key ?? '');
	return {
		id: found.id,
		bankId: found.bank_id,
		version: found.version,
		question: { ...parseQuestion(JSON.parse(found.document)), category },
		source: found.source ?? '',
		reports: storedReports(reports),
		category,
		from: found.file_name,
		usedIn,
		verified: found.verified && found.verified_by ? { by: found.verified_by, at: found.verified } : null,
		history: history.map(({ document, ...one }) => ({ ...one, question: parseQuestion(JSON.parse(document)) }))
	};
}

/** Questions of a course by their keys. */
export async function questionsById(db: Database, courseId: number, ids: number[]): Promise<Map<number, Question>> {
	if (!ids.length) return new Map();
	const found = await rows<{ id: number; document: string }>(
		db,
		'SELECT id, document FROM questions WHERE course_id = ? AND id IN (?)',
		[courseId, ids]
	);
	return new Map(found.map((one) => [one.id, parseQuestion(JSON.parse(one.document))]));
}
