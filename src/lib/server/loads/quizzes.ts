import type { PoolConnection } from 'mysql2/promise';
import { rows, run } from '../db/pool';

const batch = 500;

interface StagedPart {
	title: string;
	draw: number | null;
	pointsEach: number | null;
	shuffle: boolean | null;
	numbers: number[];
}

/**
 * Takes the quizzes of a load in. Their parts refer to the questions where they are now: those that were taken in, those
 * that took the place of another, and those that were in the course already.
 */
export async function takeInQuizzes(connection: PoolConnection, courseId: number, loadId: number): Promise<void> {
	const quizzes = await rows<{ title: string; document: string }>(
		connection,
		'SELECT title, document FROM staged_quizzes WHERE load_id = ? ORDER BY id',
		[loadId]
	);
	if (!quizzes.length) return;
	const questions = await rows<{ id: number; number: number }>(
		connection,
		`SELECT q.id, s.number FROM questions q JOIN staged_questions s ON s.id = q.staged_id WHERE q.load_id = ?
		UNION SELECT q.id, s.number FROM staged_questions s JOIN questions q ON q.id = s.match_question_id AND q.course_id = ? WHERE s.load_id = ? AND s.outcome IN ('replaced', 'skipped')`,
		[loadId, courseId, loadId]
	);
	const idOf = new Map(questions.map((one) => [one.number, one.id]));
	const first = (
		await run(connection, 'INSERT INTO quizzes (course_id, title, load_id) VALUES ?', [
			quizzes.map((quiz) => [courseId, quiz.title, loadId])
		])
	).id;
	const parts = quizzes.flatMap((quiz, at) =>
		(JSON.parse(quiz.document) as StagedPart[]).map((part, position) => ({ ...part, quizId: first + at, position }))
	);
	if (!parts.length) return;
	const firstPart = (
		await run(connection, 'INSERT INTO quiz_parts (quiz_id, position, title, draw, points_each, sequence) VALUES ?', [
			parts.map((part) => [
				part.quizId,
				part.position,
				part.title.slice(0, 255),
				part.draw,
				part.pointsEach,
				part.shuffle ? 'shuffled' : 'kept'
			])
		])
	).id;
	const listed = parts.flatMap((part, at) =>
		[...new Set([...new Set(part.numbers)].flatMap((one) => idOf.get(one) ?? []))].map((id, position) => [
			firstPart + at,
			id,
			position
		])
	);
	for (let at = 0; at < listed.length; at += batch)
		await run(connection, 'INSERT INTO quiz_part_questions (part_id, question_id, position) VALUES ?', [
			listed.slice(at, at + batch)
		]);
}
