import type { Pool, PoolConnection } from 'mysql2/promise';
import { array, number, object, string } from 'yup';
import { landing, pathKey, planTakeIn, type Decision, type Plan } from '../../../../core/take-in/plan';
import { categoryTree, ensureCategories } from '../banks/tree';
import { row, rows, run, transaction } from '../db/pool';
import { record } from '../ledger/ledger';
import { foundCategories } from './review';

const decisionShape = object({
	bankId: number().integer().positive().nullable().defined(),
	bankName: string().defined().max(190, 'The name of a bank has 190 characters at the most.'),
	categories: string()
		.oneOf(['keep', 'one'] as const)
		.required(),
	oneCategory: string().defined().max(255),
	errors: string()
		.oneOf(['nothing', 'aside'] as const)
		.required(),
	leftOut: array(string().defined()).defined()
});

/** A decision out of a value of unknown shape. Throws Yup's ValidationError. */
export function parseDecision(value: unknown): Decision {
	return decisionShape.validateSync(value);
}

/** Taking in was refused; the message is for people. */
export class Refused extends Error {}

const batch = 500;

/**
 * Takes a load into its course by a decision, all in one transaction, and gives what was done. Questions, their
 * snags and quizzes are copied inside the database. Throws Refused where the decision cannot be carried out, or
 * where somebody else was quicker.
 */
export async function takeIn(
	pool: Pool,
	courseId: number,
	loadId: number,
	personId: number,
	decision: Decision
): Promise<Plan> {
	return transaction(pool, async (connection) => {
		const load = await row<{ state: string; file_name: string }>(
			connection,
			'SELECT state, file_name FROM loads WHERE id = ? AND course_id = ? FOR UPDATE',
			[loadId, courseId]
		);
		if (!load) throw new Refused('This load is gone.');
		if (load.state === 'taken') throw new Refused('Somebody has taken this load in already. Look at its receipt.');
		if (load.state !== 'review' && load.state !== 'undone') throw new Refused('This load cannot be taken in now.');
		const bankId = await ensureBank(connection, courseId, loadId, decision);
		const found = await foundCategories(connection, loadId);
		const plan = planTakeIn(
			found,
			decision,
			(await categoryTree(connection, bankId)).map((node) => node.key)
		);
		if (plan.refusal) throw new Refused(plan.refusal);

		const out = new Set(decision.leftOut);
		const wanted = found.filter((category) => !out.has(pathKey(category.path)) && category.questions > category.broken);
		const { ids } = await ensureCategories(
			connection,
			bankId,
			wanted.map((category) => landing(category.path, decision)),
			loadId
		);
		await markOutcomes(connection, loadId, decision);
		await run(
			connection,
			'CREATE TEMPORARY TABLE IF NOT EXISTS landings (path VARCHAR(2000) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL, category_id INT UNSIGNED NULL, KEY by_path (path(180)))'
		);
		await run(connection, 'DELETE FROM landings');
		if (wanted.length)
			await run(connection, 'INSERT INTO landings (path, category_id) VALUES ?', [
				wanted.map((category) => [pathKey(category.path), ids.get(pathKey(landing(category.path, decision))) ?? null])
			]);
		await run(
			connection,
			`INSERT INTO questions (course_id, bank_id, category_id, load_id, staged_id, kind, title, stem_text, points, document, fingerprint)
			SELECT ?, ?, n.category_id, s.load_id, s.id, s.kind, s.title, s.stem_text, s.points, s.document, s.fingerprint
			FROM staged_questions s JOIN landings n ON n.path = s.category_path WHERE s.load_id = ? AND s.outcome = 'taken' ORDER BY s.number`,
			[courseId, bankId, loadId]
		);
		await run(
			connection,
			`INSERT INTO snags (course_id, question_id, rule, severity, message, words, place, line)
			SELECT ?, q.id, r.rule, r.severity, r.message, r.words, r.place, r.line FROM questions q JOIN staged_reports r ON r.staged_id = q.staged_id WHERE q.load_id = ?`,
			[courseId, loadId]
		);
		await takeInQuizzes(connection, courseId, loadId);
		await run(
			connection,
			"UPDATE loads SET state = 'taken', decision = ?, bank_id = ?, settled = NOW(3) WHERE id = ?",
			[JSON.stringify(decision), bankId, loadId]
		);
		await record(connection, {
			courseId,
			personId,
			deed: 'took in',
			subject: load.file_name,
			questions: plan.taken,
			address: `/courses/${courseId}/loads/${loadId}/receipt`
		});
		return plan;
	});
}

async function ensureBank(
	connection: PoolConnection,
	courseId: number,
	loadId: number,
	decision: Decision
): Promise<number> {
	if (decision.bankId !== null) {
		const bank = await row<{ id: number }>(connection, 'SELECT id FROM banks WHERE id = ? AND course_id = ?', [
			decision.bankId,
			courseId
		]);
		if (!bank) throw new Refused('The bank that was chosen is gone. Choose another.');
		return bank.id;
	}
	const name = decision.bankName.trim();
	if (!name) throw new Refused('Give the new bank a name.');
	// by_name
	const taken = await row(connection, 'SELECT id FROM banks WHERE course_id = ? AND name = ?', [courseId, name]);
	if (taken)
		throw new Refused(
			`There is a bank called “${name}” in this course already. Choose it, or give the new one another name.`
		);
	return (
		await run(connection, 'INSERT INTO banks (course_id, name, load_id) VALUES (?, ?, ?)', [courseId, name, loadId])
	).id;
}

