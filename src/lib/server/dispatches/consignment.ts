import { rows, row, type Database } from '../db/pool';
import { poolOf } from '$core/draws/pool';
import { poolSource } from '../quizzes/pools';
import { quizOf } from '../quizzes/quiz';

/** What is sent: a whole bank, a quiz with the questions of its pools, or questions that were selected in a bank. */
export type Consignment = { bankId: number } | { quizId: number } | { selectionId: number };

/** A consignment as tables name it: one of the three is there. */
export interface ConsignmentColumns {
	bank_id: number | null;
	quiz_id: number | null;
	selection_id: number | null;
}

/** The columns of a consignment, in the order bank_id, quiz_id, selection_id. */
export function consignmentKeys(what: Consignment): [number | null, number | null, number | null] {
	return [
		'bankId' in what ? what.bankId : null,
		'quizId' in what ? what.quizId : null,
		'selectionId' in what ? what.selectionId : null
	];
}

/** The consignment that columns name; null where what was sent is gone. */
export function consignmentOf({ bank_id, quiz_id, selection_id }: ConsignmentColumns): Consignment | null {
	if (bank_id !== null) return { bankId: bank_id };
	if (quiz_id !== null) return { quizId: quiz_id };
	return selection_id === null ? null : { selectionId: selection_id };
}

/** What a consignment is called; undefined where the course has none such. */
export async function titleOf(db: Database, courseId: number, what: Consignment): Promise<string | undefined> {
	const [sql, id] =
		'bankId' in what
			? ['SELECT name AS title FROM banks WHERE id = ? AND course_id = ?', what.bankId]
			: 'quizId' in what
				? ['SELECT title FROM quizzes WHERE id = ? AND course_id = ?', what.quizId]
				: ['SELECT title FROM selections WHERE id = ? AND course_id = ?', what.selectionId];
	return (await row<{ title: string }>(db, String(sql), [id, courseId]))?.title;
}

/**
 * The keys of the questions of a consignment, in the order in which they are written: that of the bank, of the parts of
 * the quiz, or of the list in which they were selected.
 */
export async function questionIdsOf(db: Database, courseId: number, what: Consignment): Promise<number[]> {
	if ('quizId' in what) {
		const quiz = await quizOf(db, courseId, what.quizId);
		if (!quiz) return [];
		const source = await poolSource(db, courseId, quiz.parts);
		return [...new Set(quiz.parts.flatMap((part) => poolOf(part, source)))];
	}
	const [sql, id] =
		'bankId' in what
			? ['SELECT q.id FROM questions q WHERE q.course_id = ? AND q.bank_id = ? ORDER BY q.id', what.bankId]
			: [
					'SELECT q.id FROM selection_questions s JOIN questions q ON q.id = s.question_id AND q.course_id = ? WHERE s.selection_id = ? ORDER BY s.position',
					what.selectionId
				];
	return (await rows<{ id: number }>(db, String(sql), [courseId, id])).map((question) => question.id);
}
