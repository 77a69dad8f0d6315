import type { Pool, PoolConnection } from 'mysql2/promise';
import type { FitOptions } from '$core/formats/fit/fit';
import { openContainer } from '$core/formats/open';
import { writtenFormat } from '$core/formats';
import type { Question } from '$core/kinds';
import { called } from '$core/kinds/called';
import { parseQuestion } from '$core/kinds/schema';
import { pathOfKey } from '$core/take-in/paths';
import { keptTrees } from '../banks/tree';
import { row, rows, run, transaction, type Database } from '../db/pool';
import { fileByHash, fileChunks, fileSource, storeFile, type StoredFile } from '../files/files';
import { proveFile, type ProvedQuestion, type Sent } from '$core/formats/prove';
import { codec } from '../files/codec';
import { digest } from '../files/digest';
import { Stopped, type Control } from '../jobs/control';
import { record } from '../ledger/ledger';
import { consignmentOf, questionIdsOf, type Consignment, type ConsignmentColumns } from './consignment';
import type { Proof } from './dispatches';
import { quizzesToWrite } from './quiz-to-write';

const batch = 400;
const mostLines = 2000;

interface DispatchRow extends ConsignmentColumns {
	course_id: number;
	person_id: number;
	title: string;
	format: string;
	worked_out: number;
	state: string;
	/** How many questions were chosen when it was asked for. */
	total: number;
}

/** Gives the questions of a list one after the other, read from the database in batches, each with its category as its bank has it. */
function asker(db: Database, ids: number[], paths: Map<number, string[]>): (at: number) => Promise<Question> {
	let from = 0;
	let held: Question[] = [];
	return async (at) => {
		if (at < from || at >= from + held.length) {
			from = at;
			const found = await rows<{ id: number; category_id: number | null; document: string }>(
				db,
				'SELECT id, category_id, document FROM questions WHERE id IN (?)',
				[ids.slice(at, at + batch)]
			);
			const byId = new Map(found.map((one) => [one.id, one]));
			held = ids.slice(at, at + batch).map((id) => {
				const stored = byId.get(id);
				if (!stored)
					throw new Error('A question was taken out of the bank while it was being written. Write it again.');
				return {
					...parseQuestion(JSON.parse(stored.document)),
					category: stored.category_id === null ? [] : (paths.get(stored.category_id) ?? [])
				};
			});
		}
		return held[at - from]!;
	};
}

/**
 * Writes a dispatch as a file, reads that file back, and holds each question against what was sent. What is written is
 * the course as it is at the moment in which this begins, whatever is changed meanwhile; where some of what was chosen
 * is gone by then, it fails and says so. Throws Stopped.
 */
export async function writeDispatch(pool: Pool, dispatchId: number, control: Control): Promise<void> {
	const snapshot = await pool.getConnection();
	try {
		await snapshot.query('SET TRANSACTION ISOLATION LEVEL REPEATABLE READ');
		await snapshot.query('START TRANSACTION WITH CONSISTENT SNAPSHOT, READ ONLY');
		await writeSnapshot(pool, snapshot, dispatchId, control);
	} finally {
		await snapshot.rollback().catch(() => undefined);
		snapshot.release();
	}
}

/** What is gone of what was chosen, in a sentence; null where nothing is. */
function goneSince(chosen: number, left: number): string | null {
	if (left >= chosen && left > 0) return null;
	return left === 0
		? 'All that was chosen is gone from the course: a load was taken back, or the questions were taken out. Nothing was written; choose anew.'
		: `${chosen - left} of the ${chosen} questions that were chosen are gone from the course since. Nothing was written; look at what is there, and write it anew.`;
}

