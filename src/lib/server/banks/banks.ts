import type { Pool } from 'mysql2/promise';
import { countsOf, questionsIn, type CourseCounts } from '../courses/counts';
import { categoryTree } from './tree';
import type { Question } from '$core/kinds';
import { parseQuestion } from '$core/kinds/schema';
import { pathOfKey } from '$core/take-in/paths';
import { row, rows, type Database } from '../db/pool';
import { storedReports, type StoredReport } from '../loads/review';

/** A bank with the number of its questions. */
export interface Bank {
	id: number;
	name: string;
	questions: number;
}

/** What is known of a bank beside what is in it. */
export interface BankAbout {
	description: string;
	made: Date;
	/** Who made it, or the file of the load that did. */
	by: string | null;
	/** The loads that it has questions of, with how many. */
	loads: { id: number; fileName: string; questions: number }[];
	/** The quizzes that draw from it or name questions of it. */
	quizzes: { id: number; title: string }[];
}

/** What is known of a bank of a course beside what is in it. */
export async function bankAbout(db: Database, courseId: number, bankId: number): Promise<BankAbout | undefined> {
	const found = await row<{ description: string | null; made: Date; by: string | null }>(
		db,
		'SELECT b.description, b.made, COALESCE(p.name, l.file_name) AS `by` FROM banks b LEFT JOIN people p ON p.id = b.made_by LEFT JOIN loads l ON l.id = b.load_id WHERE b.id = ? AND b.course_id = ?',
		[bankId, courseId]
	);
	if (!found) return undefined;
	const [loads, quizzes] = await Promise.all([
		rows<BankAbout['loads'][number]>(
			db,
			'SELECT l.id, l.file_name AS fileName, COUNT(*) AS questions FROM questions q JOIN loads l ON l.id = q.load_id WHERE q.bank_id = ? GROUP BY l.id, l.file_name ORDER BY l.id DESC LIMIT 50',
			[bankId]
		),
		rows<BankAbout['quizzes'][number]>(
			db,
			`SELECT z.id, z.title FROM quizzes z WHERE z.course_id = ? AND (
				EXISTS (SELECT 1 FROM quiz_parts p JOIN quiz_part_banks k ON k.part_id = p.id WHERE p.quiz_id = z.id AND k.bank_id = ?)
				OR EXISTS (SELECT 1 FROM quiz_parts p JOIN quiz_part_categories k ON k.part_id = p.id JOIN categories c ON c.id = k.category_id WHERE p.quiz_id = z.id AND c.bank_id = ?)
				OR EXISTS (SELECT 1 FROM quiz_parts p JOIN quiz_part_questions k ON k.part_id = p.id JOIN questions q ON q.id = k.question_id WHERE p.quiz_id = z.id AND q.bank_id = ? AND k.role <> 'excluded')) ORDER BY z.title LIMIT 50`,
			[courseId, bankId, bankId, bankId]
		)
	]);
	return { ...found, description: found.description ?? '', loads, quizzes };
}

/** The banks of a course by name. */
export async function bankNames(db: Database, courseId: number): Promise<Omit<Bank, 'questions'>[]> {
	return rows(db, 'SELECT id, name FROM banks WHERE course_id = ? ORDER BY name', [courseId]);
}

/** The banks of a course by name, with the number of their questions as it is kept. */
export async function banksOf(pool: Pool, courseId: number, known?: CourseCounts): Promise<Bank[]> {
	const counts = known ?? (await countsOf(pool, courseId));
	return (await bankNames(pool, courseId)).map((bank) => ({ ...bank, questions: questionsIn(counts, bank.id) }));
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
	/** Who has verified its key, when, and at which version; null where nobody has. */
	verified: { by: string; at: Date; version: number | null } | null;
	/** What somebody doubts about its key, and who. */
	disputed: { by: string | null; note: string } | null;
	/** A language model wrote it. */
	machine: boolean;
	created: Date;
	changed: { by: string | null; at: Date } | null;
	/** What it was before something was put in its place, the newest first, with who or which file did that. */
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
		verified_version: number | null;
		disputed: string | null;
		disputed_by: string | null;
		machine: number;
		created: Date;
		changed: Date | null;
		changed_by: string | null;
	}>(
		db,
		`SELECT q.id, q.bank_id, q.category_id, q.version, q.document, q.verified, p.name AS verified_by, q.verified_version, q.disputed, d.name AS disputed_by, q.machine, q.created, q.changed, h.name AS changed_by, s.source, l.file_name
		FROM questions q LEFT JOIN staged_questions s ON s.id = q.staged_id LEFT JOIN loads l ON l.id = q.load_id LEFT JOIN people p ON p.id = q.verified_by LEFT JOIN people d ON d.id = q.disputed_by LEFT JOIN people h ON h.id = q.changed_by
		WHERE q.id = ? AND q.course_id = ?`,
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
			LEFT JOIN quiz_part_questions u ON u.part_id = p.id AND u.question_id = ? AND u.role <> 'excluded' LEFT JOIN quiz_part_categories k ON k.part_id = p.id AND k.category_id = ?
			WHERE z.course_id = ? AND (u.part_id IS NOT NULL OR k.part_id IS NOT NULL)`,
			[questionId, found.category_id, courseId]
		),
		// by_question
		rows<{ version: number; replaced: Date; by: string | null; document: string }>(
			db,
			'SELECT v.version, v.replaced, COALESCE(l.file_name, p.name) AS `by`, v.document FROM question_versions v LEFT JOIN loads l ON l.id = v.load_id LEFT JOIN ledger g ON g.id = v.deed_id LEFT JOIN people p ON p.id = g.person_id WHERE v.question_id = ? ORDER BY v.version DESC LIMIT 50',
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
		verified:
			found.verified && found.verified_by
				? { by: found.verified_by, at: found.verified, version: found.verified_version }
				: null,
		disputed: found.disputed === null ? null : { by: found.disputed_by, note: found.disputed },
		machine: found.machine === 1,
		created: found.created,
		changed: found.changed ? { by: found.changed_by, at: found.changed } : null,
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
