import type { Pool, PoolConnection } from 'mysql2/promise';
import { array, boolean, number, object, string } from 'yup';
import { touchCourse } from '../courses/counts';
import { row, rows, run, transaction } from '../db/pool';
import { partOrders } from '$core/model/sheet';
import { drawingRule } from '$core/draws/sheets/rule';
import { conditionsShape, quizSettingsShape, quotaShape, sheetRulesShape } from '$lib/forms/quiz';
import { quizOf, type Part, type Quiz } from './quiz';

const partShape = object({
	title: string().defined().max(255),
	draw: number().integer().min(0).max(10_000).nullable().defined(),
	pointsEach: number().min(0).max(100_000).nullable().defined(),
	order: string().oneOf(partOrders).required(),
	shuffleOptions: boolean().defined(),
	withUnder: boolean().defined(),
	categories: array(number().integer().required()).defined().max(10_000),
	questions: array(number().integer().required()).defined().max(10_000),
	conditions: conditionsShape.default(undefined),
	include: array(number().integer().required()).max(10_000),
	exclude: array(number().integer().required()).max(10_000),
	quotas: array(quotaShape.required()).max(200),
	/** The keys of what is lost and still wanted. */
	lost: array(number().integer().required()).default([]).max(10_000)
});

/** The shape of a sheet as it is edited. */
export const sheetShape = object({
	/** The rule by which sittings are drawn; what draws by a later one never goes back. */
	drawingRule: number().integer().min(1).max(drawingRule),
	rules: sheetRulesShape.default(undefined),
	parts: array(partShape.required()).defined().max(200)
});

/** The shape of a quiz as it is sent to be saved. */
export const quizShape = sheetShape.shape({
	title: string().trim().required('Give the quiz a title.').max(255),
	state: string()
		.oneOf(['draft', 'ready', 'sent'] as const)
		.required(),
	version: number()
		.integer()
		.min(0)
		.max(2 ** 31)
		.required(),
	settings: quizSettingsShape.default(undefined)
});

/** A part as it is sent to be saved. */
export type EditedPart = Omit<Part, 'lost' | Added> & Partial<Pick<Part, Added>> & { lost?: number[] };
type Added = 'conditions' | 'include' | 'exclude' | 'quotas';

/** A quiz as it is sent to be saved; what is not said of it stays as it is. */
export type EditedQuiz = Omit<Quiz, 'id' | 'parts' | 'drawingRule' | 'rules' | 'settings'> &
	Partial<Pick<Quiz, 'drawingRule' | 'rules' | 'settings'>> & { parts: EditedPart[] };

