import type { Pool } from 'mysql2/promise';
import type { Question } from '$core/kinds';
import { called } from '$core/kinds/called';
import { parseQuestion } from '$core/kinds/schema';
import { withKeyMarked } from '$core/scoring/keys';
import { beginDeed, endDeed, type Done } from '../changes/deed';
import { bankOf } from '../banks/change';
import { row, transaction } from '../db/pool';
import { Refused } from '../loads/refused';
import { cleanEdited, ownFiles } from './edited';
import { insertQuestions, lockedQuestions, saveQuestions } from './save';

/** What somebody wrote was not kept, since another had changed the question meanwhile: both are shown. */
export interface Clash {
	clash: true;
	/** What the question says now, its version, and who wrote that. */
	now: Question;
	version: number;
	by: string | null;
}

/**
 * Writes one question anew, as somebody has edited it by hand on top of a version. Where another has changed it since,
 * nothing is written and both are given. Throws Refused where it is not there any more, and ValidationError where what was
 * sent is no question.
 */
export async function editQuestion(
	pool: Pool,
	courseId: number,
	personId: number,
	questionId: number,
	version: number,
	value: unknown
): Promise<Done | Clash> {
	const edited = cleanEdited(value);
	return transaction(pool, async (connection) => {
		const [stored] = await lockedQuestions(connection, courseId, [questionId]);
		if (!stored) throw new Refused('This question is not in the course any more.');
		if (stored.version !== version) {
			const by = await row<{ name: string }>(
				connection,
				'SELECT p.name FROM questions q JOIN people p ON p.id = q.changed_by WHERE q.id = ?',
				[questionId]
			);
			return {
				clash: true,
				now: parseQuestion(JSON.parse(stored.document)),
				version: stored.version,
				by: by?.name ?? null
			};
		}
		const deedId = await beginDeed(connection, {
			courseId,
			personId,
			deed: 'edited',
			subject: called(edited),
			address: `/courses/${courseId}/banks?bank=${stored.bankId}&question=${questionId}`
		});
		const before = parseQuestion(JSON.parse(stored.document));
		const attachments = await ownFiles(connection, courseId, before, edited);
		const question = withKeyMarked(before, { ...edited, attachments, source: before.source });
		await saveQuestions(connection, courseId, [{ id: questionId, bankId: stored.bankId, question }], {
			deedId,
			personId
		});
		await endDeed(connection, deedId, 1);
		return { deedId, questions: 1, words: `“${called(edited)}” is kept.` };
	});
}

/** Makes a question by hand in a bank. Throws Refused where the bank is not there, and ValidationError where it is no question. */
export async function makeQuestion(
	pool: Pool,
	courseId: number,
	personId: number,
	to: { bankId: number; categoryId: number | null },
	value: unknown
): Promise<Done & { questionId: number }> {
	const edited = cleanEdited(value);
	return transaction(pool, async (connection) => {
		const question = { ...edited, attachments: await ownFiles(connection, courseId, null, edited), source: null };
		await bankOf(connection, courseId, to.bankId);
		if (
			to.categoryId !== null &&
			!(await row(connection, 'SELECT id FROM categories WHERE id = ? AND bank_id = ?', [to.categoryId, to.bankId]))
		)
			throw new Refused('There is no such category in that bank any more.');
		const deedId = await beginDeed(connection, { courseId, personId, deed: 'made', subject: called(question) });
		const [questionId] = await insertQuestions(connection, courseId, [{ ...to, question }], { deedId, personId });
		await endDeed(connection, deedId, 1);
		return { deedId, questions: 1, words: `“${called(question)}” is made.`, questionId: questionId! };
	});
}

/** Makes a question say again what an older version of it said, as a new version. */
export async function bringBackVersion(
	pool: Pool,
	courseId: number,
	personId: number,
	questionId: number,
	version: number
): Promise<Done> {
	return transaction(pool, async (connection) => {
		const [stored] = await lockedQuestions(connection, courseId, [questionId]);
		// by_question
		const old = await row<{ document: string }>(
			connection,
			'SELECT document FROM question_versions WHERE question_id = ? AND version = ? ORDER BY id DESC LIMIT 1',
			[questionId, version]
		);
		if (!stored || !old) throw new Refused('There is no such version of this question.');
		const question = parseQuestion(JSON.parse(old.document));
		const deedId = await beginDeed(connection, {
			courseId,
			personId,
			deed: 'brought back a version of',
			subject: called(question),
			address: `/courses/${courseId}/banks?bank=${stored.bankId}&question=${questionId}`
		});
		await saveQuestions(connection, courseId, [{ id: questionId, bankId: stored.bankId, question }], {
			deedId,
			personId
		});
		await endDeed(connection, deedId, 1);
		return { deedId, questions: 1, words: `“${called(question)}” says again what version ${version} said.` };
	});
}
