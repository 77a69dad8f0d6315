import { createHash } from 'node:crypto';
import type { Pool } from 'mysql2/promise';
import type { Loss } from '$core/compare/loss';
import { writtenFormat } from '$core/formats';
import { defaultFit, fitEdition, type FitOptions } from '$core/formats/fit/fit';
import { fitQuizzes } from '$core/formats/fit/quizzes';
import type { Format } from '$core/formats/format';
import type { Kind } from '$core/kinds';
import { parseQuestion } from '$core/kinds/schema';
import { row, rows, run, type Database } from '../db/pool';
import { unhindered, type Control } from '../jobs/control';
import { askToStop, enqueueOnce } from '../jobs/jobs';
import {
	consignmentKeys,
	consignmentOf,
	questionIdsOf,
	type Consignment,
	type ConsignmentColumns
} from './consignment';
import { quizzesToWrite } from './quiz-to-write';

/** One line of a loss table: what becomes of questions of one kind, how many, and the first of them. */
export interface LossLine {
	kind: Kind;
	outcome: Loss['outcome'];
	what: string;
	count: number;
	questions: { id: number; title: string }[];
}

/** A loss table: what becomes of the questions, by kind, and of the quiz. */
export interface LossTable {
	lines: LossLine[];
	/** What is lost of the quiz, for people; null where what is sent is a bank. */
	quiz: { carried: boolean; what: string[] } | null;
}

/** How far the working out of a loss table is, of 0 while that is not known; `stopped` where nobody works on it. */
export interface LossProgress {
	id: number;
	done: number;
	total: number;
	stopped: boolean;
	failure: string;
}

/** So many questions are looked at while somebody waits; more of them in the background. */
const mostAtOnce = 400;
const batch = 400;
/** So many questions of a line are named. */
const mostNamed = 50;

/** What a loss table is of. */
interface Subject {
	courseId: number;
	what: Consignment;
	format: Format;
	options: FitOptions;
}

/** Which questions `q` are sent, as a condition with its parameters. */
async function chosen(db: Database, { courseId, what }: Subject): Promise<{ sql: string; parameters: unknown[] }> {
	if ('bankId' in what) return { sql: 'q.course_id = ? AND q.bank_id = ?', parameters: [courseId, what.bankId] };
	const ids = await questionIdsOf(db, courseId, what);
	return { sql: 'q.id IN (?)', parameters: [ids.length ? ids : [0]] };
}

const known =
	'question_losses l ON l.question_id = q.id AND l.format = ? AND l.worked_out = ? AND l.version = q.version AND l.edition = ?';
const knownBy = ({ format, options }: Subject) => [format.name, options.workedOut, fitEdition];

/** The keys of losses, by what they say; new ones are written down. */
async function lossKeys(db: Database, losses: Loss[]): Promise<Map<string, number>> {
	const saying = new Map(
		losses.map(({ outcome, what, fitted }) => {
			const text = what.join('; ');
			const hash = createHash('sha256').update(`${outcome}\n${fitted.length}\n${text}`).digest().subarray(0, 16);
			return [hash.toString('hex'), [hash, outcome, text, Math.min(65_535, fitted.length)] as const];
		})
	);
	await run(db, 'INSERT IGNORE INTO losses (hash, outcome, what, written) VALUES ?', [[...saying.values()]]);
	// by_hash
	const found = await rows<{ id: number; hash: Buffer }>(db, 'SELECT id, hash FROM losses WHERE hash IN (?)', [
		[...saying.values()].map(([hash]) => hash)
	]);
	return new Map(found.map(({ id, hash }) => [hash.toString('hex'), id]));
}

const hashOf = ({ outcome, what, fitted }: Loss) =>
	createHash('sha256')
		.update(`${outcome}\n${fitted.length}\n${what.join('; ')}`)
		.digest()
		.subarray(0, 16)
		.toString('hex');

/** Works out and keeps what becomes of questions of which that is not known, a batch at a time. */
async function workOut(
	db: Database,
	subject: Subject,
	control: Control,
	progress: (done: number) => Promise<unknown>
): Promise<void> {
	const { sql, parameters } = await chosen(db, subject);
	let done = 0;
	for (let last = 0; ;) {
		control.check();
		const found = await rows<{ id: number; version: number; document: string }>(
			db,
			`SELECT q.id, q.version, q.document FROM questions q LEFT JOIN ${known} WHERE ${sql} AND q.id > ? AND l.question_id IS NULL ORDER BY q.id LIMIT ${batch}`,
			[...knownBy(subject), ...parameters, last]
		);
		if (!found.length) return;
		last = found.at(-1)!.id;
		const losses = found.map(({ document }) =>
			subject.format.loss(parseQuestion(JSON.parse(document)), subject.options)
		);
		const keys = await lossKeys(db, losses);
		await run(
			db,
			'REPLACE INTO question_losses (question_id, format, worked_out, version, edition, loss_id) VALUES ?',
			[
				found.map(({ id, version }, at) => [
					id,
					subject.format.name,
					subject.options.workedOut,
					version,
					fitEdition,
					keys.get(hashOf(losses[at]!))
				])
			]
		);
		done += found.length;
		await progress(done);
	}
}

