import type { Pool, PoolConnection } from 'mysql2/promise';
import { pathKey, pathOfKey } from '$core/take-in/paths';
import { withUnder } from '$core/take-in/under';
import { copyQuestions } from '../changes/copy';
import { beginDeed, endDeed, type Done } from '../changes/deed';
import { placeQuestions } from '../changes/place';
import { changeThings } from '../changes/things';
import { checkSoon } from '../checks/course';
import { touchCourse } from '../courses/counts';
import { rows, run, transaction } from '../db/pool';
import { Refused } from '../loads/refused';
import { rememberCategories } from '../quizzes/lost';
import { told } from '../told';
import { ensureByDeed } from './by-deed';
import { addressOf, bankOf, freeName, insertBank, redirectQuizzes, type Changer } from './change';
import { categoryTree } from './tree';

/** What a bank that was made of another, or of a part of it, came to. */
export interface Apart extends Done {
	bankId: number;
	courseId: number;
}

/** Where the categories of a bank stand in the new one, by their keys; null is the bank itself. */
async function landingOf(
	connection: PoolConnection,
	deedId: number,
	categories: { id: number; path: string[] }[],
	bankId: number
): Promise<Map<number, number | null>> {
	const paths = categories.map(({ path }) => path).filter((path) => path.length);
	const ids = await ensureByDeed(connection, deedId, bankId, paths);
	return new Map(categories.map(({ id, path }) => [id, path.length ? ids.get(pathKey(path))! : null]));
}

/**
 * Copies a bank with its categories and questions as a bank of its own, into its course or another one. It gets a number
 * behind its name where another bank there has it.
 */
export async function copyBank(
	pool: Pool,
	{ courseId, personId }: Changer,
	bankId: number,
	name: string,
	to: { id: number; name: string; code: string }
): Promise<Apart> {
	return transaction(pool, async (connection) => {
		const bank = await bankOf(connection, courseId, bankId);
		const free = await freeName(connection, to.id, name);
		const deedId = await beginDeed(connection, {
			courseId,
			personId,
			deed: 'copied the bank',
			subject: `${bank.name} → ${free}${to.id === courseId ? '' : ` in ${to.name} (${to.code})`}`
		});
		const by = { deedId, personId };
		const copy = await insertBank(connection, deedId, { courseId: to.id, personId }, free, bank.description ?? '');
		const tree = await categoryTree(connection, bankId);
		const categories = tree.map(({ id, key }) => ({ id, path: pathOfKey(key) }));
		const landing = await landingOf(connection, deedId, categories, copy);
		const standing = await rows<{ id: number; categoryId: number | null }>(
			connection,
			'SELECT id, category_id AS categoryId FROM questions WHERE bank_id = ? ORDER BY id',
			[bankId]
		);
		const placings = standing.map(({ id, categoryId }) => ({
			id,
			bankId: copy,
			categoryId: categoryId === null ? null : (landing.get(categoryId) ?? null)
		}));
		const questions = await copyQuestions(connection, to.id, placings, by);
		await run(connection, 'UPDATE ledger SET address = ? WHERE id = ?', [addressOf(to.id, copy), deedId]);
		await touchCourse(connection, to.id);
		await endDeed(connection, deedId, questions);
		const where = to.id === courseId ? '' : ` in ${to.name} (${to.code})`;
		const words = `“${bank.name}” is copied as “${free}”${where}, with ${told(questions)}.`;
		return { deedId, questions, words, bankId: copy, courseId: to.id };
	});
}

/**
 * Makes a bank of its own of a category: what is under it stands at the top of that bank then, and quizzes that draw from
 * it draw from there. Throws Refused where the category is gone, or another bank has the name.
 */
export async function splitBank(
	pool: Pool,
	{ courseId, personId }: Changer,
	bankId: number,
	categoryId: number,
	name: string
): Promise<Apart> {
	return transaction(pool, async (connection) => {
		const bank = await bankOf(connection, courseId, bankId);
		const tree = await categoryTree(connection, bankId);
		const root = tree.find(({ id }) => id === categoryId);
		if (!root) throw new Refused('This category is not in the bank any more.');
		const deedId = await beginDeed(connection, {
			courseId,
			personId,
			deed: 'split the bank',
			subject: `${root.name} of ${bank.name} → ${name}`
		});
		const by = { deedId, personId };
		const own = await insertBank(connection, deedId, { courseId, personId }, name, '');
		const under = withUnder(tree, categoryId);
		const categories = under.map((id) => ({
			id,
			path: pathOfKey(tree.find((node) => node.id === id)!.key).slice(root.depth + 1)
		}));
		const landing = await landingOf(connection, deedId, categories, own);
		await redirectQuizzes(connection, landing, null, own);
		const standing = await rows<{ id: number; categoryId: number }>(
			connection,
			'SELECT id, category_id AS categoryId FROM questions WHERE bank_id = ? AND category_id IN (?) ORDER BY id FOR UPDATE',
			[bankId, under]
		);
		const placings = standing.map(({ id, categoryId: from }) => ({
			id,
			bankId: own,
			categoryId: landing.get(from) ?? null
		}));
		const questions = await placeQuestions(connection, courseId, courseId, placings, by);
		await rememberCategories(connection, under);
		await changeThings(connection, deedId, 'category', under, async () => {
			await run(connection, 'DELETE FROM categories WHERE id IN (?)', [under]);
			return undefined;
		});
		await run(connection, 'UPDATE ledger SET address = ? WHERE id = ?', [addressOf(courseId, own), deedId]);
		await checkSoon(connection, courseId);
		await endDeed(connection, deedId, questions);
		const words = `“${root.name}” is the bank “${name}” now, with ${told(questions)}.`;
		return { deedId, questions, words, bankId: own, courseId };
	});
}
