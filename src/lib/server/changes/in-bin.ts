import type { Pool, PoolConnection } from 'mysql2/promise';
import type { Kind } from '$core/kinds';
import { removeQuestions } from '../questions/remove';
import { row, rows, run, transaction, type Database } from '../db/pool';
import { record } from '../ledger/ledger';
import { Refused } from '../loads/refused';
import { beginDeed, endDeed, type Done } from './deed';
import { placeQuestions, placeWithBank } from './place';
import { changeThings, imagesOf } from './things';
import { tellProgress } from '../threads/progress';
import { told } from '../told';

/** A question in the bin: where it stood, and who put it there when. */
export interface Binned {
	id: number;
	kind: Kind;
	title: string;
	bank: string | null;
	category: string | null;
	by: string | null;
	done: Date | null;
}

/** A bank in the bin with all that is in it. */
export interface BinnedBank {
	id: number;
	name: string;
	questions: number;
}

/** What is in the bin of a course. */
export interface InBin {
	questions: Binned[];
	/** How many single questions there are in all. */
	inAll: number;
	banks: BinnedBank[];
}

/** So many single questions of a bin are listed: those that went there last. */
const mostListed = 500;

/** The deed of `c` is the one that put the question `q` where it is now. */
const last =
	'c.question_id = q.id AND c.course_after = q.course_id AND c.deed_id = (SELECT MAX(x.deed_id) FROM changed_questions x WHERE x.question_id = q.id AND x.course_after = q.course_id)';

/** What is in the bin of a course. */
export async function inBin(db: Database, courseId: number): Promise<InBin> {
	// by_bin
	const bin = await row<{ id: number }>(db, 'SELECT id FROM courses WHERE bin_of = ?', [courseId]);
	if (!bin) return { questions: [], inAll: 0, banks: [] };
	const single = "FROM banks s JOIN questions q ON q.bank_id = s.id WHERE s.course_id = ? AND s.name = 'Questions'";
	const [questions, counted, banks] = await Promise.all([
		rows<Binned>(
			db,
			`SELECT q.id, q.kind, q.title, b.name AS bank, k.name AS category, p.name AS \`by\`, g.done
			FROM banks s JOIN questions q ON q.bank_id = s.id LEFT JOIN changed_questions c ON ${last} LEFT JOIN banks b ON b.id = c.bank_before LEFT JOIN categories k ON k.id = c.category_before
				LEFT JOIN ledger g ON g.id = c.deed_id LEFT JOIN people p ON p.id = g.person_id
			WHERE s.course_id = ? AND s.name = 'Questions' ORDER BY g.done DESC, q.id DESC LIMIT ${mostListed}`,
			[bin.id]
		),
		row<{ n: number }>(db, `SELECT COUNT(*) AS n ${single}`, [bin.id]),
		rows<BinnedBank>(
			db,
			"SELECT b.id, b.name, (SELECT COUNT(*) FROM questions q WHERE q.bank_id = b.id) AS questions FROM banks b WHERE b.course_id = ? AND b.name <> 'Questions' ORDER BY b.name",
			[bin.id]
		)
	]);
	return { questions, inAll: counted!.n, banks };
}

async function binOf(connection: PoolConnection, courseId: number): Promise<number> {
	const bin = await row<{ id: number }>(connection, 'SELECT id FROM courses WHERE bin_of = ?', [courseId]);
	if (!bin) throw new Refused('The bin of this course is empty.');
	return bin.id;
}

/** The bank where questions go back to whose own is gone. */
async function bankForLost(connection: PoolConnection, courseId: number, deedId: number): Promise<number> {
	const name = 'Put back';
	const known = await row<{ id: number }>(connection, 'SELECT id FROM banks WHERE course_id = ? AND name = ?', [
		courseId,
		name
	]);
	if (known) return known.id;
	const [made] = await changeThings(connection, deedId, 'bank', [], async () => [
		(await run(connection, 'INSERT INTO banks (course_id, name) VALUES (?, ?)', [courseId, name])).id
	]);
	return made!;
}

