import type { PoolConnection } from 'mysql2/promise';
import type { Question } from '$core/kinds';
import { checkAround, type ToCheck } from '../checks/around';
import { rows, run } from '../db/pool';
import { keepFiles } from '../files/uses';
import { columnsOf, contentList, contentNames } from './columns';
import { keepFound } from './found';

/** A question of a course with what it is to be from now on. */
export interface ChangedQuestion {
	id: number;
	bankId: number;
	question: Question;
}

/** The deed by which questions are changed, and who does it; what they were before is kept under it. */
export interface ByDeed {
	deedId: number;
	personId: number;
	/** What is changed leaves the key as it is, so that who has verified it has verified it still. */
	keepsKey?: boolean;
	/** Where what is held against others is checked by `checkedTogether`, what is left for it. */
	later?: ToCheck;
}

/** The columns of a question that its document gives, as `questionValues` gives them, for SQL. */
export const questionNames =
	'identifier, kind, title, stem_text, points, tags, shuffle, difficulty, language, has_feedback, document, fingerprint, word_hashes, searched_words';

/** The values of those columns. */
export function questionValues(question: Question): unknown[] {
	const own = columnsOf(question);
	return [
		own.identifier,
		question.kind,
		own.title,
		own.stemText,
		question.points,
		own.tags,
		own.shuffle,
		own.difficulty,
		own.language,
		own.hasFeedback,
		own.document,
		own.fingerprint,
		own.wordHashes,
		own.searchedWords
	];
}

const written = questionNames
	.split(', ')
	.map((column) => `${column} = VALUES(${column})`)
	.join(', ');

/** Keeps what questions say now as a version of each, which a deed is about to replace; the deed remembers each of them. */
async function keepVersions(connection: PoolConnection, deedId: number, ids: readonly number[]): Promise<void> {
	await run(
		connection,
		`INSERT INTO question_versions (question_id, version, ${contentNames}, deed_id) SELECT q.id, q.version, ${contentList('q')}, ? FROM questions q WHERE q.id IN (?)`,
		[deedId, ids]
	);
	await run(
		connection,
		`INSERT INTO changed_questions (deed_id, question_id, sort, version_after) SELECT ?, q.id, 'written', q.version + 1 FROM questions q WHERE q.id IN (?)
		ON DUPLICATE KEY UPDATE version_after = VALUES(version_after)`,
		[deedId, ids]
	);
}

/**
 * Writes questions anew, each with a version more, and checks them and those that they are held against. What they were
 * is kept under the deed.
 */
export async function saveQuestions(
	connection: PoolConnection,
	courseId: number,
	changed: readonly ChangedQuestion[],
	{ deedId, personId, keepsKey = false, later }: ByDeed
): Promise<void> {
	if (!changed.length) return;
	const ids = changed.map(({ id }) => id);
	await checkAround(
		connection,
		courseId,
		ids,
		async () => {
			await keepVersions(connection, deedId, ids);
			await run(
				connection,
				`INSERT INTO questions (id, course_id, bank_id, ${questionNames}) VALUES ?
			ON DUPLICATE KEY UPDATE verified_version = IF(? AND verified_version = version, version + 1, verified_version), ${written}, version = version + 1, changed = NOW(3), changed_by = ?`,
				[
					changed.map(({ id, bankId, question }) => [id, courseId, bankId, ...questionValues(question)]),
					keepsKey ? 1 : 0,
					personId
				]
			);
			await keepFiles(connection, { ids });
			await keepFound(connection, { ids });
		},
		{ written: new Map(changed.map(({ id, question }) => [id, question])), later }
	);
}

/** New questions and where they are to stand. */
export interface NewQuestion {
	bankId: number;
	categoryId: number | null;
	question: Question;
	copiedFrom?: number;
}

/** Makes questions in a course by a deed; gives their keys in the same order. */
export async function insertQuestions(
	connection: PoolConnection,
	courseId: number,
	made: readonly NewQuestion[],
	{ deedId, personId }: ByDeed
): Promise<number[]> {
	if (!made.length) return [];
	const { id: first } = await run(
		connection,
		`INSERT INTO questions (course_id, bank_id, category_id, deed_id, copied_from, changed, changed_by, ${questionNames}) VALUES ?`,
		[
			made.map(({ bankId, categoryId, question, copiedFrom }) => [
				courseId,
				bankId,
				categoryId,
				deedId,
				copiedFrom ?? null,
				new Date(),
				personId,
				...questionValues(question)
			])
		]
	);
	// the keys of one multi-row insert follow one another (innodb_autoinc_lock_mode 1, MariaDB's default)
	const ids = made.map((_, at) => first + at);
	await run(
		connection,
		"INSERT INTO changed_questions (deed_id, question_id, sort, course_after, bank_after, category_after, version_after) SELECT ?, q.id, 'made', q.course_id, q.bank_id, q.category_id, q.version FROM questions q WHERE q.id IN (?)",
		[deedId, ids]
	);
	await keepFiles(connection, { ids });
	await keepFound(connection, { ids });
	await checkAround(connection, courseId, ids, () => Promise.resolve());
	return ids;
}

/** The questions of a course by their keys, to be changed: locked, in the order of their keys. */
export async function lockedQuestions(
	connection: PoolConnection,
	courseId: number,
	ids: readonly number[]
): Promise<{ id: number; bankId: number; categoryId: number | null; version: number; document: string }[]> {
	if (!ids.length) return [];
	return rows(
		connection,
		'SELECT id, bank_id AS bankId, category_id AS categoryId, version, document FROM questions WHERE course_id = ? AND id IN (?) ORDER BY id FOR UPDATE',
		[courseId, ids]
	);
}
