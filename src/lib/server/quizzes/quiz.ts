import { row, rows, type Database } from '../db/pool';
import { lostOf, type Lost } from './lost';

/** A part of a quiz as it is edited. It draws from categories, or from questions that are named. */
export interface Part {
	title: string;
	draw: number | null;
	pointsEach: number | null;
	shuffleQuestions: boolean;
	shuffleOptions: boolean;
	withUnder: boolean;
	/** Keys of categories; a negative one is the bank of that key itself. */
	categories: number[];
	/** The questions that it names, in their order. */
	questions: number[];
	/** What it drew from or named, and that is gone. */
	lost: Lost[];
}

/** A quiz as it is edited. */
export interface Quiz {
	id: number;
	title: string;
	state: 'draft' | 'ready';
	version: number;
	parts: Part[];
}

/** Values by the key of the part that they belong to. */
function byPart<Linked extends { partId: number }, Value>(
	linked: Linked[],
	of: (one: Linked) => Value
): Map<number, Value[]> {
	const found = new Map<number, Value[]>();
	for (const link of linked) {
		const list = found.get(link.partId);
		if (list) list.push(of(link));
		else found.set(link.partId, [of(link)]);
	}
	return found;
}

/** The parts of quizzes, by the key of the quiz and in their order. */
export async function partsOf(db: Database, quizIds: readonly number[]): Promise<Map<number, Part[]>> {
	const found = new Map<number, Part[]>(quizIds.map((id) => [id, []]));
	if (!quizIds.length) return found;
	const parts = await rows<{
		id: number;
		quizId: number;
		title: string;
		draw: number | null;
		pointsEach: number | null;
		shuffleQuestions: number;
		shuffleOptions: number;
		withUnder: number;
	}>(
		db,
		'SELECT id, quiz_id AS quizId, title, draw, points_each AS pointsEach, shuffle_questions AS shuffleQuestions, shuffle_options AS shuffleOptions, with_under AS withUnder FROM quiz_parts WHERE quiz_id IN (?) ORDER BY position',
		[quizIds]
	);
	const linked = <Link extends { partId: number }>(columns: string, table: string, order = '') =>
		rows<Link>(
			db,
			`SELECT k.part_id AS partId, ${columns} FROM ${table} k JOIN quiz_parts p ON p.id = k.part_id WHERE p.quiz_id IN (?)${order}`,
			[quizIds]
		);
	const categories = byPart(
		await linked<{ partId: number; categoryId: number }>('k.category_id AS categoryId', 'quiz_part_categories'),
		({ categoryId }) => categoryId
	);
	const banks = byPart(
		await linked<{ partId: number; bankId: number }>('k.bank_id AS bankId', 'quiz_part_banks'),
		({ bankId }) => -bankId
	);
	const questions = byPart(
		await linked<{ partId: number; questionId: number }>(
			'k.question_id AS questionId',
			'quiz_part_questions',
			' ORDER BY k.part_id, k.position, k.question_id'
		),
		({ questionId }) => questionId
	);
	const lost = await lostOf(db, quizIds);
	for (const { id, quizId, shuffleQuestions, shuffleOptions, withUnder, ...part } of parts)
		found.get(quizId)!.push({
			...part,
			shuffleQuestions: Boolean(shuffleQuestions),
			shuffleOptions: Boolean(shuffleOptions),
			withUnder: Boolean(withUnder),
			categories: [...(banks.get(id) ?? []), ...(categories.get(id) ?? [])],
			questions: questions.get(id) ?? [],
			lost: lost.get(id) ?? []
		});
	return found;
}

/** One quiz of a course. */
export async function quizOf(db: Database, courseId: number, quizId: number): Promise<Quiz | undefined> {
	const quiz = await row<Omit<Quiz, 'parts'>>(
		db,
		'SELECT id, title, state, version FROM quizzes WHERE id = ? AND course_id = ?',
		[quizId, courseId]
	);
	return quiz && { ...quiz, parts: (await partsOf(db, [quizId])).get(quizId)! };
}
