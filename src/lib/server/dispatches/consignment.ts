import { rows, row, type Database } from '../db/pool';
import { poolOf } from '$core/draws/pool';
import { poolSource } from '../quizzes/pools';
import { formsById } from '../quizzes/forms';
import { quizOf } from '../quizzes/quiz';
import { told } from '../told';

/**
 * What is sent: a whole bank, a quiz with the questions of its pools, questions that were selected in a bank, or the forms
 * that were made of a quiz, each as a quiz that is fixed.
 */
export type Consignment = { bankId: number } | { quizId: number } | { selectionId: number } | { formsId: number };

/** A consignment as tables name it: one of the four is there. */
export interface ConsignmentColumns {
	bank_id: number | null;
	quiz_id: number | null;
	selection_id: number | null;
	forms_id: number | null;
}

/** The columns of a consignment, in the order bank_id, quiz_id, selection_id, forms_id. */
export function consignmentKeys(what: Consignment): (number | null)[] {
	return [
		'bankId' in what ? what.bankId : null,
		'quizId' in what ? what.quizId : null,
		'selectionId' in what ? what.selectionId : null,
		'formsId' in what ? what.formsId : null
	];
}

/** The consignment that columns name; null where what was sent is gone. */
export function consignmentOf({ bank_id, quiz_id, selection_id, forms_id }: ConsignmentColumns): Consignment | null {
	if (bank_id !== null) return { bankId: bank_id };
	if (quiz_id !== null) return { quizId: quiz_id };
	if (selection_id !== null) return { selectionId: selection_id };
	return forms_id === null ? null : { formsId: forms_id };
}

/** What a consignment is called; undefined where the course has none such. */
export async function titleOf(db: Database, courseId: number, what: Consignment): Promise<string | undefined> {
	if ('formsId' in what) {
		const sent = await formsById(db, courseId, what.formsId);
		return sent && `${sent.forms.title}, ${told(sent.forms.forms.length, 'form')}`;
	}
	const [sql, id] =
		'bankId' in what
			? ['SELECT name AS title FROM banks WHERE id = ? AND course_id = ?', what.bankId]
			: 'quizId' in what
				? ['SELECT title FROM quizzes WHERE id = ? AND course_id = ?', what.quizId]
				: ['SELECT title FROM selections WHERE id = ? AND course_id = ?', what.selectionId];
	return (await row<{ title: string }>(db, String(sql), [id, courseId]))?.title;
}

/** Those of some questions that are in a course, in the order in which they came to it. */
async function keptIds(db: Database, courseId: number, ids: number[]): Promise<number[]> {
	if (!ids.length) return [];
	const there = await rows<{ id: number }>(
		db,
		'SELECT id FROM questions WHERE course_id = ? AND id IN (?) ORDER BY id',
		[courseId, ids]
	);
	return there.map(({ id }) => id);
}

/**
 * The keys of the questions of a consignment, in the order in which they are written: that of the bank, of the parts of
 * the quiz, or of the list in which they were selected.
 */
export async function questionIdsOf(db: Database, courseId: number, what: Consignment): Promise<number[]> {
	if ('quizId' in what) {
		const quiz = await quizOf(db, courseId, what.quizId);
		if (!quiz) return [];
		const groups = quiz.rules.together;
		const source = await poolSource(db, courseId, quiz.parts, undefined, undefined, groups.flat());
		const drawn = new Set(quiz.parts.flatMap((part) => poolOf(part, source)));
		// a group goes whole: the texts that travel with it too
		const there = new Set([...source.places.keys(), ...source.texts]);
		const whole = groups.filter((group) => group.some((id) => drawn.has(id))).flat();
		return [...new Set([...drawn, ...whole.filter((id) => there.has(id))])];
	}
	if ('formsId' in what) {
		const sent = await formsById(db, courseId, what.formsId);
		const listed = [...new Set(sent?.forms.forms.flatMap(({ parts }) => parts.flat()) ?? [])];
		return keptIds(db, courseId, listed);
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
