import type { Pool } from 'mysql2/promise';
import { rows, run, transaction } from '../db/pool';
import { record } from '../ledger/ledger';
import { Refused } from '../loads/refused';
import { stageAgain } from '../questions/staged';
import { removeQuestions } from '../questions/remove';

interface Twin {
	id: number;
	title: string;
	staged_id: number | null;
	file_name: string | null;
	used: number;
	verified: number;
}

/** What keeping one of several has done. */
export interface KeptOne {
	/** The question that stays, and how many others were set aside. */
	kept: { id: number; title: string };
	aside: number;
}

/**
 * Keeps one of the questions that say the same as `questionId`, itself among them: the one that is used in a quiz, else
 * one whose key is verified, else the oldest. The others are set aside, from where they can be taken in again; quizzes that
 * name one of them name the one that stays. Throws Refused where there is no other, or where one came with no load.
 */
export async function keepOne(pool: Pool, courseId: number, personId: number, questionId: number): Promise<KeptOne> {
	return transaction(pool, async (connection) => {
		// by_fingerprint
		const twins = await rows<Twin>(
			connection,
			`SELECT q.id, q.title, q.staged_id, l.file_name, EXISTS (SELECT 1 FROM quiz_part_questions u WHERE u.question_id = q.id) AS used, q.verified IS NOT NULL AS verified
			FROM questions q LEFT JOIN loads l ON l.id = q.load_id WHERE q.course_id = ? AND q.fingerprint = (SELECT fingerprint FROM questions WHERE id = ? AND course_id = ?) ORDER BY used DESC, verified DESC, q.id FOR UPDATE`,
			[courseId, questionId, courseId]
		);
		const [kept, ...others] = twins;
		if (!kept || !others.length) throw new Refused('There is no other question that says the same any more.');
		const loose = others.find((one) => one.staged_id === null || one.file_name === null);
		if (loose)
			throw new Refused(
				`“${loose.title}” belongs to no load any more, so it has no place where it could be set aside. Nothing was changed.`
			);
		const ids = others.map((one) => one.id);
		await stageAgain(connection, ids);
		await run(connection, 'UPDATE IGNORE quiz_part_questions SET question_id = ? WHERE question_id IN (?)', [
			kept.id,
			ids
		]);
		await removeQuestions(connection, courseId, ids);
		await record(connection, {
			courseId,
			personId,
			deed: 'set aside',
			subject: `repeats of “${kept.title}”`.slice(0, 255),
			questions: ids.length,
			address: `/courses/${courseId}/loads/aside`
		});
		return { kept: { id: kept.id, title: kept.title }, aside: ids.length };
	});
}
