import type { Pool } from 'mysql2/promise';
import { askToStop, enqueue } from '../jobs/jobs';
import { writtenFormat } from '$core/formats';
import { defaultFit, type FitOptions } from '$core/formats/fit/fit';
import { consignmentKeys, questionIdsOf, titleOf, type Consignment, type ConsignmentColumns } from './consignment';
import { row, rows, run, transaction, type Database } from '../db/pool';

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
	/** What differs in the quizzes themselves and was not foretold; empty where nothing does. */
	quiz: string[];
	/** What was foretold of them. */
	quizForetold?: string[];
	quizzesSent?: number;
	quizzesLeftBehind?: number;
	hash: string;
	size: number;
}

/** A dispatch as it is shown. */
export interface Dispatch extends ConsignmentColumns {
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
	const title = await titleOf(pool, courseId, what);
	const ids = await questionIdsOf(pool, courseId, what);
	if (!format || title === undefined || !ids.length) return null;
	return transaction(pool, async (connection) => {
		const { id } = await run(
			connection,
			'INSERT INTO dispatches (course_id, person_id, bank_id, quiz_id, selection_id, forms_id, title, format, worked_out, file_name, total) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)',
			[
				courseId,
				personId,
				...consignmentKeys(what),
				title,
				formatName,
				options.workedOut,
				`${safeName(title)}-${ids.length}${format.ending}`,
				ids.length
			]
		);
		await enqueue(connection, 'dispatch', id);
		return id;
	});
}

const columns =
	'd.id, d.bank_id, d.quiz_id, d.selection_id, d.forms_id, d.title, d.format, d.state, d.file_id, d.file_name, d.done, d.total, d.failure, d.created, d.proof, p.name AS person';
const parsed = (kept: Omit<Dispatch, 'proof'> & { proof: string | null }): Dispatch => ({
	...kept,
	proof: kept.proof ? (JSON.parse(kept.proof) as Proof) : null
});

/** So many questions that are not identical are shown of one dispatch. */
const mostShown = 100;

/** The dispatches of a course, the newest first, each with its proof in numbers; that of `shown`, or of the newest, names questions. */
export async function dispatchesOf(db: Database, courseId: number, shown: number | null = null): Promise<Dispatch[]> {
	return (
		await rows<Omit<Dispatch, 'proof'> & { proof: string | null }>(
			db,
			`SELECT ${columns} FROM dispatches d JOIN people p ON p.id = d.person_id WHERE d.course_id = ? ORDER BY d.id DESC LIMIT 50`,
			[courseId]
		)
	)
		.map(parsed)
		.map((dispatch, at) => {
			const lines = shown === null ? at === 0 : dispatch.id === shown;
			return dispatch.proof
				? { ...dispatch, proof: { ...dispatch.proof, lines: lines ? dispatch.proof.lines.slice(0, mostShown) : [] } }
				: dispatch;
		});
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

/** Asks for a dispatch of a course to stop. Gives false where it is over, or is none of that course. */
export async function stopDispatch(db: Database, courseId: number, dispatchId: number): Promise<boolean> {
	const found = await row(db, 'SELECT id FROM dispatches WHERE id = ? AND course_id = ?', [dispatchId, courseId]);
	return found !== undefined && askToStop(db, 'dispatch', dispatchId);
}
