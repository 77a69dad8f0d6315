import type { Pool, PoolConnection } from 'mysql2/promise';
import { checkOf } from '$core/checks';
import { mendFor } from '$core/checks/one';
import type { Question } from '$core/kinds';
import { parseQuestion } from '$core/kinds/schema';
import { groupsOf, membersOf } from '../checks/notes';
import { row, rows, transaction, type Database } from '../db/pool';
import { menderOfOne, type Mender } from '../files/mender';
import { beginDeed, endDeed } from '../changes/deed';
import { saveQuestions } from '../questions/save';
import { tellProgress } from '../threads/progress';
import { conditionOf, everySnag, type SnagFilter } from './filter';
import { snagsFound } from './list';
import { stillTwin } from './twins';

/** The questions that a rule speaks of in a course, of whom there are still others where it is about that. */
const spokenOf = `SELECT s.question_id FROM snags s JOIN questions q ON q.id = s.question_id WHERE s.course_id = ? AND s.rule = ? AND ${stillTwin}`;

/**
 * The mend of a check, for one question or for all that it speaks of; null where it has none. Files that it asks for are
 * stored where it is not `planned`: with `pool`, so that they are there whatever becomes of the transaction.
 */
async function menderOf(
	pool: Pool,
	db: Database,
	courseId: number,
	rule: string,
	questionId: number | null,
	planned = false
): Promise<Mender | null> {
	const check = checkOf(rule);
	if (check?.scope === 'one' && check.mend) return menderOfOne(pool, check.mend, planned);
	if (check?.scope !== 'many' || !check.mend) return null;
	const ids =
		questionId === null
			? (await rows<{ question_id: number }>(db, spokenOf, [courseId, rule])).map((found) => found.question_id)
			: [questionId];
	if (!ids.length) return null;
	const groups = (await groupsOf(db, ids)).filter((group) => group.rule === rule);
	const members = await membersOf(db, courseId, groups);
	const groupOf = new Map(members.flatMap(({ noted }) => noted.map((own) => [own.id, { own, noted }] as const)));
	return {
		apply: (id, question) => {
			const group = groupOf.get(id);
			return group ? check.mend!.apply(question, group.own, group.noted) : question;
		}
	};
}

/** How many questions the mend of the check that a filter names fits, of those that the filter finds. */
export async function mendableCount(pool: Pool, courseId: number, filter: SnagFilter): Promise<number> {
	const rule = filter.check ?? '';
	const check = checkOf(rule);
	if (!check || !('mend' in check) || !check.mend) return 0;
	if (check.scope === 'many' || !check.mend.fits) return snagsFound(pool, courseId, filter);
	const { from, sql, parameters } = await conditionOf(pool, courseId, filter);
	const documents = await rows<{ id: number; loadId: number | null; document: string }>(
		pool,
		`SELECT id, load_id AS loadId, document FROM questions WHERE id IN (SELECT s.question_id FROM ${from} WHERE ${sql})`,
		parameters
	);
	const questions = documents
		.map(({ document, ...standing }) => ({ ...standing, question: parseQuestion(JSON.parse(document)) }))
		.filter(({ question }) => mendFor(rule, question));
	if (!check.mend.wishes) return questions.length;
	// files are not there for all that ask for some
	const mender = await menderOf(pool, pool, courseId, rule, null, true);
	await mender?.prepare?.(questions);
	return questions.filter(({ id, question }) => mender && mender.apply(id, question) !== question).length;
}

interface StoredRow {
	id: number;
	bankId: number;
	loadId: number | null;
	document: string;
	version: number;
}

/** What a mend has done. */
export interface Mended {
	mended: number;
	/** Questions for which it could change nothing. */
	left: number;
	/** The deed, by which it is taken back, where something was changed. */
	deedId?: number;
}

const batch = 300;

/** Hears how far work on many snags is, and of what came of it in the transaction in which that is done. */
export interface Hearing<Result> {
	told: (done: number, total: number) => void;
	ended?: (connection: PoolConnection, result: Result) => Promise<void>;
}

/**
 * Mends by a check: one question, or where none is named all that it speaks of and `within` finds. Mended questions are
 * checked again, in the same transaction. `version` guards one question against a change that was made in between.
 */
export async function mend(
	pool: Pool,
	courseId: number,
	personId: number,
	rule: string,
	questionId: number | null,
	version: number | null,
	within: SnagFilter = everySnag,
	{ told, ended }: Hearing<Mended> = { told: tellProgress }
): Promise<Mended | 'changed'> {
	return transaction(pool, async (connection) => {
		const done: Mended = { mended: 0, left: 0 };
		const filter = { ...within, check: rule, question: questionId ?? within.question };
		const { from, sql, parameters } = await conditionOf(connection, courseId, filter);
		const total = questionId === null ? await snagsFound(connection, courseId, filter) : 1;
		const mender = await menderOf(pool, connection, courseId, rule, questionId);
		if (!mender) return done;
		const deedId = await beginDeed(connection, {
			courseId,
			personId,
			deed: 'mended',
			subject: checkOf(rule)!.title,
			address: `/courses/${courseId}/snags?check=${rule}`
		});
		for (let last = 0; ;) {
			// a batch at a time, by key
			const found = await rows<StoredRow>(
				connection,
				`SELECT id, bank_id AS bankId, load_id AS loadId, document, version FROM questions WHERE course_id = ? AND id > ? AND id IN (SELECT s.question_id FROM ${from} WHERE ${sql}) ORDER BY id LIMIT ${batch} FOR UPDATE`,
				[courseId, last, ...parameters]
			);
			told(done.mended + done.left, total);
			if (!found.length) break;
			last = found.at(-1)!.id;
			if (version !== null && found[0]!.version !== version) {
				await endDeed(connection, deedId, 0);
				return 'changed';
			}
			const read = found.map(({ document, ...standing }) => ({
				...standing,
				question: parseQuestion(JSON.parse(document))
			}));
			await mender.prepare?.(read);
			const changed = read.flatMap(({ id, bankId, question: before }) => {
				const question = mender.apply(id, before);
				const same = JSON.stringify(question) === JSON.stringify(before);
				if (same) done.left += 1;
				return same ? [] : [{ id, bankId, question }];
			});
			done.mended += changed.length;
			await saveQuestions(connection, courseId, changed, { deedId, personId });
		}
		await endDeed(connection, deedId, done.mended);
		if (done.mended) done.deedId = deedId;
		await ended?.(connection, done);
		return done;
	});
}

/** A question before and after the mend of a check, or null where it has none. */
export async function mendPreview(
	pool: Pool,
	courseId: number,
	rule: string,
	questionId: number
): Promise<{ before: Question; after: Question; version: number } | null> {
	const found = await row<{ document: string; version: number; loadId: number | null }>(
		pool,
		'SELECT document, version, load_id AS loadId FROM questions WHERE id = ? AND course_id = ?',
		[questionId, courseId]
	);
	const mender = found && (await menderOf(pool, pool, courseId, rule, questionId, true));
	if (!mender) return null;
	const before = parseQuestion(JSON.parse(found.document));
	await mender.prepare?.([{ id: questionId, question: before, loadId: found.loadId }]);
	return { before, after: mender.apply(questionId, before), version: found.version };
}
