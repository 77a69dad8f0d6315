import type { PoolConnection } from 'mysql2/promise';
import { checks } from '$core/checks';
import { checkQuestion } from '$core/checks/one';
import type { Question } from '$core/kinds';
import { setSeverities } from '../checks/severity';
import { checkRules } from '../courses/kept';
import { rows, run } from '../db/pool';
import { keepFiles } from '../files/uses';
import { columnsOf, contentList, contentNames, contentSet, reportColumns } from './columns';
import { keepFound } from './found';

/** What becomes of a staged question: where it lands, or which question it takes the place of. */
export interface Landing {
	stagedId: number;
	outcome: string;
	bankId: number | null;
	categoryId: number | null;
	targetId: number | null;
}

const batch = 2000;

/** Notes where staged questions land, in tables that live as long as the connection; what was noted before is gone. */
export async function noteLandings(connection: PoolConnection, landings: Landing[]): Promise<void> {
	await run(
		connection,
		'CREATE TEMPORARY TABLE IF NOT EXISTS landing_now (staged_id BIGINT UNSIGNED NOT NULL PRIMARY KEY, outcome VARCHAR(12) CHARACTER SET ascii NOT NULL, bank_id INT UNSIGNED NULL, category_id INT UNSIGNED NULL, target_id BIGINT UNSIGNED NULL, KEY (target_id))'
	);
	await run(
		connection,
		'CREATE TEMPORARY TABLE IF NOT EXISTS adjusted_now (staged_id BIGINT UNSIGNED NOT NULL PRIMARY KEY, points DOUBLE NULL, tags TEXT NOT NULL, shuffle TINYINT UNSIGNED NULL, document LONGTEXT NOT NULL, fingerprint BINARY(32) NOT NULL) CHARSET=utf8mb4 COLLATE=utf8mb4_unicode_520_ci'
	);
	await run(
		connection,
		"CREATE TEMPORARY TABLE IF NOT EXISTS adjusted_snags_now (staged_id BIGINT UNSIGNED NOT NULL, rule VARCHAR(60) NOT NULL, severity ENUM('broken', 'doubtful', 'untidy') NOT NULL, message TEXT NOT NULL, words TEXT NOT NULL, place VARCHAR(1000) NOT NULL, line INT UNSIGNED NULL, KEY (staged_id)) CHARSET=utf8mb4 COLLATE=utf8mb4_unicode_520_ci"
	);
	await run(connection, 'DELETE FROM landing_now');
	await run(connection, 'DELETE FROM adjusted_now');
	await run(connection, 'DELETE FROM adjusted_snags_now');
	for (let at = 0; at < landings.length; at += batch)
		await run(connection, 'INSERT INTO landing_now (staged_id, outcome, bank_id, category_id, target_id) VALUES ?', [
			landings
				.slice(at, at + batch)
				.map(({ stagedId, outcome, bankId, categoryId, targetId }) => [stagedId, outcome, bankId, categoryId, targetId])
		]);
}

/** Notes questions that land otherwise than they were staged, as the rules of a load want them; they are checked anew. */
export async function noteAdjusted(
	connection: PoolConnection,
	changed: { stagedId: number; question: Question }[]
): Promise<void> {
	if (!changed.length) return;
	await run(connection, 'INSERT INTO adjusted_now VALUES ?', [
		changed.map(({ stagedId, question }) => {
			const { document, fingerprint, tags, shuffle } = columnsOf(question);
			return [stagedId, question.points, tags, shuffle, document, fingerprint];
		})
	]);
	const snags = changed.flatMap(({ stagedId, question }) =>
		checkQuestion(question).map((report) => [stagedId, ...reportColumns(report)])
	);
	if (snags.length) await run(connection, 'INSERT INTO adjusted_snags_now VALUES ?', [snags]);
}

/** Notes whether a language model wrote the questions of a load, before they land. */
export async function noteAuthor(connection: PoolConnection, loadId: number, machine: boolean): Promise<void> {
	// by_load
	await run(connection, 'UPDATE staged_questions SET machine = ? WHERE load_id = ? AND machine <> ?', [
		machine ? 1 : 0,
		loadId,
		machine ? 1 : 0
	]);
}

/** What lands: as it was staged, or as it was adjusted. */
const landed = {
	points: 'IF(a.staged_id IS NULL, s.points, a.points)',
	tags: 'COALESCE(a.tags, s.tags)',
	shuffle: 'IF(a.staged_id IS NULL, s.shuffle, a.shuffle)',
	document: 'COALESCE(a.document, s.document)',
	fingerprint: 'COALESCE(a.fingerprint, s.fingerprint)'
};
/** What is found anew in an adjusted question; what speaks of several questions is known from before. */
const foundAnew = [checks.filter(({ scope }) => scope === 'one').map(({ id }) => id)];

