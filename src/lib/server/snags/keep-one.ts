import type { Pool, PoolConnection } from 'mysql2/promise';
import { takenOver } from '$core/checks/take-over';
import { parseQuestion } from '$core/kinds/schema';
import { binPlace } from '../changes/bin';
import { beginDeed, endDeed } from '../changes/deed';
import { placeQuestions } from '../changes/place';
import { rows, run, transaction } from '../db/pool';
import { Refused } from '../loads/refused';
import { saveQuestions } from '../questions/save';
import { twinsOf } from './twins';

interface Twin {
	id: number;
	bankId: number;
	categoryId: number | null;
	title: string;
	document: string;
	used: number;
	verified: number;
}

/** What keeping one of several has done. */
export interface KeptOne {
	/** The question that stays, and how many others are in the bin. */
	kept: { id: number; title: string };
	gone: number;
	deedId: number;
}

/** Puts questions in the bin and has the quizzes that name them name another instead. */
async function giveWay(
	connection: PoolConnection,
	courseId: number,
	keptId: number,
	ids: readonly number[],
	by: { deedId: number; personId: number }
): Promise<void> {
	await run(connection, 'UPDATE IGNORE quiz_part_questions SET question_id = ? WHERE question_id IN (?)', [
		keptId,
		ids
	]);
	const bin = await binPlace(connection, courseId);
	await placeQuestions(
		connection,
		courseId,
		bin.courseId,
		ids.map((id) => ({ id, bankId: bin.bankId, categoryId: null })),
		by
	);
}

async function locked(connection: PoolConnection, courseId: number, ids: readonly number[]): Promise<Twin[]> {
	return rows<Twin>(
		connection,
		`SELECT q.id, q.bank_id AS bankId, q.category_id AS categoryId, q.title, q.document, EXISTS (SELECT 1 FROM quiz_part_questions u WHERE u.question_id = q.id) AS used, q.verified IS NOT NULL AS verified
		FROM questions q WHERE q.course_id = ? AND q.id IN (?) ORDER BY used DESC, verified DESC, q.id FOR UPDATE`,
		[courseId, ids]
	);
}

/** Keeps the first of some questions and puts the others in the bin; what it lacks of them it takes over. */
async function keepFirst(
	connection: PoolConnection,
	courseId: number,
	personId: number,
	[kept, ...others]: [Twin, ...Twin[]]
): Promise<KeptOne> {
	const deedId = await beginDeed(connection, {
		courseId,
		personId,
		deed: 'kept one of',
		subject: `the repeats of “${kept.title}”`,
		address: `/courses/${courseId}/banks?bank=${kept.bankId}&question=${kept.id}`
	});
	const by = { deedId, personId };
	const [before, ...rest] = [kept, ...others].map(({ document }) => parseQuestion(JSON.parse(document)));
	const question = takenOver(before!, rest);
	if (JSON.stringify(question) !== JSON.stringify(before))
		await saveQuestions(connection, courseId, [{ id: kept.id, bankId: kept.bankId, question }], {
			...by,
			keepsKey: true
		});
	const placed = others.find(({ categoryId, bankId }) => categoryId !== null && bankId === kept.bankId);
	if (kept.categoryId === null && placed)
		await placeQuestions(
			connection,
			courseId,
			courseId,
			[{ id: kept.id, bankId: kept.bankId, categoryId: placed.categoryId }],
			by
		);
	await giveWay(
		connection,
		courseId,
		kept.id,
		others.map(({ id }) => id),
		by
	);
	await endDeed(connection, deedId, others.length);
	return { kept: { id: kept.id, title: kept.title }, gone: others.length, deedId };
}

/**
 * Keeps one of the questions that ask the same as `questionId`, itself among them: the one that is used in a quiz, else
 * one whose key is verified, else the oldest. It takes over what it lacks of the others; these go to the bin, and quizzes
 * that named one of them name the one that stays. Throws Refused where there is no other.
 */
export async function keepOne(pool: Pool, courseId: number, personId: number, questionId: number): Promise<KeptOne> {
	return transaction(pool, async (connection) => {
		// by_group, or by_fingerprint
		const found = await rows<{ id: number }>(connection, `SELECT id FROM ${twinsOf} t`, [[questionId], [questionId]]);
		const twins = await locked(connection, courseId, [questionId, ...found.map(({ id }) => id)]);
		if (twins.length < 2) throw new Refused('There is no other question that says the same any more.');
		return keepFirst(connection, courseId, personId, twins as [Twin, ...Twin[]]);
	});
}

/** Keeps one of two questions that are nearly the same, and puts the other in the bin. Throws Refused where one is gone. */
export async function keepThis(
	pool: Pool,
	courseId: number,
	personId: number,
	keptId: number,
	otherId: number
): Promise<KeptOne> {
	return transaction(pool, async (connection) => {
		const both = await locked(connection, courseId, [keptId, otherId]);
		const kept = both.find(({ id }) => id === keptId);
		const other = both.find(({ id }) => id === otherId);
		if (!kept || !other) throw new Refused('One of the two is gone already. Look at what is there.');
		return keepFirst(connection, courseId, personId, [kept, other]);
	});
}