async function writeSnapshot(
	pool: Pool,
	snapshot: PoolConnection,
	dispatchId: number,
	control: Control
): Promise<void> {
	const dispatch = await row<DispatchRow>(
		pool,
		'SELECT course_id, person_id, bank_id, quiz_id, selection_id, forms_id, title, format, worked_out, state, total FROM dispatches WHERE id = ?',
		[dispatchId]
	);
	const format = dispatch && writtenFormat(dispatch.format);
	// a job that is done again, since its process went down right after the proof, has nothing left to do
	if (!dispatch || !format || !['waiting', 'writing', 'proving'].includes(dispatch.state)) return;
	const what = consignmentOf(dispatch);
	const ids = what ? await questionIdsOf(snapshot, dispatch.course_id, what) : [];
	const gone = goneSince(dispatch.total, ids.length);
	if (gone || !what) {
		await run(pool, "UPDATE dispatches SET state = 'failed', failure = ? WHERE id = ?", [gone, dispatchId]);
		return;
	}
	const { paths, order } = await pathsOf(snapshot, ids, what);
	const quizzes = await quizzesToWrite(snapshot, dispatch.course_id, what, ids);
	const options: FitOptions = { workedOut: dispatch.worked_out };
	await run(pool, "UPDATE dispatches SET state = 'writing', done = 0, total = ?, failure = '' WHERE id = ?", [
		ids.length,
		dispatchId
	]);

	const tell = teller(pool, dispatchId);
	const stream = format.write(
		{
			identifier: `YB-${dispatchId}`,
			title: dispatch.title,
			count: ids.length,
			question: asker(snapshot, ids, paths),
			quizzes,
			categories: order,
			options,
			codec,
			media: async function* (hash) {
				const file = await fileByHash(pool, hash);
				if (file) yield* fileChunks(pool, file.id);
			}
		},
		(count) => {
			control.check();
			tell(count);
		}
	);
	try {
		const file = await storeFile(pool, stream);
		await run(pool, "UPDATE dispatches SET state = 'proving', done = 0, file_id = ? WHERE id = ?", [
			file.id,
			dispatchId
		]);
		const question = asker(snapshot, ids, paths);
		const sent: Sent = { format, options, count: ids.length, question, quizzes };
		const proof = await prove(pool, file, sent, ids, (count) => {
			control.check();
			tell(count);
		});
		await end(pool, dispatchId, dispatch, proof);
	} catch (error) {
		if (error instanceof Stopped)
			await run(pool, "UPDATE dispatches SET state = 'stopped', file_id = NULL WHERE id = ?", [dispatchId]);
		throw error;
	}
}

/** The paths of the categories of the banks that questions stand in, by their keys; of a bank that is sent as a whole, all in their order. */
async function pathsOf(
	snapshot: PoolConnection,
	ids: number[],
	what: Consignment
): Promise<{ paths: Map<number, string[]>; order: string[][] }> {
	const banks = await rows<{ id: number }>(snapshot, 'SELECT DISTINCT bank_id AS id FROM questions WHERE id IN (?)', [
		ids.length ? ids : [0]
	]);
	const trees = await keptTrees(
		snapshot,
		banks.map(({ id }) => id),
		{ places: [], snags: [] }
	);
	return {
		paths: new Map([...trees.values()].flat().map((node) => [node.id, pathOfKey(node.key)])),
		order: 'bankId' in what ? (trees.get(what.bankId) ?? []).map((node) => pathOfKey(node.key)) : []
	};
}

/** Notes that a dispatch is written and proved. */
async function end(pool: Pool, dispatchId: number, dispatch: DispatchRow, proof: Proof): Promise<void> {
	await transaction(pool, async (connection) => {
		await run(connection, "UPDATE dispatches SET state = 'done', done = total, proof = ? WHERE id = ?", [
			JSON.stringify(proof),
			dispatchId
		]);
		await record(connection, {
			courseId: dispatch.course_id,
			personId: dispatch.person_id,
			deed: 'dispatched',
			subject: dispatch.title,
			questions: proof.sent,
			address: `/courses/${dispatch.course_id}/dispatch?show=${dispatchId}`
		});
	});
}

function teller(pool: Pool, dispatchId: number): (count: number) => void {
	let told = 0;
	return (count) => {
		if (Date.now() - told < 400) return;
		told = Date.now();
		void run(pool, 'UPDATE dispatches SET done = ? WHERE id = ?', [count, dispatchId]).catch(() => undefined);
	};
}

const outcomes = {
	'left-behind': 'left behind',
	'changed-as-foretold': 'changed as foretold',
	'changed-otherwise': 'changed otherwise',
	missing: 'missing'
};

/** What is not identical of a question, for people. */
function whatOf({ outcome, loss, differences }: ProvedQuestion): string[] {
	if (outcome === 'missing') return [];
	if (outcome !== 'changed-otherwise') return loss.what;
	return differences.map(
		({ field, before, after }) => `${field}: ${before.slice(0, 200)} became ${after.slice(0, 200)}`
	);
}

async function prove(
	pool: Pool,
	file: StoredFile,
	sent: Sent,
	ids: number[],
	told: (count: number) => void
): Promise<Proof> {
	const container = await openContainer(`dispatch${sent.format.ending}`, fileSource(pool, file.id, file.size), codec);
	const lines: Proof['lines'] = [];
	const { found, quizzes, ...counts } = await proveFile(
		{ container, codec, digest },
		sent,
		(proved) => {
			if (proved.outcome === 'identical' || lines.length >= mostLines) return;
			const { at, question, outcome } = proved;
			lines.push({ title: called(question), questionId: ids[at]!, outcome: outcomes[outcome], what: whatOf(proved) });
		},
		told
	);
	return {
		...counts,
		inAll: ids.length,
		foundInFile: found,
		lines,
		quiz: quizzes.otherwise,
		quizForetold: quizzes.foretold,
		quizzesSent: quizzes.sent,
		quizzesLeftBehind: quizzes.leftBehind,
		hash: file.hash,
		size: file.size
	};
}