interface LineRow {
	kind: Kind;
	lossId: number;
	outcome: Loss['outcome'];
	what: string;
	count: number;
}

/** The table out of what is known of each question. */
async function tableOf(db: Database, subject: Subject): Promise<LossTable> {
	const { sql, parameters } = await chosen(db, subject);
	const from = `questions q JOIN ${known} JOIN losses s ON s.id = l.loss_id WHERE ${sql}`;
	const all = [...knownBy(subject), ...parameters];
	const lines = await rows<LineRow>(
		db,
		`SELECT q.kind, l.loss_id AS lossId, MIN(s.outcome) AS outcome, MIN(s.what) AS what, COUNT(*) AS count FROM ${from} GROUP BY q.kind, l.loss_id`,
		all
	);
	const named = await rows<{ kind: Kind; lossId: number; id: number; title: string }>(
		db,
		`SELECT n.kind, n.lossId, n.id, x.title FROM (SELECT q.id, q.kind, l.loss_id AS lossId, ROW_NUMBER() OVER (PARTITION BY q.kind, l.loss_id ORDER BY q.id) AS place FROM ${from}) n
		JOIN questions x ON x.id = n.id WHERE n.place <= ${mostNamed} ORDER BY n.id`,
		all
	);
	const rank = { lost: 0, changed: 1, kept: 2 };
	return {
		lines: lines
			.map(({ lossId, ...line }) => ({
				...line,
				questions: named
					.filter((question) => question.kind === line.kind && question.lossId === lossId)
					.map(({ id, title }) => ({ id, title }))
			}))
			.sort((a, b) => rank[a.outcome] - rank[b.outcome] || b.count - a.count),
		quiz: await quizLoss(db, subject)
	};
}

async function quizLoss(db: Database, subject: Subject): Promise<LossTable['quiz']> {
	const { courseId, what, format } = subject;
	if (!('quizId' in what || 'formsId' in what)) return null;
	const ids = await questionIdsOf(db, courseId, what);
	if (!ids.length) return null;
	const written = new Map(
		(
			await rows<{ id: number; written: number }>(
				db,
				`SELECT q.id, s.written FROM questions q JOIN ${known} JOIN losses s ON s.id = l.loss_id WHERE q.id IN (?)`,
				[...knownBy(subject), ids]
			)
		).map((question) => [question.id, question.written])
	);
	const quizzes = await quizzesToWrite(db, courseId, what, ids);
	const fitted = fitQuizzes(quizzes, format.quizLimits, (at) => written.get(ids[at]!) ?? 0);
	if (!fitted.length) return null;
	// what is lost of every form alike is said once
	const said = [...new Set(fitted.flatMap(({ what: lost }) => lost))];
	const behind = fitted.filter(({ quiz }) => quiz === null).length;
	return { carried: behind === 0, what: said };
}

/** What a format would keep, change and lose of a consignment, by kind, all of it worked out now. */
export async function lossTable(
	db: Database,
	courseId: number,
	what: Consignment,
	formatName: string,
	options: FitOptions = defaultFit
): Promise<LossTable> {
	const format = writtenFormat(formatName);
	if (!format) return { lines: [], quiz: null };
	const subject = { courseId, what, format, options };
	await workOut(db, subject, unhindered, () => Promise.resolve());
	return tableOf(db, subject);
}

interface KeptTable {
	id: number;
	stamp: number | null;
	document: string | null;
	done: number;
	total: number;
	failure: string;
}

/** The kept table of a subject; one is made where there is none. */
async function keptOf(pool: Pool, { courseId, what, format, options }: Subject): Promise<KeptTable> {
	const key = [courseId, ...consignmentKeys(what), format.name, options.workedOut, fitEdition];
	// by_subject
	const kept = await row<KeptTable>(
		pool,
		'SELECT id, stamp, document, done, total, failure FROM loss_tables WHERE course_id = ? AND bank_id <=> ? AND quiz_id <=> ? AND selection_id <=> ? AND forms_id <=> ? AND format = ? AND worked_out = ? AND edition = ? LIMIT 1',
		key
	);
	if (kept) return kept;
	const { id } = await run(
		pool,
		'INSERT INTO loss_tables (course_id, bank_id, quiz_id, selection_id, forms_id, format, worked_out, edition) VALUES (?, ?, ?, ?, ?, ?, ?, ?)',
		key
	);
	return { id, stamp: null, document: null, done: 0, total: 0, failure: '' };
}

