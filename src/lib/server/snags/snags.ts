import { mendTools } from '../../../../core/formats/mend-tools';
import type { Pool } from 'mysql2/promise';
import { checkOf, checkQuestion, checks } from '../../../../core/checks';
import { parseQuestion } from '../../../../core/kinds/schema';
import type { Question } from '../../../../core/kinds';
import type { Severity } from '../../../../core/reports/report';
import { row, rows, run, transaction, type Database } from '../db/pool';
import { record } from '../ledger/ledger';
import { columnsOf, reportColumns } from '../loads/staging';
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

/** How many questions of a course the mend of a check fits. */
export async function mendableCount(db: Database, courseId: number, rule: string): Promise<number> {
	const mend = checkOf(rule)?.mend;
	if (!mend) return 0;
	const found = {
		from: 'snags s JOIN questions q ON q.id = s.question_id',
		where: `s.course_id = ? AND s.rule = ? AND ${stillTwin}`
	};
	if (!mend.fits)
		return (await row<{ n: number }>(db, `SELECT COUNT(DISTINCT q.id) AS n FROM ${found.from} WHERE ${found.where}`, [
			courseId,
			rule
		]))!.n;
	const documents = await rows<{ document: string }>(
		db,
		`SELECT DISTINCT q.id, q.document FROM ${found.from} WHERE ${found.where}`,
		[courseId, rule]
	);
	return documents.filter((one) => mend.fits!(parseQuestion(JSON.parse(one.document)))).length;
}

interface Row {
	id: number;
	bank_id: number;
	document: string;
	fingerprint: Buffer;
	version: number;
}

/** What a mend has done. */
export interface Mended {
	mended: number;
	/** Questions for which it could change nothing. */
	left: number;
}

const batch = 300;

/**
 * Mends by a check: one question, or all that it speaks of where none is named. Mended questions are checked again,
 * in the same transaction. `version` guards one question against a change that was made in between.
 */
export async function mend(
	pool: Pool,
	courseId: number,
	personId: number,
	rule: string,
	questionId: number | null,
	version: number | null
): Promise<Mended | 'changed'> {
	const check = checkOf(rule);
	if (!check?.mend) return { mended: 0, left: 0 };
	return transaction(pool, async (connection) => {
		const done: Mended = { mended: 0, left: 0 };
		for (let last = 0; ;) {
			// a batch at a time, by key
			const found = await rows<Row>(
				connection,
				`SELECT id, bank_id, document, fingerprint, version FROM questions WHERE course_id = ? AND id > ? AND id IN (SELECT question_id FROM snags WHERE course_id = ? AND rule = ?${questionId === null ? '' : ' AND question_id = ?'}) ORDER BY id LIMIT ${batch} FOR UPDATE`,
				[courseId, last, courseId, rule, ...(questionId === null ? [] : [questionId])]
			);
			if (!found.length) break;
			last = found.at(-1)!.id;
			if (version !== null && found[0]!.version !== version) return 'changed';
			const changed = found.flatMap((one) => {
				const before = parseQuestion(JSON.parse(one.document));
				const after = check.mend!.apply(before, mendTools);
				const same = JSON.stringify(after) === JSON.stringify(before);
				if (same) done.left += 1;
				return same ? [] : [{ row: one, question: after }];
			});
			done.mended += changed.length;
			if (changed.length) await save(connection, courseId, changed);
		}
		if (done.mended) await dropLoneTwins(connection, courseId);
		if (done.mended)
			await record(connection, {
				courseId,
				personId,
				deed: 'mended',
				subject: check.title,
				questions: done.mended,
				address: `/courses/${courseId}/snags?check=${rule}`
			});
		return done;
	});
}

async function save(
	connection: Parameters<typeof run>[0],
	courseId: number,
	changed: { row: Row; question: Question }[]
): Promise<void> {
	const columns = changed.map(({ question }) => columnsOf(question));
	await run(
		connection,
		`INSERT INTO questions (id, course_id, bank_id, kind, title, stem_text, points, document, fingerprint, word_hashes) VALUES ?
		ON DUPLICATE KEY UPDATE kind = VALUES(kind), points = VALUES(points), title = VALUES(title), stem_text = VALUES(stem_text), document = VALUES(document), fingerprint = VALUES(fingerprint), word_hashes = VALUES(word_hashes), version = version + 1`,
		[
			changed.map(({ row: one, question }, at) => [
				one.id,
				courseId,
				one.bank_id,
				question.kind,
				columns[at]!.title,
				columns[at]!.stemText,
				question.points,
				columns[at]!.document,
				columns[at]!.fingerprint,
				columns[at]!.wordHashes
			])
		]
	);
	const ids = changed.map(({ row: one }) => one.id);
	// by_fingerprint
	const twins = await rows<{ id: number; fingerprint: Buffer }>(
		connection,
		'SELECT id, fingerprint FROM questions WHERE course_id = ? AND fingerprint IN (?)',
		[courseId, columns.map((one) => one.fingerprint)]
	);
	const found = changed.flatMap(({ row: one, question }, at) => {
		const twin = twins.find((other) => other.id !== one.id && other.fingerprint.equals(columns[at]!.fingerprint));
		return checkQuestion(question, { duplicateOf: () => (twin ? 'another question' : null) }).map((report) => [
			courseId,
			one.id,
			...reportColumns(report)
		]);
	});
	await run(connection, 'DELETE FROM snags WHERE question_id IN (?) AND rule IN (?)', [
		ids,
		checks.map((one) => one.id)
	]);
	if (found.length)
		await run(
			connection,
			'INSERT INTO snags (course_id, question_id, rule, severity, message, words, place, line) VALUES ?',
			[found]
		);
}

/** A question before and after the mend of a check, or null where it has none. */
export async function mendPreview(
	db: Database,
	courseId: number,
	rule: string,
	questionId: number
): Promise<{ before: Question; after: Question; version: number } | null> {
	const check = checkOf(rule);
	const found = await row<{ document: string; version: number }>(
		db,
		'SELECT document, version FROM questions WHERE id = ? AND course_id = ?',
		[questionId, courseId]
	);
	if (!check?.mend || !found) return null;
	const before = parseQuestion(JSON.parse(found.document));
	return { before, after: check.mend.apply(before, mendTools), version: found.version };
}
