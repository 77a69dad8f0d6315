import type { Pool } from 'mysql2/promise';
import { chosenIds } from '../banks/pages';
import type { Chosen } from '../banks/filter';
import { row, run, transaction } from '../db/pool';
import { Refused } from '../loads/refused';

const atOnce = 5000;

/** Keeps which questions of a bank are chosen, to be sent; gives the key of the selection. Throws Refused where there are none. */
export async function selectToSend(pool: Pool, courseId: number, chosen: Chosen): Promise<{ selectionId: number }> {
	return transaction(pool, async (connection) => {
		const ids = await chosenIds(connection, courseId, chosen);
		const bank = await row<{ name: string }>(connection, 'SELECT name FROM banks WHERE id = ? AND course_id = ?', [
			chosen.bankId,
			courseId
		]);
		if (!ids.length || !bank) throw new Refused('None of these questions is there any more. Choose anew.');
		const number = ids.length.toLocaleString('en');
		const { id } = await run(connection, 'INSERT INTO selections (course_id, title) VALUES (?, ?)', [
			courseId,
			`${number} ${ids.length === 1 ? 'question' : 'questions'} of ${bank.name}`.slice(0, 255)
		]);
		for (let at = 0; at < ids.length; at += atOnce)
			await run(connection, 'INSERT INTO selection_questions (selection_id, question_id, position) VALUES ?', [
				ids.slice(at, at + atOnce).map((questionId, place) => [id, questionId, at + place])
			]);
		return { selectionId: id };
	});
}
