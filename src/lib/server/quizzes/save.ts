import type { Pool, PoolConnection } from 'mysql2/promise';
import { array, boolean, number, object, string } from 'yup';
import { touchCourse } from '../courses/counts';
import { rows, run, transaction } from '../db/pool';
import type { Part, Quiz } from './quiz';

/** The shape of a quiz as it is sent to be saved. */
export const quizShape = object({
	title: string().trim().required('Give the quiz a title.').max(255),
	state: string()
		.oneOf(['draft', 'ready'] as const)
		.required(),
	version: number()
		.integer()
		.min(0)
		.max(2 ** 31)
		.required(),
	parts: array(
		object({
			title: string().defined().max(255),
			draw: number().integer().min(0).max(10_000).nullable().defined(),
			pointsEach: number().min(0).max(100_000).nullable().defined(),
			shuffleQuestions: boolean().defined(),
			shuffleOptions: boolean().defined(),
			withUnder: boolean().defined(),
			categories: array(number().integer().required()).defined().max(10_000),
			questions: array(number().integer().required()).defined().max(10_000),
			/** The keys of what is lost and still wanted. */
			lost: array(number().integer().required()).default([]).max(10_000)
		})
	)
		.defined()
		.max(200)
});

/** A part as it is sent to be saved. */
export type EditedPart = Omit<Part, 'lost'> & { lost?: number[] };

/** A quiz as it is sent to be saved. */
export type EditedQuiz = Omit<Quiz, 'id' | 'parts'> & { parts: EditedPart[] };

interface LostRow {
	id: number;
	kind: string;
	bank_name: string;
	name: string;
	fingerprint: Buffer | null;
	position: number;
	lost: Date;
}

/** Those of some keys that a statement finds in a course. */
async function ownOf(
	connection: PoolConnection,
	courseId: number,
	sql: string,
	keys: readonly number[]
): Promise<Set<number>> {
	if (!keys.length) return new Set();
	return new Set((await rows<{ id: number }>(connection, sql, [courseId, keys])).map(({ id }) => id));
}

/** Links parts with what they draw from; only what belongs to the course is linked, whatever was sent. `first` is the key of the first part. */
async function linkParts(
	connection: PoolConnection,
	courseId: number,
	parts: readonly EditedPart[],
	first: number
): Promise<void> {
	const named = parts.flatMap((part) => part.categories);
	const categories = await ownOf(
		connection,
		courseId,
		'SELECT c.id FROM categories c JOIN banks b ON b.id = c.bank_id WHERE b.course_id = ? AND c.id IN (?)',
		named.filter((id) => id > 0)
	);
	const banks = await ownOf(
		connection,
		courseId,
		'SELECT id FROM banks WHERE course_id = ? AND id IN (?)',
		named.filter((id) => id < 0).map((id) => -id)
	);
	const questions = await ownOf(
		connection,
		courseId,
		'SELECT id FROM questions WHERE course_id = ? AND id IN (?)',
		parts.flatMap((part) => part.questions)
	);
	const links = (of: (part: EditedPart) => number[], own: Set<number>) =>
		parts.flatMap((part, at) =>
			[...new Set(of(part))].filter((id) => own.has(id)).map((id, position) => [first + at, id, position])
		);
	const byBank = links((part) => part.categories.map((id) => -id), banks);
	const byCategory = links((part) => part.categories, categories);
	const byQuestion = links((part) => part.questions, questions);
	const pairs = (list: number[][]) => list.map((link) => link.slice(0, 2));
	if (byBank.length) await run(connection, 'INSERT INTO quiz_part_banks (part_id, bank_id) VALUES ?', [pairs(byBank)]);
	if (byCategory.length)
		await run(connection, 'INSERT INTO quiz_part_categories (part_id, category_id) VALUES ?', [pairs(byCategory)]);
	if (byQuestion.length)
		await run(connection, 'INSERT INTO quiz_part_questions (part_id, question_id, position) VALUES ?', [byQuestion]);
}

/** Writes the parts of a quiz in the place of those that it had; what these had lost and is still wanted goes along. */
export async function writeParts(
	connection: PoolConnection,
	courseId: number,
	quizId: number,
	parts: readonly EditedPart[]
): Promise<void> {
	const lost = await rows<LostRow>(
		connection,
		'SELECT l.id, l.kind, l.bank_name, l.name, l.fingerprint, l.position, l.lost FROM quiz_part_lost l JOIN quiz_parts p ON p.id = l.part_id WHERE p.quiz_id = ?',
		[quizId]
	);
	await run(connection, 'DELETE FROM quiz_parts WHERE quiz_id = ?', [quizId]);
	if (!parts.length) return;
	const { id: first } = await run(
		connection,
		'INSERT INTO quiz_parts (quiz_id, position, title, draw, points_each, shuffle_questions, shuffle_options, with_under) VALUES ?',
		[
			parts.map((part, at) => [
				quizId,
				at,
				part.title,
				part.draw,
				part.pointsEach,
				part.shuffleQuestions ? 1 : 0,
				part.shuffleOptions ? 1 : 0,
				part.withUnder ? 1 : 0
			])
		]
	);
	await linkParts(connection, courseId, parts, first);
	const kept = parts.flatMap((part, at) =>
		lost
			.filter(({ id }) => part.lost?.includes(id))
			.map((one) => [first + at, one.kind, one.bank_name, one.name, one.fingerprint, one.position, one.lost])
	);
	if (kept.length)
		await run(
			connection,
			'INSERT INTO quiz_part_lost (part_id, kind, bank_name, name, fingerprint, position, lost) VALUES ?',
			[kept]
		);
}

/** Saves a quiz whole. Gives its new version, or null where somebody has saved it in between. */
export async function saveQuiz(pool: Pool, courseId: number, quizId: number, quiz: EditedQuiz): Promise<number | null> {
	return transaction(pool, async (connection) => {
		const { count } = await run(
			connection,
			'UPDATE quizzes SET title = ?, state = ?, version = version + 1, changed = NOW(3) WHERE id = ? AND course_id = ? AND version = ?',
			[quiz.title, quiz.state, quizId, courseId, quiz.version]
		);
		if (!count) return null;
		// what a format would lose of it was worked out for the parts that it had
		await touchCourse(connection, courseId);
		await writeParts(connection, courseId, quizId, quiz.parts);
		return quiz.version + 1;
	});
}
