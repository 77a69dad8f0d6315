import type { Pool } from 'mysql2/promise';
import { beginDeed, endDeed, type Done } from '../changes/deed';
import { placeQuestions } from '../changes/place';
import { changeThings } from '../changes/things';
import type { Changer } from '../banks/change';
import { row, rows, run, transaction, type Database } from '../db/pool';
import { Refused } from '../loads/refused';
import { told } from '../told';

/** What quizzes name, in numbers. */
export interface Named {
	questions: number;
	/** Those of them that stand in no category of their bank. */
	loose: number;
	banks: number;
}

const naming = `FROM quiz_part_questions u JOIN quiz_parts p ON p.id = u.part_id JOIN quizzes z ON z.id = p.quiz_id JOIN questions q ON q.id = u.question_id
	WHERE z.course_id = ? AND z.id IN (?) AND q.course_id = z.course_id AND u.role <> 'excluded'`;

/** How many questions quizzes of a course name, and where these stand. Throws Refused where they name none. */
export async function namedBy(db: Database, courseId: number, quizIds: readonly number[]): Promise<Named> {
	if (!quizIds.length) return { questions: 0, loose: 0, banks: 0 };
	const found = (await row<{ questions: number; loose: number | null; banks: number }>(
		db,
		`SELECT COUNT(DISTINCT q.id) AS questions, COUNT(DISTINCT IF(q.category_id IS NULL, q.id, NULL)) AS loose, COUNT(DISTINCT q.bank_id) AS banks ${naming}`,
		[courseId, quizIds]
	))!;
	if (!found.questions) throw new Refused('These quizzes name no questions: their parts draw from categories.');
	return { ...found, loose: found.loose ?? 0 };
}

/**
 * Gathers the questions that quizzes name into one bank, an existing one or a new one by its name, and one category of it;
 * the quizzes go on naming them. With `looseOnly`, those alone that stand in no category.
 */
export async function gatherQuestions(
	pool: Pool,
	{ courseId, personId }: Changer,
	quizIds: readonly number[],
	to: { bankId: number | null; bankName: string; category: string; looseOnly: boolean }
): Promise<Done & { bankId: number }> {
	return transaction(pool, async (connection) => {
		const named = await rows<{ id: number }>(
			connection,
			`SELECT DISTINCT q.id ${naming}${to.looseOnly ? ' AND q.category_id IS NULL' : ''} ORDER BY q.id`,
			[courseId, quizIds]
		);
		if (!named.length) throw new Refused('These quizzes name no such questions.');
		const known = to.bankId
			? await row<{ id: number; name: string }>(
					connection,
					'SELECT id, name FROM banks WHERE id = ? AND course_id = ?',
					[to.bankId, courseId]
				)
			: await row<{ id: number; name: string }>(
					connection,
					'SELECT id, name FROM banks WHERE course_id = ? AND name = ?',
					[courseId, to.bankName]
				);
		if (!known && (to.bankId || !to.bankName)) throw new Refused('Choose a bank, or give the new one a name.');
		const deedId = await beginDeed(connection, {
			courseId,
			personId,
			deed: 'gathered questions of quizzes',
			subject: `into ${known?.name ?? to.bankName}${to.category ? ` › ${to.category}` : ''}`
		});
		const [made] = known
			? [known.id]
			: await changeThings(connection, deedId, 'bank', [], async () => [
					(
						await run(connection, 'INSERT INTO banks (course_id, name, made_by) VALUES (?, ?, ?)', [
							courseId,
							to.bankName,
							personId
						])
					).id
				]);
		const bankId = made!;
		const { category: name } = to;
		const category = name
			? await row<{ id: number }>(
					connection,
					'SELECT id FROM categories WHERE bank_id = ? AND parent_id IS NULL AND name = ?',
					[bankId, name]
				)
			: null;
		const [categoryId] =
			name && !category
				? await changeThings(connection, deedId, 'category', [], async () => [
						(await run(connection, 'INSERT INTO categories (bank_id, name) VALUES (?, ?)', [bankId, name])).id
					])
				: [category?.id ?? null];
		const questions = await placeQuestions(
			connection,
			courseId,
			courseId,
			named.map(({ id }) => ({ id, bankId, categoryId: categoryId ?? null })),
			{ deedId, personId }
		);
		await run(connection, 'UPDATE ledger SET address = ? WHERE id = ?', [
			`/courses/${courseId}/banks?bank=${bankId}`,
			deedId
		]);
		await endDeed(connection, deedId, questions);
		const where = `${known?.name ?? to.bankName}${name ? ` › ${name}` : ''}`;
		return {
			deedId,
			questions,
			bankId,
			words: `${told(questions)} ${questions === 1 ? 'stands' : 'stand'} in ${where} now; the quizzes name ${questions === 1 ? 'it' : 'them'} as before.`
		};
	});
}
