import type { Pool } from 'mysql2/promise';
import { array, boolean, number, object, string } from 'yup';
import { touchCourse } from '../courses/counts';
import { row, rows, run, transaction, type Database } from '../db/pool';
import { lostOf, type Lost } from './lost';

/** A quiz, for a list. */
export interface QuizRow {
	id: number;
	title: string;
	state: 'draft' | 'ready';
	changed: Date;
	parts: number;
}

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

/** The quizzes of a course, the newest first. */
export async function quizzesOf(db: Database, courseId: number): Promise<QuizRow[]> {
	return rows(
		db,
		'SELECT z.id, z.title, z.state, z.changed, (SELECT COUNT(*) FROM quiz_parts p WHERE p.quiz_id = z.id) AS parts FROM quizzes z WHERE z.course_id = ? ORDER BY z.id DESC',
		[courseId]
	);
}

/** One quiz of a course. */
export async function quizOf(db: Database, courseId: number, quizId: number): Promise<Quiz | undefined> {
	const quiz = await row<Omit<Quiz, 'parts'>>(
		db,
		'SELECT id, title, state, version FROM quizzes WHERE id = ? AND course_id = ?',
		[quizId, courseId]
	);
	if (!quiz) return undefined;
	const parts = await rows<{
		id: number;
		title: string;
		draw: number | null;
		points_each: number | null;
		shuffle_questions: number;
		shuffle_options: number;
		with_under: number;
	}>(
		db,
		'SELECT id, title, draw, points_each, shuffle_questions, shuffle_options, with_under FROM quiz_parts WHERE quiz_id = ? ORDER BY position',
		[quizId]
	);
	const categories = await rows<{ part_id: number; category_id: number }>(
		db,
		'SELECT k.part_id, k.category_id FROM quiz_part_categories k JOIN quiz_parts p ON p.id = k.part_id WHERE p.quiz_id = ?',
		[quizId]
	);
	const banks = await rows<{ part_id: number; bank_id: number }>(
		db,
		'SELECT k.part_id, k.bank_id FROM quiz_part_banks k JOIN quiz_parts p ON p.id = k.part_id WHERE p.quiz_id = ?',
		[quizId]
	);
	const questions = await rows<{ part_id: number; question_id: number }>(
		db,
		'SELECT u.part_id, u.question_id FROM quiz_part_questions u JOIN quiz_parts p ON p.id = u.part_id WHERE p.quiz_id = ? ORDER BY u.part_id, u.position, u.question_id',
		[quizId]
	);
	const lost = await lostOf(db, quizId);
	return {
		...quiz,
		parts: parts.map((part) => ({
			title: part.title,
			draw: part.draw,
			pointsEach: part.points_each,
			shuffleQuestions: Boolean(part.shuffle_questions),
			shuffleOptions: Boolean(part.shuffle_options),
			withUnder: Boolean(part.with_under),
			categories: [
				...banks.filter((one) => one.part_id === part.id).map((one) => -one.bank_id),
				...categories.filter((one) => one.part_id === part.id).map((one) => one.category_id)
			],
			questions: questions.filter((one) => one.part_id === part.id).map((one) => one.question_id),
			lost: lost.get(part.id) ?? []
		}))
	};
}

/** Makes an empty quiz; gives its key. */
export async function makeQuiz(db: Database, courseId: number, title: string): Promise<number> {
	return (await run(db, 'INSERT INTO quizzes (course_id, title) VALUES (?, ?)', [courseId, title.slice(0, 255)])).id;
}

interface LostRow {
	id: number;
	kind: string;
	bank_name: string;
	name: string;
	fingerprint: Buffer | null;
	position: number;
	lost: Date;
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
		const lost = await rows<LostRow>(
			connection,
			'SELECT l.id, l.kind, l.bank_name, l.name, l.fingerprint, l.position, l.lost FROM quiz_part_lost l JOIN quiz_parts p ON p.id = l.part_id WHERE p.quiz_id = ?',
			[quizId]
		);
		await run(connection, 'DELETE FROM quiz_parts WHERE quiz_id = ?', [quizId]);
		if (!quiz.parts.length) return quiz.version + 1;
		const { id } = await run(
			connection,
			'INSERT INTO quiz_parts (quiz_id, position, title, draw, points_each, shuffle_questions, shuffle_options, with_under) VALUES ?',
			[
				quiz.parts.map((part, at) => [
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
		// only what belongs to this course is linked, whatever was sent
		const categories = quiz.parts.flatMap((part) => part.categories);
		const questions = quiz.parts.flatMap((part) => part.questions);
		const ownCategories = new Set(
			categories.length
				? (
						await rows<{ id: number }>(
							connection,
							'SELECT c.id FROM categories c JOIN banks b ON b.id = c.bank_id WHERE b.course_id = ? AND c.id IN (?)',
							[courseId, categories]
						)
					).map((one) => one.id)
				: []
		);
		const ownQuestions = new Set(
			questions.length
				? (
						await rows<{ id: number }>(connection, 'SELECT id FROM questions WHERE course_id = ? AND id IN (?)', [
							courseId,
							questions
						])
					).map((one) => one.id)
				: []
		);
		const named = quiz.parts
			.flatMap((part) => part.categories)
			.filter((one) => one < 0)
			.map((one) => -one);
		const ownBanks = new Set(
			named.length
				? (
						await rows<{ id: number }>(connection, 'SELECT id FROM banks WHERE course_id = ? AND id IN (?)', [
							courseId,
							named
						])
					).map((one) => one.id)
				: []
		);
		const byBank = quiz.parts.flatMap((part, at) =>
			[...new Set(part.categories)].filter((one) => ownBanks.has(-one)).map((one) => [id + at, -one])
		);
		if (byBank.length) await run(connection, 'INSERT INTO quiz_part_banks (part_id, bank_id) VALUES ?', [byBank]);
		const byCategory = quiz.parts.flatMap((part, at) =>
			[...new Set(part.categories)].filter((one) => ownCategories.has(one)).map((one) => [id + at, one])
		);
		const byQuestion = quiz.parts.flatMap((part, at) =>
			[...new Set(part.questions)]
				.filter((one) => ownQuestions.has(one))
				.map((one, position) => [id + at, one, position])
		);
		if (byCategory.length)
			await run(connection, 'INSERT INTO quiz_part_categories (part_id, category_id) VALUES ?', [byCategory]);
		if (byQuestion.length)
			await run(connection, 'INSERT INTO quiz_part_questions (part_id, question_id, position) VALUES ?', [byQuestion]);
		const kept = quiz.parts.flatMap((part, at) =>
			lost
				.filter((one) => part.lost?.includes(one.id))
				.map((one) => [id + at, one.kind, one.bank_name, one.name, one.fingerprint, one.position, one.lost])
		);
		if (kept.length)
			await run(
				connection,
				'INSERT INTO quiz_part_lost (part_id, kind, bank_name, name, fingerprint, position, lost) VALUES ?',
				[kept]
			);
		return quiz.version + 1;
	});
}

/** Throws a quiz away; its questions stay in their banks. */
export async function dropQuiz(db: Database, courseId: number, quizId: number): Promise<void> {
	await run(db, 'DELETE FROM quizzes WHERE id = ? AND course_id = ?', [quizId, courseId]);
}
