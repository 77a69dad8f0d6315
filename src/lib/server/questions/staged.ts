import type { PoolConnection } from 'mysql2/promise';
import { checks, oneChecks } from '$core/checks';
import { checkBeside } from '$core/checks/one';
import type { OtherCategories } from '$core/formats/format';
import type { Question } from '$core/kinds';
import { parseQuestion } from '$core/kinds/schema';
import type { Report } from '$core/reports/report';
import { setAlone } from '$core/take-in/adjust';
import { pathKey } from '$core/take-in/paths';
import { rows, run } from '../db/pool';
import { byRules, checkRules } from '../courses/kept';
import { waivedOf } from '../loads/waived-of';
import { twinReport, twinRule } from '../snags/twins';
import { columnsOf, reportColumns, type QuestionColumns } from './columns';

/** A question as it was read: with its source, all that is said of it, and the categories that it is given elsewhere. */
export interface ReadQuestion {
	question: Question;
	fragment: string;
	reports: Report[];
	columns: QuestionColumns;
	categories: OtherCategories;
}

const path = (steps: string[]) => pathKey(steps).slice(0, 2000);

/** Writes what is said of staged questions of a load. */
export async function writeReports(
	connection: PoolConnection,
	loadId: number,
	found: { stagedId: number; report: Report }[]
): Promise<void> {
	if (found.length)
		await run(
			connection,
			'INSERT INTO staged_reports (load_id, staged_id, rule, severity, message, words, place, line) VALUES ?',
			[found.map(({ stagedId, report }) => [loadId, stagedId, ...reportColumns(report)])]
		);
}

/** Stages questions of a load, the first of them with the number `first`; gives how much is said of them. */
export async function insertStaged(
	connection: PoolConnection,
	loadId: number,
	first: number,
	read: readonly ReadQuestion[]
): Promise<number> {
	const { id } = await run(
		connection,
		'INSERT INTO staged_questions (load_id, number, identifier, category_path, folder_path, section_path, metadata_path, kind, title, stem_text, points, shuffle, tags, order_bound, difficulty, language, has_feedback, document, fingerprint, word_hashes, searched_words, part_credits, source, broken) VALUES ?',
		[
			read.map(({ question, fragment, reports, columns, categories }, at) => [
				loadId,
				first + at,
				columns.identifier,
				path(question.category),
				path(question.source?.file.split('/').slice(0, -1) ?? []),
				categories.sections ? path(categories.sections) : null,
				categories.metadata ? path(categories.metadata) : null,
				question.kind,
				columns.title,
				columns.stemText,
				question.points,
				columns.shuffle,
				columns.tags,
				columns.orderBound,
				columns.difficulty,
				columns.language,
				columns.hasFeedback,
				columns.document,
				columns.fingerprint,
				columns.wordHashes,
				columns.searchedWords,
				columns.partCredits,
				fragment,
				reports.some((report) => report.severity === 'broken') ? 1 : 0
			])
		]
	);
	// the keys of one multi-row insert follow one another (innodb_autoinc_lock_mode 1, MariaDB's default)
	const found = read.flatMap(({ reports }, at) => reports.map((report) => ({ stagedId: id + at, report })));
	await writeReports(connection, loadId, found);
	return found.length;
}

/** A question of a load as it is written anew. */
export interface StagedDocument {
	id: number;
	load_id: number;
	document: string;
	version: number;
	number: number;
}

/** A staged question with what it is to be from now on. */
export interface ChangedStaged {
	staged: StagedDocument;
	question: Question;
}

/** What is found again whenever a question is written: of itself, and of another that is the same. */
const foundAgain = [...oneChecks.map(({ id }) => id), twinRule];
const rulesOfChecks = checks.map(({ id }) => id);

/** Which of the questions say the same as one of the course, or as one before it in the load. */
async function twinsAmong(
	connection: PoolConnection,
	courseId: number,
	changed: readonly ChangedStaged[],
	columns: readonly QuestionColumns[]
): Promise<Set<number>> {
	const fingerprints = columns.map(({ fingerprint }) => fingerprint);
	// by_fingerprint, of the course and of the load
	const twins = await rows<{ id: number | null; fingerprint: Buffer }>(
		connection,
		`SELECT NULL AS id, fingerprint FROM questions WHERE course_id = ? AND fingerprint IN (?)
		UNION ALL SELECT id, fingerprint FROM staged_questions WHERE load_id = ? AND fingerprint IN (?)`,
		[courseId, fingerprints, changed[0]!.staged.load_id, fingerprints]
	);
	const twice = changed.filter(
		({ staged, question }, at) =>
			question.kind !== 'unreadable' &&
			twins.some(({ id, fingerprint }) => fingerprint.equals(fingerprints[at]!) && (id === null || id < staged.id))
	);
	return new Set(twice.map(({ staged }) => staged.id));
}

