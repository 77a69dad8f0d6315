import type { Pool, PoolConnection } from 'mysql2/promise';
import { binPlace } from '../changes/bin';
import { beginDeed, endDeed, type Done } from '../changes/deed';
import { changeThings } from '../changes/things';
import { placeQuestions, placeWithBank } from '../changes/place';
import { touchCourse } from '../courses/counts';
import { row, rows, run, transaction, type Database } from '../db/pool';
import { Refused } from '../loads/refused';
import { rememberBanks, rememberCategories } from '../quizzes/lost';
import { checkSoon } from '../checks/course';
import { pathOfKey } from '$core/take-in/paths';
import { ensureByDeed } from './by-deed';
import { categoryTree } from './tree';
import { told } from '../told';

/** Who changes what in which course. */
export interface Changer {
	courseId: number;
	personId: number;
}

/** The address of a bank. */
export const addressOf = (courseId: number, bankId: number) => `/courses/${courseId}/banks?bank=${bankId}`;

/** A bank of a course, locked. Throws Refused where it has none. */
export async function bankOf(
	connection: PoolConnection,
	courseId: number,
	bankId: number
): Promise<{ id: number; name: string; description: string | null }> {
	const bank = await row<{ id: number; name: string; description: string | null }>(
		connection,
		'SELECT id, name, description FROM banks WHERE id = ? AND course_id = ? FOR UPDATE',
		[bankId, courseId]
	);
	if (!bank) throw new Refused('There is no such bank in this course any more.');
	return bank;
}

async function refuseName(db: Database, courseId: number, name: string, except = 0): Promise<void> {
	// by_name
	if (await row(db, 'SELECT id FROM banks WHERE course_id = ? AND name = ? AND id <> ?', [courseId, name, except]))
		throw new Refused(`Another bank of this course is called “${name}”.`);
}

/** Makes a bank with nothing in it. Throws Refused where another has the name. */
export async function makeBank(
	pool: Pool,
	{ courseId, personId }: Changer,
	name: string,
	description = ''
): Promise<Done & { bankId: number }> {
	return transaction(pool, async (connection) => {
		const deedId = await beginDeed(connection, { courseId, personId, deed: 'made the bank', subject: name });
		const bankId = await insertBank(connection, deedId, { courseId, personId }, name, description);
		await run(connection, 'UPDATE ledger SET address = ? WHERE id = ?', [addressOf(courseId, bankId), deedId]);
		await touchCourse(connection, courseId);
		return { deedId, questions: 0, words: `The bank “${name}” is made.`, bankId };
	});
}

/** Makes a bank by a deed; gives its key. Throws Refused where another has the name. */
export async function insertBank(
	connection: PoolConnection,
	deedId: number,
	{ courseId, personId }: Changer,
	name: string,
	description: string
): Promise<number> {
	await refuseName(connection, courseId, name);
	const [bankId] = await changeThings(connection, deedId, 'bank', [], async () => [
		(
			await run(connection, 'INSERT INTO banks (course_id, name, description, made_by) VALUES (?, ?, ?, ?)', [
				courseId,
				name,
				description || null,
				personId
			])
		).id
	]);
	return bankId!;
}

/** Changes what a bank is called and what is said of it. Throws Refused where another has the name. */
export async function renameBank(
	pool: Pool,
	{ courseId, personId }: Changer,
	bankId: number,
	name: string,
	description: string
): Promise<Done> {
	return transaction(pool, async (connection) => {
		const before = await bankOf(connection, courseId, bankId);
		await refuseName(connection, courseId, name, bankId);
		const deedId = await beginDeed(connection, {
			courseId,
			personId,
			deed: before.name === name ? 'described the bank' : 'renamed the bank',
			subject: before.name === name ? name : `${before.name} → ${name}`,
			address: addressOf(courseId, bankId)
		});
		await changeThings(connection, deedId, 'bank', [bankId], async () => {
			await run(connection, 'UPDATE banks SET name = ?, description = ? WHERE id = ?', [
				name,
				description || null,
				bankId
			]);
			return undefined;
		});
		await touchCourse(connection, courseId);
		await endDeed(connection, deedId, 0);
		return { deedId, questions: 0, words: `The bank is called “${name}”.` };
	});
}

/** A name for a bank in a course, with a number behind it where another has it already. */
export async function freeName(db: Database, courseId: number, name: string): Promise<string> {
	const taken = new Set(
		(await rows<{ name: string }>(db, 'SELECT name FROM banks WHERE course_id = ?', [courseId])).map((bank) =>
			bank.name.toLowerCase()
		)
	);
	for (let number = 1; ; number += 1) {
		const tried = number === 1 ? name : `${name.slice(0, 180)} (${number})`;
		if (!taken.has(tried.toLowerCase())) return tried;
	}
}

/** Takes a bank with all that is in it to another course, or to the bin: the bank keeps its categories and its key. */
async function carryBank(
	connection: PoolConnection,
	{ deedId, personId }: { deedId: number; personId: number },
	from: number,
	to: number,
	bankId: number
): Promise<{ questions: number; name: string }> {
	const bank = await bankOf(connection, from, bankId);
	const name = await freeName(connection, to, bank.name);
	const tree = await categoryTree(connection, bankId);
	const foreign = 'JOIN quiz_parts p ON p.id = k.part_id JOIN quizzes z ON z.id = p.quiz_id AND z.course_id <> ?';
	await rememberBanks(connection, 'b.id = ?', [bankId]);
	await rememberCategories(
		connection,
		tree.map(({ id }) => id)
	);
	await changeThings(connection, deedId, 'bank', [bankId], async () => {
		await run(connection, 'UPDATE banks SET course_id = ?, name = ? WHERE id = ?', [to, name, bankId]);
		return undefined;
	});
	await run(connection, `DELETE k FROM quiz_part_banks k ${foreign} WHERE k.bank_id = ?`, [to, bankId]);
	if (tree.length)
		await run(connection, `DELETE k FROM quiz_part_categories k ${foreign} WHERE k.category_id IN (?)`, [
			to,
			tree.map(({ id }) => id)
		]);
	const questions = await placeWithBank(connection, from, to, bankId, { deedId, personId });
	await checkSoon(connection, from);
	return { questions, name };
}

