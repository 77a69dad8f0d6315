import type { PoolConnection } from 'mysql2/promise';
import { categoryTree } from '../banks/tree';
import { rows, run, type Database } from '../db/pool';

/** Something that a part of a quiz drew from, or named, and that is gone. */
export interface Lost {
	id: number;
	kind: 'bank' | 'category' | 'question';
	bank: string;
	/** The path of the category, as `pathKey` gives it, or the title of the question. */
	name: string;
	lost: Date;
}

/** What the parts of quizzes have lost, by the key of the part. */
export async function lostOf(db: Database, quizIds: readonly number[]): Promise<Map<number, Lost[]>> {
	const found = await rows<Lost & { part_id: number }>(
		db,
		'SELECT l.id, l.part_id, l.kind, l.bank_name AS bank, l.name, l.lost FROM quiz_part_lost l JOIN quiz_parts p ON p.id = l.part_id WHERE p.quiz_id IN (?) ORDER BY l.position, l.id',
		[quizIds]
	);
	const byPart = new Map<number, Lost[]>();
	for (const { part_id, ...one } of found) byPart.set(part_id, [...(byPart.get(part_id) ?? []), one]);
	return byPart;
}

const batch = 500;

/** Notes for the quizzes of a course that these questions are about to go from it: parts that name them remember them. */
export async function rememberQuestions(connection: PoolConnection, where: string, values: unknown[]): Promise<void> {
	// by_question
	await run(
		connection,
		`INSERT INTO quiz_part_lost (part_id, kind, bank_name, name, fingerprint, position, role)
		SELECT u.part_id, 'question', b.name, q.title, q.fingerprint, u.position, u.role FROM quiz_part_questions u JOIN questions q ON q.id = u.question_id JOIN banks b ON b.id = q.bank_id WHERE u.role <> 'excluded' AND (${where})`,
		values
	);
}

/** The same for categories that are about to go. */
export async function rememberCategories(connection: PoolConnection, ids: number[]): Promise<void> {
	if (!ids.length) return;
	const parts = await rows<{ part_id: number; category_id: number; bank_id: number; bank: string }>(
		connection,
		'SELECT k.part_id, k.category_id, c.bank_id, b.name AS bank FROM quiz_part_categories k JOIN categories c ON c.id = k.category_id JOIN banks b ON b.id = c.bank_id WHERE k.category_id IN (?)',
		[ids]
	);
	if (!parts.length) return;
	const trees = await Promise.all(
		[...new Set(parts.map((one) => one.bank_id))].map((bankId) => categoryTree(connection, bankId))
	);
	const keys = new Map(trees.flat().map((node) => [node.id, node.key]));
	for (let at = 0; at < parts.length; at += batch)
		await run(connection, 'INSERT INTO quiz_part_lost (part_id, kind, bank_name, name) VALUES ?', [
			parts.slice(at, at + batch).map((one) => [one.part_id, 'category', one.bank, keys.get(one.category_id) ?? ''])
		]);
}

/** The same for a bank that is about to go. */
export async function rememberBanks(connection: PoolConnection, where: string, values: unknown[]): Promise<void> {
	await run(
		connection,
		`INSERT INTO quiz_part_lost (part_id, kind, bank_name) SELECT k.part_id, 'bank', b.name FROM quiz_part_banks k JOIN banks b ON b.id = k.bank_id WHERE ${where}`,
		values
	);
}

/** Gives the parts of quizzes back what they had lost and what is there again: banks by name, categories by path, questions by what they say. */
export async function findLost(connection: PoolConnection, courseId: number): Promise<void> {
	const ofCourse = 'JOIN quiz_parts p ON p.id = l.part_id JOIN quizzes z ON z.id = p.quiz_id AND z.course_id = ?';
	const lost = await rows<{ id: number; part_id: number; bankId: number; name: string }>(
		connection,
		`SELECT l.id, l.part_id, b.id AS bankId, l.name FROM quiz_part_lost l ${ofCourse} JOIN banks b ON b.course_id = z.course_id AND b.name = l.bank_name WHERE l.kind = 'category'`,
		[courseId]
	);
	const banks = [...new Set(lost.map((one) => one.bankId))];
	const trees = await Promise.all(banks.map((bankId) => categoryTree(connection, bankId)));
	const ids = new Map(trees.flatMap((tree, at) => tree.map((node) => [`${banks[at]}\n${node.key}`, node.id])));
	const back = lost.flatMap((category) => {
		const id = ids.get(`${category.bankId}\n${category.name}`);
		return id === undefined ? [] : [{ ...category, categoryId: id }];
	});
	if (back.length) {
		await run(connection, 'INSERT IGNORE INTO quiz_part_categories (part_id, category_id) VALUES ?', [
			back.map((one) => [one.part_id, one.categoryId])
		]);
		await run(connection, 'DELETE FROM quiz_part_lost WHERE id IN (?)', [back.map((one) => one.id)]);
	}
	await run(
		connection,
		`INSERT IGNORE INTO quiz_part_banks (part_id, bank_id) SELECT l.part_id, b.id FROM quiz_part_lost l ${ofCourse} JOIN banks b ON b.course_id = z.course_id AND b.name = l.bank_name WHERE l.kind = 'bank'`,
		[courseId]
	);
	await run(
		connection,
		`DELETE l FROM quiz_part_lost l ${ofCourse} JOIN banks b ON b.course_id = z.course_id AND b.name = l.bank_name WHERE l.kind = 'bank'`,
		[courseId]
	);
	// by_fingerprint
	await run(
		connection,
		`INSERT IGNORE INTO quiz_part_questions (part_id, question_id, position, role)
		SELECT l.part_id, MIN(q.id), l.position, l.role FROM quiz_part_lost l ${ofCourse} JOIN questions q ON q.course_id = z.course_id AND q.fingerprint = l.fingerprint WHERE l.kind = 'question' GROUP BY l.id, l.part_id, l.position, l.role`,
		[courseId]
	);
	await run(
		connection,
		`DELETE l FROM quiz_part_lost l ${ofCourse} JOIN questions q ON q.course_id = z.course_id AND q.fingerprint = l.fingerprint WHERE l.kind = 'question'`,
		[courseId]
	);
}