/** Checks staged questions anew; what a reader has said stays, unless a person has set the question right. */
async function checkStaged(
	connection: PoolConnection,
	courseId: number,
	changed: readonly ChangedStaged[],
	columns: readonly QuestionColumns[],
	byHand: boolean
): Promise<void> {
	const ids = changed.map(({ staged }) => staged.id);
	const twins = await twinsAmong(connection, courseId, changed, columns);
	// what its reader has said and is still true: a person who sets a question right ends what is broken
	const kept = await rows<{ staged_id: number; rule: string }>(
		connection,
		`SELECT staged_id, rule FROM staged_reports WHERE staged_id IN (?) AND rule NOT IN (?)${byHand ? " AND severity <> 'broken'" : ''}`,
		[ids, rulesOfChecks]
	);
	const rules = await checkRules(connection, courseId);
	const waived = await waivedOf(connection, ids);
	const found = changed.flatMap(({ staged, question }) => {
		const said = kept.filter(({ staged_id }) => staged_id === staged.id);
		const reports = checkBeside(question, said, { on: rules.on });
		if (twins.has(staged.id)) reports.push(twinReport(question));
		return byRules(rules, reports)
			.filter(({ rule }) => !waived.has(`${staged.id} ${rule}`))
			.map((report) => ({ stagedId: staged.id, report }));
	});
	await run(
		connection,
		`DELETE FROM staged_reports WHERE staged_id IN (?) AND (rule IN (?)${byHand ? " OR severity = 'broken'" : ''})`,
		// what is said among many of a load is found as it is read; a person who has written anew ends it
		[ids, byHand ? rulesOfChecks : foundAgain]
	);
	await writeReports(connection, changed[0]!.staged.load_id, found);
}

/** Writes staged questions of one load anew, each with a version more, and checks them. */
export async function saveStaged(
	connection: PoolConnection,
	courseId: number,
	changed: readonly ChangedStaged[],
	byHand: boolean
): Promise<void> {
	if (!changed.length) return;
	const columns = changed.map(({ question }) => columnsOf(question));
	const ids = changed.map(({ staged }) => staged.id);
	const read = await rows<{ id: number; document: string }>(
		connection,
		'SELECT id, COALESCE(original, document) AS document FROM staged_questions WHERE id IN (?)',
		[ids]
	);
	const originals = new Map(read.map(({ id, document }) => [id, parseQuestion(JSON.parse(document))]));
	await checkStaged(connection, courseId, changed, columns, byHand);
	await run(
		connection,
		`INSERT INTO staged_questions (id, load_id, number, identifier, kind, title, stem_text, points, shuffle, tags, set_alone, order_bound, difficulty, language, has_feedback, document, fingerprint, word_hashes, searched_words, part_credits, source) VALUES ?
		ON DUPLICATE KEY UPDATE original = COALESCE(original, document), identifier = VALUES(identifier), kind = VALUES(kind), title = VALUES(title), stem_text = VALUES(stem_text), points = VALUES(points),
			shuffle = VALUES(shuffle), tags = VALUES(tags), set_alone = VALUES(set_alone), order_bound = VALUES(order_bound), difficulty = VALUES(difficulty), language = VALUES(language), has_feedback = VALUES(has_feedback), document = VALUES(document), fingerprint = VALUES(fingerprint), word_hashes = VALUES(word_hashes), searched_words = VALUES(searched_words), part_credits = VALUES(part_credits), version = version + 1`,
		[
			changed.map(({ staged, question }, at) => {
				const own = columns[at]!;
				const alone = JSON.stringify(setAlone(originals.get(staged.id) ?? question, question));
				return [
					staged.id,
					staged.load_id,
					staged.number,
					own.identifier,
					question.kind,
					own.title,
					own.stemText,
					question.points,
					own.shuffle,
					own.tags,
					alone,
					own.orderBound,
					own.difficulty,
					own.language,
					own.hasFeedback,
					own.document,
					own.fingerprint,
					own.wordHashes,
					own.searchedWords,
					own.partCredits,
					''
				];
			})
		]
	);
	await run(
		connection,
		"UPDATE staged_questions s SET broken = EXISTS (SELECT 1 FROM staged_reports r WHERE r.staged_id = s.id AND r.severity = 'broken') WHERE s.id IN (?)",
		[ids]
	);
}