/** Puts a bank with all that is in it into the bin of its course. */
export async function binBank(pool: Pool, { courseId, personId }: Changer, bankId: number): Promise<Done> {
	return transaction(pool, async (connection) => {
		const bank = await bankOf(connection, courseId, bankId);
		const deedId = await beginDeed(connection, {
			courseId,
			personId,
			deed: 'put the bank in the bin',
			subject: bank.name,
			address: `/courses/${courseId}/bin`
		});
		const bin = await binPlace(connection, courseId);
		const { questions } = await carryBank(connection, { deedId, personId }, courseId, bin.courseId, bankId);
		await endDeed(connection, deedId, questions);
		return { deedId, questions, words: `The bank “${bank.name}” is in the bin, with ${told(questions)}.` };
	});
}

/** Moves a bank with all that is in it to another course, in which the person may work. */
export async function moveBank(
	pool: Pool,
	{ courseId, personId }: Changer,
	bankId: number,
	to: { id: number; name: string; code: string }
): Promise<Done> {
	return transaction(pool, async (connection) => {
		const bank = await bankOf(connection, courseId, bankId);
		const deedId = await beginDeed(connection, {
			courseId,
			personId,
			deed: 'moved the bank',
			subject: `${bank.name} to ${to.name} (${to.code})`,
			address: addressOf(to.id, bankId)
		});
		const { questions, name } = await carryBank(connection, { deedId, personId }, courseId, to.id, bankId);
		await endDeed(connection, deedId, questions);
		return { deedId, questions, words: `“${name}” is in ${to.name} (${to.code}) now, with ${told(questions)}.` };
	});
}

/** Puts all that is in a bank into another of the course, merged by the paths of the categories; the bank is gone then. */
export async function mergeBanks(
	pool: Pool,
	{ courseId, personId }: Changer,
	fromId: number,
	toId: number
): Promise<Done> {
	if (fromId === toId) throw new Refused('A bank cannot be merged with itself. Choose another.');
	return transaction(pool, async (connection) => {
		const [from, to] = [await bankOf(connection, courseId, fromId), await bankOf(connection, courseId, toId)];
		const deedId = await beginDeed(connection, {
			courseId,
			personId,
			deed: 'merged banks',
			subject: `${from.name} into ${to.name}`,
			address: addressOf(courseId, toId)
		});
		const tree = await categoryTree(connection, fromId);
		const ids = await ensureByDeed(
			connection,
			deedId,
			toId,
			tree.map(({ key }) => pathOfKey(key))
		);
		const landing = new Map(tree.map(({ id, key }) => [id, ids.get(key) ?? null]));
		await redirectQuizzes(connection, landing, fromId, toId);
		const standing = await rows<{ id: number; categoryId: number | null }>(
			connection,
			'SELECT id, category_id AS categoryId FROM questions WHERE bank_id = ? ORDER BY id FOR UPDATE',
			[fromId]
		);
		const questions = await placeQuestions(
			connection,
			courseId,
			courseId,
			standing.map(({ id, categoryId }) => ({
				id,
				bankId: toId,
				categoryId: categoryId === null ? null : (landing.get(categoryId) ?? null)
			})),
			{ deedId, personId }
		);
		const categories = tree.map(({ id }) => id);
		await changeThings(connection, deedId, 'category', categories, async () => {
			if (categories.length) await run(connection, 'DELETE FROM categories WHERE id IN (?)', [categories]);
			return undefined;
		});
		await changeThings(connection, deedId, 'bank', [fromId], async () => {
			await run(connection, 'DELETE FROM banks WHERE id = ?', [fromId]);
			return undefined;
		});
		await endDeed(connection, deedId, questions);
		return { deedId, questions, words: `“${from.name}” is part of “${to.name}” now, with ${told(questions)}.` };
	});
}

/**
 * Parts of quizzes that draw from categories, or a bank, that go into others draw from those from then on. A category that
 * lands nowhere is the bank that it goes to; `fromBank` null where no bank goes.
 */
export async function redirectQuizzes(
	connection: PoolConnection,
	landing: ReadonlyMap<number, number | null>,
	fromBank: number | null,
	toBank: number
): Promise<void> {
	const old = [...landing.keys()];
	const parts = old.length
		? await rows<{ part: number; category: number }>(
				connection,
				'SELECT part_id AS part, category_id AS category FROM quiz_part_categories WHERE category_id IN (?)',
				[old]
			)
		: [];
	const now = parts.flatMap(({ part, category }) => {
		const to = landing.get(category);
		return typeof to === 'number' ? [[part, to]] : [];
	});
	if (now.length)
		await run(connection, 'INSERT IGNORE INTO quiz_part_categories (part_id, category_id) VALUES ?', [now]);
	const whole = parts.flatMap(({ part, category }) => (landing.get(category) === null ? [[part, toBank]] : []));
	if (whole.length) await run(connection, 'INSERT IGNORE INTO quiz_part_banks (part_id, bank_id) VALUES ?', [whole]);
	if (fromBank !== null)
		await run(
			connection,
			'INSERT IGNORE INTO quiz_part_banks (part_id, bank_id) SELECT part_id, ? FROM quiz_part_banks WHERE bank_id = ?',
			[toBank, fromBank]
		);
}