/** Gives questions that have landed, by `target`, the snags that they had in the load, or have anew. */
async function bringSnags(connection: PoolConnection, courseId: number, from: string, target: string): Promise<void> {
	const { off: isOff, severities } = await checkRules(connection, courseId);
	const off = ['', ...isOff];
	await run(
		connection,
		`INSERT INTO snags (course_id, question_id, rule, severity, message, words, place, line)
		SELECT ?, ${target}, r.rule, r.severity, r.message, r.words, r.place, r.line FROM ${from} JOIN staged_reports r ON r.staged_id = n.staged_id
		WHERE r.rule NOT IN (?) AND (r.rule NOT IN (?) OR NOT EXISTS (SELECT 1 FROM adjusted_now x WHERE x.staged_id = r.staged_id))`,
		[courseId, off, ...foundAnew]
	);
	await run(
		connection,
		`INSERT INTO snags (course_id, question_id, rule, severity, message, words, place, line)
		SELECT ?, ${target}, a.rule, a.severity, a.message, a.words, a.place, a.line FROM ${from} JOIN adjusted_snags_now a ON a.staged_id = n.staged_id WHERE a.rule NOT IN (?)`,
		[courseId, off]
	);
	await setSeverities(connection, courseId, severities);
}

/** Puts what is noted as taken into the course, as new questions of a load. */
export async function insertLanded(connection: PoolConnection, courseId: number, loadId: number): Promise<void> {
	await run(
		connection,
		`INSERT INTO questions (course_id, bank_id, category_id, load_id, staged_id, ${contentNames})
		SELECT ?, n.bank_id, n.category_id, s.load_id, s.id, ${contentList('s', landed)}
		FROM staged_questions s JOIN landing_now n ON n.staged_id = s.id LEFT JOIN adjusted_now a ON a.staged_id = s.id
		WHERE s.load_id = ? AND n.outcome = 'taken' ORDER BY s.number`,
		[courseId, loadId]
	);
	await keepFiles(connection, { loadId });
	await keepFound(connection, { loadId });
	await bringSnags(
		connection,
		courseId,
		"landing_now n JOIN questions q ON q.staged_id = n.staged_id AND n.outcome = 'taken'",
		'q.id'
	);
}

/** Puts what is noted as replacing in the place of what it is like; what was there before is kept as a version, with its snags. */
export async function replaceLanded(connection: PoolConnection, courseId: number, loadId: number): Promise<void> {
	await run(
		connection,
		`INSERT INTO question_versions (question_id, version, ${contentNames}, snags, load_id, staged_id)
		SELECT q.id, q.version, ${contentList('q')},
			(SELECT JSON_ARRAYAGG(JSON_ARRAY(g.rule, g.severity, g.message, g.words, g.place, g.line)) FROM snags g WHERE g.question_id = q.id), s.load_id, s.id
		FROM staged_questions s JOIN landing_now n ON n.staged_id = s.id AND n.outcome = 'replaced' JOIN questions q ON q.id = n.target_id AND q.course_id = ? WHERE s.load_id = ?`,
		[courseId, loadId]
	);
	await run(
		connection,
		`UPDATE questions q JOIN landing_now n ON n.target_id = q.id AND n.outcome = 'replaced' JOIN staged_questions s ON s.id = n.staged_id LEFT JOIN adjusted_now a ON a.staged_id = s.id
		SET ${contentSet('q', 's', landed)}, q.version = q.version + 1, q.checked = 0 WHERE q.course_id = ?`,
		[courseId]
	);
	const replaced = await rows<{ id: number }>(
		connection,
		"SELECT target_id AS id FROM landing_now WHERE outcome = 'replaced' AND target_id IS NOT NULL"
	);
	const ids = replaced.map(({ id }) => id);
	await keepFiles(connection, { ids });
	await keepFound(connection, { ids });
	await run(
		connection,
		"DELETE g FROM snags g JOIN landing_now n ON n.target_id = g.question_id AND n.outcome = 'replaced' WHERE g.course_id = ?",
		[courseId]
	);
	await bringSnags(
		connection,
		courseId,
		"(SELECT staged_id, target_id FROM landing_now WHERE outcome = 'replaced') n",
		'n.target_id'
	);
}
