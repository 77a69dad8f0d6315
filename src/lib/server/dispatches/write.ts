import { createHash } from 'node:crypto';
import type { Pool, PoolConnection } from 'mysql2/promise';
import { hashAttachments } from '../../../../core/formats/hash';
import { proofLine } from '../../../../core/compare/proof';
import type { FitOptions } from '../../../../core/formats/fit/fit';
import { openContainer } from '../../../../core/formats/open';
import { writtenFormat } from '../../../../core/formats';
import type { Format } from '../../../../core/formats/format';
import type { QuizToWrite } from '../../../../core/model/quiz';
import type { Loss } from '../../../../core/compare/loss';
import { readPackage } from '../../../../core/formats/package/read';
import type { Question } from '../../../../core/kinds';
import type { FoundQuiz } from '../../../../core/model/quiz';
import { parseQuestion } from '../../../../core/kinds/schema';
import { pathOfKey } from '../../../../core/take-in/paths';
import { categoryTree } from '../banks/tree';
import { row, rows, run, transaction, type Database } from '../db/pool';
import { fileByHash, fileChunks, fileSource, storeFile, type StoredFile } from '../files/files';
import { placesOfFitted, proveQuizzes } from '../../../../core/compare/quizzes';
import { fitQuizzes } from '../../../../core/formats/fit/quizzes';
import { QuestionPlaces } from '../../../../core/formats/question-places';
import { codec } from '../files/codec';
import { Stopped, type Control } from '../jobs/control';
import { record } from '../ledger/ledger';
import { questionIdsOf, quizToWrite, type Consignment, type Proof } from './dispatches';

const batch = 400;
const mostLines = 2000;

interface DispatchRow {
	course_id: number;
	person_id: number;
	bank_id: number | null;
	quiz_id: number | null;
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
				const one = byId.get(id);
				if (!one) throw new Error('A question was taken out of the bank while it was being written. Write it again.');
				return {
					...parseQuestion(JSON.parse(one.document)),
					category: one.category_id === null ? [] : (paths.get(one.category_id) ?? [])
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
		'SELECT course_id, person_id, bank_id, quiz_id, title, format, worked_out, state, total FROM dispatches WHERE id = ?',
		[dispatchId]
	);
	const format = dispatch && writtenFormat(dispatch.format);
	// a job that is done again, since its process went down right after the proof, has nothing left to do
	if (!dispatch || !format || !['waiting', 'writing', 'proving'].includes(dispatch.state)) return;
	const what: Consignment = dispatch.bank_id === null ? { quizId: dispatch.quiz_id! } : { bankId: dispatch.bank_id };
	const ids = await questionIdsOf(snapshot, dispatch.course_id, what);
	const gone = goneSince(dispatch.total, ids.length);
	if (gone) {
		await run(pool, "UPDATE dispatches SET state = 'failed', failure = ? WHERE id = ?", [gone, dispatchId]);
		return;
	}
	const banks = await rows<{ id: number }>(snapshot, 'SELECT DISTINCT bank_id AS id FROM questions WHERE id IN (?)', [
		ids.length ? ids : [0]
	]);
	const trees = (await Promise.all(banks.map((bank) => categoryTree(snapshot, bank.id)))).flat();
	const paths = new Map(trees.map((node) => [node.id, pathOfKey(node.key)]));
	const quizzes = 'quizId' in what ? await quizToWrite(snapshot, dispatch.course_id, what.quizId, ids) : [];
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
		const proof = await prove(pool, file, format, options, ids, asker(snapshot, ids, paths), quizzes, (count) => {
			control.check();
			tell(count);
		});
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
	} catch (error) {
		if (error instanceof Stopped)
			await run(pool, "UPDATE dispatches SET state = 'stopped', file_id = NULL WHERE id = ?", [dispatchId]);
		throw error;
	}
}

function teller(pool: Pool, dispatchId: number): (count: number) => void {
	let told = 0;
	return (count) => {
		if (Date.now() - told < 400) return;
		told = Date.now();
		void run(pool, 'UPDATE dispatches SET done = ? WHERE id = ?', [count, dispatchId]).catch(() => undefined);
	};
}

