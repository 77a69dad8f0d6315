import type { Pool } from 'mysql2/promise';
import { enqueue } from '../jobs/jobs';
import { writtenFormat } from '../../../../core/formats';
import { defaultFit, type FitOptions } from '../../../../core/formats/fit/fit';
import type { Loss } from '../../../../core/formats/format';
import { parseQuestion } from '../../../../core/model/schema';
import type { Kind } from '../../../../core/model/question';
import { row, rows, run, transaction, type Database } from '../db/pool';
import { poolOf, poolSource, quizOf } from '../quizzes/quizzes';

/** What is sent: a whole bank, or a quiz with the questions of its pools. */
export type Consignment = { bankId: number } | { quizId: number };

/** What was found when the written file was read back. The numbers add up: sent = identical + foretold + otherwise + missing. */
export interface Proof {
	inAll: number;
	leftBehind: number;
	sent: number;
	foundInFile: number;
	identical: number;
	foretold: number;
	otherwise: number;
	missing: number;
	/** Every question that is not identical, with what is not. */
	lines: { title: string; questionId: number; outcome: string; what: string[] }[];
	/** What differs in the quiz itself; empty where nothing does. */
	quiz: string[];
	hash: string;
	size: number;
}

/** A dispatch as it is shown. */
export interface Dispatch {
	id: number;
	title: string;
	format: string;
	state: 'waiting' | 'writing' | 'proving' | 'done' | 'stopped' | 'failed';
	file_id: number | null;
	file_name: string;
	done: number;
	total: number;
	failure: string;
	created: Date;
	person: string;
	proof: Proof | null;
}

/** The keys of the questions of a consignment, in the order in which they are written: as the bank's tree lays them out. */
export async function questionIdsOf(db: Database, courseId: number, what: Consignment): Promise<number[]> {
	if ('bankId' in what)
		return (
			await rows<{ id: number }>(
				db,
				'SELECT q.id FROM questions q WHERE q.course_id = ? AND q.bank_id = ? ORDER BY q.id',
				[courseId, what.bankId]
			)
		).map((one) => one.id);
	const quiz = await quizOf(db, courseId, what.quizId);
	if (!quiz) return [];
	const { banks, inCategory } = await poolSource(db, courseId);
	const trees = banks.flatMap((bank) => bank.tree);
	return [...new Set(quiz.parts.flatMap((part) => poolOf(part, trees, inCategory)))].sort((a, b) => a - b);
}

/** One line of a loss table: what becomes of questions of one kind. */
export interface LossLine {
	kind: Kind;
	outcome: Loss['outcome'];
	what: string;
	questions: { id: number; title: string }[];
}

/** What a format would keep, change and lose of a consignment, by kind. */
export async function lossTable(
	db: Database,
	courseId: number,
	what: Consignment,
	formatName: string,
	options: FitOptions = defaultFit
): Promise<LossLine[]> {
	const format = writtenFormat(formatName);
	const ids = await questionIdsOf(db, courseId, what);
	if (!format || !ids.length) return [];
	const lines = new Map<string, LossLine>();
	const found = await rows<{ id: number; title: string; document: string }>(
		db,
		'SELECT id, title, document FROM questions WHERE id IN (?) ORDER BY id',
		[ids]
	);
	for (const one of found) {
		const question = parseQuestion(JSON.parse(one.document));
		const loss = format.loss(question, options);
		const what = loss.what.join('; ');
		const key = `${question.kind}\n${loss.outcome}\n${what}`;
		if (!lines.has(key)) lines.set(key, { kind: question.kind, outcome: loss.outcome, what, questions: [] });
		lines.get(key)!.questions.push({ id: one.id, title: one.title });
	}
	const rank = { lost: 0, changed: 1, kept: 2 };
	return [...lines.values()].sort(
		(a, b) => rank[a.outcome] - rank[b.outcome] || b.questions.length - a.questions.length
	);
}

const safeName = (text: string) =>
	text
		.normalize('NFKD')
		.replace(/[^A-Za-z0-9]+/g, '-')
		.replace(/^-|-$/g, '')
		.toLowerCase()
		.slice(0, 60) || 'questions';

/** Puts a dispatch in the queue; gives its key, or null where there is nothing to send. */
export async function begin(
	pool: Pool,
	courseId: number,
	personId: number,
	what: Consignment,
	formatName: string,
	options: FitOptions = defaultFit
): Promise<number | null> {
	const format = writtenFormat(formatName);
	const [bankId, quizId] = 'bankId' in what ? [what.bankId, null] : [null, what.quizId];
	const named = await row<{ title: string }>(
		pool,
		bankId === null
			? 'SELECT title FROM quizzes WHERE id = ? AND course_id = ?'
			: 'SELECT name AS title FROM banks WHERE id = ? AND course_id = ?',
		[bankId ?? quizId, courseId]
	);
	const ids = await questionIdsOf(pool, courseId, what);
	if (!format || !named || !ids.length) return null;
	return transaction(pool, async (connection) => {
		const { id } = await run(
			connection,
			'INSERT INTO dispatches (course_id, person_id, bank_id, quiz_id, title, format, worked_out, file_name, total) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?)',
			[
				courseId,
				personId,
				bankId,
				quizId,
				named.title,
				formatName,
				options.workedOut,
				`${safeName(named.title)}-${ids.length}${format.ending}`,
				ids.length
			]
		);
		await enqueue(connection, 'dispatch', id);
		return id;
	});
}

const columns =
	'd.id, d.title, d.format, d.state, d.file_id, d.file_name, d.done, d.total, d.failure, d.created, d.proof, p.name AS person';
const parsed = (one: Omit<Dispatch, 'proof'> & { proof: string | null }): Dispatch => ({
	...one,
	proof: one.proof ? (JSON.parse(one.proof) as Proof) : null
});

/** The dispatches of a course, the newest first. */
export async function dispatchesOf(db: Database, courseId: number): Promise<Dispatch[]> {
	return (
		await rows<Omit<Dispatch, 'proof'> & { proof: string | null }>(
			db,
			`SELECT ${columns} FROM dispatches d JOIN people p ON p.id = d.person_id WHERE d.course_id = ? ORDER BY d.id DESC LIMIT 50`,
			[courseId]
		)
	).map(parsed);
}

/** One dispatch of a course. */
export async function dispatchOf(db: Database, courseId: number, dispatchId: number): Promise<Dispatch | undefined> {
	const found = await row<Omit<Dispatch, 'proof'> & { proof: string | null }>(
		db,
		`SELECT ${columns} FROM dispatches d JOIN people p ON p.id = d.person_id WHERE d.course_id = ? AND d.id = ?`,
		[courseId, dispatchId]
	);
	return found && parsed(found);
}