async function markOutcomes(connection: PoolConnection, loadId: number, decision: Decision): Promise<void> {
	await run(connection, "UPDATE staged_questions SET outcome = IF(broken, 'aside', 'taken') WHERE load_id = ?", [
		loadId
	]);
	if (decision.leftOut.length)
		await run(connection, "UPDATE staged_questions SET outcome = 'left' WHERE load_id = ? AND category_path IN (?)", [
			loadId,
			decision.leftOut
		]);
}

interface StagedPart {
	title: string;
	draw: number | null;
	pointsEach: number | null;
	shuffle: boolean | null;
	numbers: number[];
}

async function takeInQuizzes(connection: PoolConnection, courseId: number, loadId: number): Promise<void> {
	const quizzes = await rows<{ title: string; document: string }>(
		connection,
		'SELECT title, document FROM staged_quizzes WHERE load_id = ? ORDER BY id',
		[loadId]
	);
	if (!quizzes.length) return;
	const questions = await rows<{ id: number; number: number }>(
		connection,
		'SELECT q.id, s.number FROM questions q JOIN staged_questions s ON s.id = q.staged_id WHERE q.load_id = ?',
		[loadId]
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
		await run(
			connection,
			'INSERT INTO quiz_parts (quiz_id, position, title, draw, points_each, shuffle_questions) VALUES ?',
			[
				parts.map((part) => [
					part.quizId,
					part.position,
					part.title.slice(0, 255),
					part.draw,
					part.pointsEach,
					part.shuffle ? 1 : 0
				])
			]
		)
	).id;
	const listed = parts.flatMap((part, at) =>
		[...new Set(part.numbers)].flatMap((one) => (idOf.has(one) ? [[firstPart + at, idOf.get(one)!]] : []))
	);
	for (let at = 0; at < listed.length; at += batch)
		await run(connection, 'INSERT INTO quiz_part_questions (part_id, question_id) VALUES ?', [
			listed.slice(at, at + batch)
		]);
}

/** What taking a load back would touch: its questions, those of them that were changed since, the quizzes that use them. */
export async function undoPreview(
	pool: Pool,
	loadId: number
): Promise<{ questions: number; changed: number; quizzes: number }> {
	return (await row<{ questions: number; changed: number; quizzes: number }>(
		pool,
		`SELECT COUNT(*) AS questions, COALESCE(SUM(version > 1), 0) AS changed,
			(SELECT COUNT(DISTINCT p.quiz_id) FROM quiz_part_questions u JOIN quiz_parts p ON p.id = u.part_id JOIN quizzes z ON z.id = p.quiz_id JOIN questions x ON x.id = u.question_id WHERE x.load_id = ? AND (z.load_id IS NULL OR z.load_id <> ?)) AS quizzes
		FROM questions WHERE load_id = ?`,
		[loadId, loadId, loadId]
	))!;
}

/**
 * Takes a load back as a whole: its questions, its quizzes, and the categories and the bank that it made, where they
 * are empty then. Gives how many questions were taken back. Throws Refused where it is not in the course.
 */
export async function undo(pool: Pool, courseId: number, loadId: number, personId: number): Promise<number> {
	return transaction(pool, async (connection) => {
		const load = await row<{ state: string; file_name: string }>(
			connection,
			'SELECT state, file_name FROM loads WHERE id = ? AND course_id = ? FOR UPDATE',
			[loadId, courseId]
		);
		if (load?.state !== 'taken') throw new Refused('This load is not in the course, so there is nothing to take back.');
		await run(connection, 'DELETE FROM quizzes WHERE load_id = ?', [loadId]);
		const { count } = await run(connection, 'DELETE FROM questions WHERE load_id = ?', [loadId]);
		for (let left = 1; left > 0;) {
			// one level of empty categories at a time, from below
			left = (
				await run(
					connection,
					'DELETE c FROM categories c LEFT JOIN categories u ON u.parent_id = c.id LEFT JOIN questions q ON q.category_id = c.id WHERE c.load_id = ? AND u.id IS NULL AND q.id IS NULL',
					[loadId]
				)
			).count;
		}
		await run(connection, 'UPDATE loads SET bank_id = NULL WHERE id = ?', [loadId]);
		await run(
			connection,
			'DELETE b FROM banks b LEFT JOIN questions q ON q.bank_id = b.id LEFT JOIN categories c ON c.bank_id = b.id WHERE b.load_id = ? AND q.id IS NULL AND c.id IS NULL',
			[loadId]
		);
		await run(connection, "UPDATE staged_questions SET outcome = 'waiting' WHERE load_id = ?", [loadId]);
		await run(connection, "UPDATE loads SET state = 'undone', settled = NOW(3) WHERE id = ?", [loadId]);
		await record(connection, {
			courseId,
			personId,
			deed: 'took back',
			subject: load.file_name,
			questions: count,
			address: `/courses/${courseId}/loads/${loadId}`
		});
		return count;
	});
}