const stampOf = async (db: Database, courseId: number) =>
	(await row<{ stamp: number }>(db, 'SELECT stamp FROM courses WHERE id = ?', [courseId]))!.stamp;

async function keep(db: Database, id: number, stamp: number, table: LossTable): Promise<void> {
	await run(db, "UPDATE loss_tables SET stamp = ?, document = ?, failure = '' WHERE id = ?", [
		stamp,
		JSON.stringify(table),
		id
	]);
}

/** Of how many questions it is not known yet; no more than `most` are counted. */
async function missing(db: Database, subject: Subject, most: number): Promise<number> {
	const { sql, parameters } = await chosen(db, subject);
	return (await row<{ n: number }>(
		db,
		`SELECT COUNT(*) AS n FROM (SELECT q.id FROM questions q LEFT JOIN ${known} WHERE ${sql} AND l.question_id IS NULL LIMIT ?) x`,
		[...knownBy(subject), ...parameters, most]
	))!.n;
}

/**
 * The loss table of a consignment as it is kept, where nothing has changed in the course since. Else, where few questions
 * have to be looked at, worked out now; where many, in the background, and how far that is is given.
 */
export async function lossesOf(
	pool: Pool,
	courseId: number,
	what: Consignment,
	formatName: string,
	options: FitOptions = defaultFit
): Promise<LossTable | LossProgress> {
	const format = writtenFormat(formatName);
	if (!format) return { lines: [], quiz: null };
	const subject = { courseId, what, format, options };
	const kept = await keptOf(pool, subject);
	const stamp = await stampOf(pool, courseId);
	if (kept.document && kept.stamp === stamp) return JSON.parse(kept.document) as LossTable;
	const working = await row(
		pool,
		"SELECT id FROM jobs WHERE kind = 'losses' AND subject_id = ? AND state IN ('waiting', 'running')",
		[kept.id]
	);
	const { id, done, total, failure } = kept;
	if (working) return { id, done, total, failure, stopped: false };
	const left = await missing(pool, subject, mostAtOnce + 1);
	if (left > mostAtOnce) return { id, done: 0, total: 0, failure, stopped: true };
	const table = await lossTable(pool, courseId, what, formatName, options);
	await keep(pool, id, stamp, table);
	return table;
}

/** Has a loss table worked out in the background. */
export async function workOutSoon(pool: Pool, courseId: number, id: number): Promise<void> {
	const { count } = await run(
		pool,
		"UPDATE loss_tables SET failure = '', done = 0, total = 0 WHERE id = ? AND course_id = ?",
		[id, courseId]
	);
	const there =
		count > 0 || (await row(pool, 'SELECT id FROM loss_tables WHERE id = ? AND course_id = ?', [id, courseId]));
	if (there) await enqueueOnce(pool, 'losses', id);
}

/** Stops the working out of a loss table; what is known by then stays known. */
export async function stopWorkingOut(pool: Pool, courseId: number, id: number): Promise<void> {
	if (await row(pool, 'SELECT id FROM loss_tables WHERE id = ? AND course_id = ?', [id, courseId]))
		await askToStop(pool, 'losses', id);
}

/** Works out a loss table as a job. Throws Stopped. */
export async function workOutLosses(pool: Pool, id: number, control: Control): Promise<void> {
	const found = await row<ConsignmentColumns & { course_id: number; format: string; worked_out: number }>(
		pool,
		'SELECT course_id, bank_id, quiz_id, selection_id, forms_id, format, worked_out FROM loss_tables WHERE id = ?',
		[id]
	);
	const format = found && writtenFormat(found.format);
	const what = found && consignmentOf(found);
	if (!format || !what) return;
	const subject = { courseId: found.course_id, what, format, options: { workedOut: found.worked_out } };
	await run(pool, 'UPDATE loss_tables SET done = 0, total = ? WHERE id = ?', [
		await missing(pool, subject, 2 ** 32),
		id
	]);
	await workOut(pool, subject, control, (done) =>
		run(pool, 'UPDATE loss_tables SET done = LEAST(total, ?) WHERE id = ?', [done, id])
	);
	const stamp = await stampOf(pool, found.course_id);
	await keep(pool, id, stamp, await tableOf(pool, subject));
}

/** Notes why a loss table was given up. */
export async function giveUpLosses(pool: Pool, id: number, failure: string): Promise<void> {
	await run(pool, 'UPDATE loss_tables SET failure = ? WHERE id = ?', [failure.slice(0, 1000), id]);
}