interface LostRow {
	id: number;
	kind: string;
	bank_name: string;
	name: string;
	fingerprint: Buffer | null;
	position: number;
	role: string;
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

const batch = 5000;

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
		parts.flatMap((part) => [...part.questions, ...(part.include ?? []), ...(part.exclude ?? [])])
	);
	const links = (of: (part: EditedPart) => number[], own: Set<number>) =>
		parts.flatMap((part, at) =>
			[...new Set(of(part))].filter((id) => own.has(id)).map((id, position) => [first + at, id, position])
		);
	const inRole = (part: EditedPart) => {
		// a question plays one part in a pool: what is listed is listed, and what is out is out
		const roles = new Map((part.include ?? []).map((id) => [id, 'included']));
		for (const id of part.exclude ?? []) roles.set(id, 'excluded');
		for (const id of part.questions) roles.set(id, 'listed');
		return roles;
	};
	const byBank = links((part) => part.categories.map((id) => -id), banks);
	const byCategory = links((part) => part.categories, categories);
	const byQuestion = parts.flatMap((part, at) => {
		const roles = inRole(part);
		return [...new Set([...part.questions, ...roles.keys()])]
			.filter((id) => questions.has(id))
			.map((id, position) => [first + at, id, position, roles.get(id)!]);
	});
	const pairs = (list: number[][]) => list.map((link) => link.slice(0, 2));
	if (byBank.length) await run(connection, 'INSERT INTO quiz_part_banks (part_id, bank_id) VALUES ?', [pairs(byBank)]);
	if (byCategory.length)
		await run(connection, 'INSERT INTO quiz_part_categories (part_id, category_id) VALUES ?', [pairs(byCategory)]);
	for (let at = 0; at < byQuestion.length; at += batch)
		await run(connection, 'INSERT INTO quiz_part_questions (part_id, question_id, position, role) VALUES ?', [
			byQuestion.slice(at, at + batch)
		]);
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
		'SELECT l.id, l.kind, l.bank_name, l.name, l.fingerprint, l.position, l.role, l.lost FROM quiz_part_lost l JOIN quiz_parts p ON p.id = l.part_id WHERE p.quiz_id = ?',
		[quizId]
	);
	await run(connection, 'DELETE FROM quiz_parts WHERE quiz_id = ?', [quizId]);
	if (!parts.length) return;
	const { id: first } = await run(
		connection,
		'INSERT INTO quiz_parts (quiz_id, position, title, draw, points_each, sequence, shuffle_options, with_under, conditions, quotas) VALUES ?',
		[
			parts.map((part, at) => [
				quizId,
				at,
				part.title,
				part.draw,
				part.pointsEach,
				part.order,
				part.shuffleOptions ? 1 : 0,
				part.withUnder ? 1 : 0,
				JSON.stringify(part.conditions ?? {}),
				JSON.stringify(part.quotas ?? [])
			])
		]
	);
	await linkParts(connection, courseId, parts, first);
	const kept = parts.flatMap((part, at) =>
		lost
			.filter(({ id }) => part.lost?.includes(id))
			.map((one) => [first + at, one.kind, one.bank_name, one.name, one.fingerprint, one.position, one.role, one.lost])
	);
	if (kept.length)
		await run(
			connection,
			'INSERT INTO quiz_part_lost (part_id, kind, bank_name, name, fingerprint, position, role, lost) VALUES ?',
			[kept]
		);
}

/** So long one person's changes count as one, in minutes: the version before them is kept. */
const oneSitting = 10;

/** Keeps a quiz as it is before a change, unless the same person has changed it just now. */
async function keepVersion(
	connection: PoolConnection,
	courseId: number,
	quizId: number,
	personId: number | null
): Promise<void> {
	const recent = await row(
		connection,
		'SELECT v.id FROM quiz_versions v JOIN quizzes z ON z.id = v.quiz_id WHERE v.quiz_id = ? AND v.person_id <=> ? AND z.changed_by <=> ? AND v.changed > NOW(3) - INTERVAL ? MINUTE ORDER BY v.id DESC LIMIT 1',
		[quizId, personId, personId, oneSitting]
	);
	if (recent) return;
	const before = await quizOf(connection, courseId, quizId);
	if (!before) return;
	await run(connection, 'INSERT INTO quiz_versions (quiz_id, version, person_id, document) VALUES (?, ?, ?, ?)', [
		quizId,
		before.version,
		personId,
		JSON.stringify(before)
	]);
}

/**
 * Saves a quiz whole; who saves it may be missing where nobody does. Gives its new version, or null where somebody has
 * saved it in between.
 */
export async function saveQuiz(
	pool: Pool,
	courseId: number,
	quizId: number,
	quiz: EditedQuiz,
	personId: number | null = null
): Promise<number | null> {
	return transaction(pool, async (connection) => {
		const now = await row<{ version: number }>(
			connection,
			'SELECT version FROM quizzes WHERE id = ? AND course_id = ? FOR UPDATE',
			[quizId, courseId]
		);
		if (now?.version !== quiz.version) return null;
		await keepVersion(connection, courseId, quizId, personId);
		await run(
			connection,
			'UPDATE quizzes SET title = ?, state = ?, drawing_rule = GREATEST(drawing_rule, ?), rules = COALESCE(?, rules), settings = COALESCE(?, settings), version = version + 1, changed = NOW(3), changed_by = ? WHERE id = ?',
			[
				quiz.title,
				quiz.state,
				quiz.drawingRule ?? 0,
				quiz.rules ? JSON.stringify(quiz.rules) : null,
				quiz.settings ? JSON.stringify(quiz.settings) : null,
				personId,
				quizId
			]
		);
		// what a format would lose of it was worked out for the parts that it had
		await touchCourse(connection, courseId);
		await writeParts(connection, courseId, quizId, quiz.parts);
		return quiz.version + 1;
	});
}