async function prove(
	pool: Pool,
	file: StoredFile,
	format: Format,
	options: FitOptions,
	ids: number[],
	ask: (at: number) => Promise<Question>,
	quizzes: QuizToWrite[],
	told: (count: number) => void
): Promise<Proof> {
	const container = await openContainer(`dispatch${format.ending}`, fileSource(pool, file.id, file.size), codec);
	const hashes = new Map<string, string | null>();
	const digest = async (pieces: AsyncIterable<Uint8Array>) => {
		const hash = createHash('sha256');
		for await (const piece of pieces) hash.update(piece);
		return hash.digest('hex');
	};
	const proof: Proof = {
		inAll: ids.length,
		leftBehind: 0,
		sent: 0,
		foundInFile: 0,
		identical: 0,
		foretold: 0,
		otherwise: 0,
		missing: 0,
		lines: [],
		quiz: [],
		hash: file.hash,
		size: file.size
	};
	const note = (at: number, title: string, outcome: string, words: string[]) => {
		if (proof.lines.length < mostLines) proof.lines.push({ title, questionId: ids[at]!, outcome, what: words });
	};
	const order = format.order?.(ids.length, quizzes) ?? [...ids.keys()];
	/** The place in the order of the file of what comes next. */
	let place = 0;
	interface Sent {
		at: number;
		question: Question;
		loss: Loss;
		which: number;
	}
	let current: Sent | null = null;
	/** The next question that was to be written; those that the format cannot hold are counted as left behind. */
	const next = async (): Promise<Sent | null> => {
		if (current && current.which + 1 < current.loss.fitted.length)
			return (current = { ...current, which: current.which + 1 });
		for (; place < order.length; place += 1) {
			const at = order[place]!;
			const question = await ask(at);
			const loss = format.loss(question, options);
			counts[at] = loss.fitted.length;
			if (loss.outcome !== 'lost') {
				place += 1;
				return (current = { at, question, loss, which: 0 });
			}
			proof.leftBehind += 1;
			note(at, question.title, 'left behind', loss.what);
		}
		return null;
	};
	const quizzesBack: FoundQuiz[] = [];
	const places = new QuestionPlaces();
	const counts: number[] = new Array<number>(ids.length).fill(0);
	for await (const event of readPackage(container, codec)) {
		if (event.type === 'quiz') quizzesBack.push(event.quiz);
		if (event.type !== 'question') continue;
		proof.foundInFile += 1;
		places.add(event.question);
		const sent = await next();
		if (!sent) {
			proof.otherwise += 1;
			continue;
		}
		await hashAttachments(event.question, container, digest, hashes);
		const { loss, which } = sent;
		const line = proofLine(sent.at, sent.question, event.question, loss, which);
		proof.sent += 1;
		if (line.outcome === 'identical') proof.identical += 1;
		else {
			if (line.outcome === 'changed-as-foretold') proof.foretold += 1;
			else proof.otherwise += 1;
			note(
				sent.at,
				sent.question.title,
				line.outcome === 'changed-as-foretold' ? 'changed as foretold' : 'changed otherwise',
				line.outcome === 'changed-as-foretold'
					? loss.what
					: line.differences.map(
							({ field, before, after }) => `${field}: ${before.slice(0, 200)} became ${after.slice(0, 200)}`
						)
			);
		}
		told(place);
	}
	for (let sent = await next(); sent; sent = await next()) {
		proof.sent += 1;
		proof.missing += 1;
		note(sent.at, sent.question.title, 'missing', []);
	}
	const fitted = fitQuizzes(quizzes, format.quizLimits, (at) => counts[at] ?? 0);
	const found = proveQuizzes(fitted, quizzesBack, {
		sent: placesOfFitted(counts, order),
		found: (one) => places.find(one)
	});
	proof.quiz = found.otherwise;
	proof.quizForetold = found.foretold;
	proof.quizzesSent = found.sent;
	proof.quizzesLeftBehind = found.leftBehind;
	return proof;
}