/**
 * Puts questions of the bin back where they stood; where their bank is gone they come to one that is called “Put back”,
 * where their category is, to the bank itself.
 */
export async function putBackFromBin(
	pool: Pool,
	courseId: number,
	personId: number,
	ids: readonly number[]
): Promise<Done> {
	return transaction(pool, async (connection) => {
		const bin = await binOf(connection, courseId);
		const found = await rows<{ id: number; bankId: number | null; categoryId: number | null }>(
			connection,
			`SELECT q.id, b.id AS bankId, k.id AS categoryId FROM questions q LEFT JOIN changed_questions c ON ${last} LEFT JOIN banks b ON b.id = c.bank_before AND b.course_id = ? LEFT JOIN categories k ON k.id = c.category_before AND k.bank_id = b.id
			WHERE q.course_id = ? AND q.id IN (?) ORDER BY q.id FOR UPDATE`,
			[courseId, bin, ids.length ? ids : [0]]
		);
		if (!found.length) throw new Refused('These questions are not in the bin any more.');
		const deedId = await beginDeed(connection, {
			courseId,
			personId,
			deed: 'put back from the bin',
			subject: 'chosen questions',
			address: `/courses/${courseId}/banks`
		});
		const lost = found.some(({ bankId }) => bankId === null) ? await bankForLost(connection, courseId, deedId) : 0;
		const questions = await placeQuestions(
			connection,
			bin,
			courseId,
			found.map(({ id, bankId, categoryId }) => ({
				id,
				bankId: bankId ?? lost,
				categoryId: bankId ? categoryId : null
			})),
			{ deedId, personId }
		);
		await endDeed(connection, deedId, questions);
		return {
			deedId,
			questions,
			words: `${told(questions)} ${questions === 1 ? 'is' : 'are'} back${lost ? ', some of them in the bank “Put back”' : ''}.`
		};
	});
}

/** Puts a bank of the bin back into its course, with all that is in it. */
export async function putBankBack(pool: Pool, courseId: number, personId: number, bankId: number): Promise<Done> {
	return transaction(pool, async (connection) => {
		const bin = await binOf(connection, courseId);
		const bank = (await imagesOf(connection, 'bank', [bankId])).get(bankId);
		if (bank?.course_id !== bin) throw new Refused('This bank is not in the bin any more.');
		const name = String(bank.name);
		if (await row(connection, 'SELECT id FROM banks WHERE course_id = ? AND name = ?', [courseId, name]))
			throw new Refused(`Another bank of the course is called “${name}” by now. Rename that one first.`);
		const deedId = await beginDeed(connection, {
			courseId,
			personId,
			deed: 'put the bank back',
			subject: name,
			address: `/courses/${courseId}/banks?bank=${bankId}`
		});
		await changeThings(connection, deedId, 'bank', [bankId], async () => {
			await run(connection, 'UPDATE banks SET course_id = ? WHERE id = ?', [courseId, bankId]);
			return undefined;
		});
		const questions = await placeWithBank(connection, bin, courseId, bankId, { deedId, personId });
		await endDeed(connection, deedId, questions);
		return { deedId, questions, words: `The bank “${name}” is back, with ${told(questions)}.` };
	});
}

const batch = 500;

/** Empties the bin of a course for good, and tells how far it is; gives how many questions are gone. There is no way back from that. */
export async function emptyBin(pool: Pool, courseId: number, personId: number): Promise<{ gone: number }> {
	return transaction(pool, async (connection) => {
		const bin = await binOf(connection, courseId);
		const ids = (
			await rows<{ id: number }>(connection, 'SELECT id FROM questions WHERE course_id = ? FOR UPDATE', [bin])
		).map(({ id }) => id);
		for (let at = 0; at < ids.length; at += batch) {
			tellProgress(at, ids.length);
			await removeQuestions(connection, bin, ids.slice(at, at + batch));
		}
		await run(connection, 'DELETE FROM banks WHERE course_id = ?', [bin]);
		await record(connection, {
			courseId,
			personId,
			deed: 'emptied the bin',
			subject: 'the bin',
			questions: ids.length
		});
		return { gone: ids.length };
	});
}
