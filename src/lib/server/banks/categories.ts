import type { Pool, PoolConnection } from 'mysql2/promise';
import { binPlace } from '../changes/bin';
import { beginDeed, endDeed, type Done } from '../changes/deed';
import { placeQuestions } from '../changes/place';
import { changeThings } from '../changes/things';
import { checkSoon } from '../checks/course';
import { touchCourse } from '../courses/counts';
import { rows, run, transaction } from '../db/pool';
import { Refused } from '../loads/refused';
import { rememberCategories } from '../quizzes/lost';
import { paddedNames } from '$core/take-in/padded';
import { bankOf, type Changer } from './change';
import { categoryTree, type CategoryNode } from './tree';
import { withUnder } from '$core/take-in/under';
import { told } from '../told';

/** The longest name of a category, in letters, and how deep a tree may be. */
const deepest = 20;

/** What a category is called when nothing stands around it. */
const called = (name: string) => name.replace(/\n/g, ' ').trim().slice(0, 255);

interface InTree {
	tree: CategoryNode[];
	node: CategoryNode;
}

async function inTree(
	connection: PoolConnection,
	courseId: number,
	bankId: number,
	categoryId: number
): Promise<InTree> {
	await bankOf(connection, courseId, bankId);
	const tree = await categoryTree(connection, bankId);
	const node = tree.find(({ id }) => id === categoryId);
	if (!node) throw new Refused('There is no such category in this bank any more.');
	return { tree, node };
}

const addressOf = (courseId: number, bankId: number, categoryId: number | null) =>
	`/courses/${courseId}/banks?bank=${bankId}${categoryId === null ? '' : `&category=${categoryId}`}`;

function refuseTwin(tree: CategoryNode[], parentId: number | null, name: string, except: number | null): void {
	if (tree.some((node) => node.parentId === parentId && node.name === name && node.id !== except))
		throw new Refused(`There is a category “${name}” at that place already. Merge the two instead.`);
}

const level = (tree: CategoryNode[], parentId: number | null) => tree.filter((node) => node.parentId === parentId);

/** Makes a category under another, or at the top of a bank where none is named. Throws Refused where there is one of that name. */
export async function makeCategory(
	pool: Pool,
	{ courseId, personId }: Changer,
	bankId: number,
	parentId: number | null,
	name: string
): Promise<Done & { categoryId: number }> {
	return transaction(pool, async (connection) => {
		await bankOf(connection, courseId, bankId);
		const tree = await categoryTree(connection, bankId);
		const parent = tree.find(({ id }) => id === parentId);
		if (parentId !== null && !parent) throw new Refused('The category above is not there any more.');
		if ((parent?.depth ?? -1) + 1 >= deepest)
			throw new Refused(`Categories stand ${deepest} deep in one another at the most.`);
		refuseTwin(tree, parentId, called(name), null);
		const deedId = await beginDeed(connection, {
			courseId,
			personId,
			deed: 'made the category',
			subject: called(name),
			address: addressOf(courseId, bankId, null)
		});
		const [categoryId] = await changeThings(connection, deedId, 'category', [], async () => [
			(
				await run(connection, 'INSERT INTO categories (bank_id, parent_id, name, position) VALUES (?, ?, ?, ?)', [
					bankId,
					parentId,
					called(name),
					tree.length
				])
			).id
		]);
		await touchCourse(connection, courseId);
		return { deedId, questions: 0, words: `The category “${called(name)}” is made.`, categoryId: categoryId! };
	});
}

/** Changes what a category is called, and its reference code. */
export async function renameCategory(
	pool: Pool,
	{ courseId, personId }: Changer,
	bankId: number,
	categoryId: number,
	{ name, code }: { name: string; code: string }
): Promise<Done> {
	return transaction(pool, async (connection) => {
		const { tree, node } = await inTree(connection, courseId, bankId, categoryId);
		refuseTwin(tree, node.parentId, called(name), categoryId);
		const deedId = await beginDeed(connection, {
			courseId,
			personId,
			deed: 'renamed the category',
			subject: node.name === called(name) ? `${node.name}, code ${code || 'none'}` : `${node.name} → ${called(name)}`,
			address: addressOf(courseId, bankId, categoryId)
		});
		await changeThings(connection, deedId, 'category', [categoryId], async () => {
			await run(connection, 'UPDATE categories SET name = ?, code = ? WHERE id = ?', [
				called(name),
				code.trim().slice(0, 60),
				categoryId
			]);
			return undefined;
		});
		await touchCourse(connection, courseId);
		await endDeed(connection, deedId, 0);
		return { deedId, questions: 0, words: `The category is called “${called(name)}”.` };
	});
}

/** Writes the order of a level anew: the keys of its categories as they are to stand. */
async function writeOrder(connection: PoolConnection, deedId: number, ids: readonly number[]): Promise<void> {
	if (!ids.length) return;
	await changeThings(connection, deedId, 'category', ids, async () => {
		await run(
			connection,
			`UPDATE categories SET position = FIELD(id, ${ids.map(() => '?').join(', ')}) WHERE id IN (?)`,
			[...ids, ids]
		);
		return undefined;
	});
}

/**
 * Puts a category with all under it under another of the same bank, or at the top, before one of its new neighbours or at
 * the end. Throws Refused where it would stand in itself, or beside one of the same name.
 */
export async function moveCategory(
	pool: Pool,
	{ courseId, personId }: Changer,
	bankId: number,
	categoryId: number,
	parentId: number | null,
	beforeId: number | null
): Promise<Done> {
	return transaction(pool, async (connection) => {
		const { tree, node } = await inTree(connection, courseId, bankId, categoryId);
		if (parentId !== null && !tree.some(({ id }) => id === parentId))
			throw new Refused('The category above is not there any more.');
		if (parentId !== null && withUnder(tree, categoryId).includes(parentId))
			throw new Refused('A category cannot stand under itself.');
		refuseTwin(tree, parentId, node.name, categoryId);
		const parent = tree.find(({ id }) => id === parentId);
		const deedId = await beginDeed(connection, {
			courseId,
			personId,
			deed: 'moved the category',
			subject: `${node.name} ${parent ? `under ${parent.name}` : 'to the top of the bank'}`,
			address: addressOf(courseId, bankId, categoryId)
		});
		await changeThings(connection, deedId, 'category', [categoryId], async () => {
			await run(connection, 'UPDATE categories SET parent_id = ? WHERE id = ?', [parentId, categoryId]);
			return undefined;
		});
		const others = level(tree, parentId)
			.map(({ id }) => id)
			.filter((id) => id !== categoryId);
		const at = beforeId === null ? -1 : others.indexOf(beforeId);
		others.splice(at < 0 ? others.length : at, 0, categoryId);
		await writeOrder(connection, deedId, others);
		await checkSoon(connection, courseId);
		await endDeed(connection, deedId, node.all);
		return {
			deedId,
			questions: node.all,
			words: `“${node.name}” stands ${parent ? `under “${parent.name}”` : 'at the top'} now, with ${told(node.all)}.`
		};
	});
}

/** Sorts the categories of a level by their names, numbers in their natural order: 2 before 10. */
export async function sortCategories(
	pool: Pool,
	{ courseId, personId }: Changer,
	bankId: number,
	parentId: number | null
): Promise<Done> {
	return transaction(pool, async (connection) => {
		await bankOf(connection, courseId, bankId);
		const tree = await categoryTree(connection, bankId);
		const compare = new Intl.Collator('en', { numeric: true, sensitivity: 'base' }).compare;
		const ids = level(tree, parentId)
			.sort((a, b) => compare(a.name, b.name))
			.map(({ id }) => id);
		const deedId = await beginDeed(connection, {
			courseId,
			personId,
			deed: 'sorted categories',
			subject: tree.find(({ id }) => id === parentId)?.name ?? 'the top of the bank',
			address: addressOf(courseId, bankId, parentId)
		});
		await writeOrder(connection, deedId, ids);
		await touchCourse(connection, courseId);
		await endDeed(connection, deedId, 0);
		return { deedId, questions: 0, words: `${ids.length} categories stand in the order of their names.` };
	});
}

/** Gives categories other names, as part of a deed. */
export async function renameAll(
	connection: PoolConnection,
	deedId: number,
	names: ReadonlyMap<number, string>
): Promise<void> {
	const ids = [...names.keys()];
	if (!ids.length) return;
	await changeThings(connection, deedId, 'category', ids, async () => {
		await run(
			connection,
			`UPDATE categories SET name = ELT(FIELD(id, ${ids.map(() => '?').join(', ')}), ${ids.map(() => '?').join(', ')}) WHERE id IN (?)`,
			[...ids, ...names.values(), ids]
		);
		return undefined;
	});
}

/**
 * Numbers the categories of a level anew in the order in which they stand, all numbers of one length, so that systems
 * which sort by letters keep the order: “01 Theory”, “02 Tables”. A number that was there before goes.
 */
export async function numberCategories(
	pool: Pool,
	{ courseId, personId }: Changer,
	bankId: number,
	parentId: number | null
): Promise<Done> {
	return transaction(pool, async (connection) => {
		await bankOf(connection, courseId, bankId);
		const tree = await categoryTree(connection, bankId);
		const beside = level(tree, parentId);
		const names = paddedNames(beside.map(({ name }) => name));
		const deedId = await beginDeed(connection, {
			courseId,
			personId,
			deed: 'numbered categories',
			subject: tree.find(({ id }) => id === parentId)?.name ?? 'the top of the bank',
			address: addressOf(courseId, bankId, parentId)
		});
		await renameAll(connection, deedId, new Map(beside.map(({ id }, at) => [id, names[at]!])));
		await touchCourse(connection, courseId);
		await endDeed(connection, deedId, 0);
		return {
			deedId,
			questions: 0,
			words: `${told(names.length, 'category', 'categories')} numbered: ${names[0] ?? ''} …`
		};
	});
}

/** The questions that stand in categories, with the category of each. */
async function standingIn(
	connection: PoolConnection,
	bankId: number,
	categories: readonly number[]
): Promise<{ id: number; categoryId: number }[]> {
	// by_category
	return rows(
		connection,
		'SELECT id, category_id AS categoryId FROM questions WHERE bank_id = ? AND category_id IN (?) ORDER BY id FOR UPDATE',
		[bankId, categories]
	);
}

/** Takes categories away, as part of a deed; quizzes that drew from them remember their names. */
export async function dropCategories(
	connection: PoolConnection,
	deedId: number,
	ids: readonly number[]
): Promise<void> {
	await rememberCategories(connection, [...ids]);
	await changeThings(connection, deedId, 'category', ids, async () => {
		await run(connection, 'DELETE FROM categories WHERE id IN (?)', [ids]);
		return undefined;
	});
}

/**
 * Takes a category away with all under it. Its questions, with those under it, go to the category above (or to the bank
 * itself), to another category of the bank, or to the bin.
 */
export async function dropCategory(
	pool: Pool,
	{ courseId, personId }: Changer,
	bankId: number,
	categoryId: number,
	questionsTo: 'above' | 'bin' | { categoryId: number }
): Promise<Done> {
	return transaction(pool, async (connection) => {
		const { tree, node } = await inTree(connection, courseId, bankId, categoryId);
		const gone = withUnder(tree, categoryId);
		const target = typeof questionsTo === 'object' ? questionsTo.categoryId : node.parentId;
		if (typeof questionsTo === 'object' && (gone.includes(target!) || !tree.some(({ id }) => id === target)))
			throw new Refused('The questions cannot go there: choose a category that stays.');
		const deedId = await beginDeed(connection, {
			courseId,
			personId,
			deed: 'took the category away',
			subject: node.name,
			address: addressOf(courseId, bankId, target)
		});
		const standing = await standingIn(connection, bankId, gone);
		const bin = questionsTo === 'bin' ? await binPlace(connection, courseId) : null;
		const questions = await placeQuestions(
			connection,
			courseId,
			bin?.courseId ?? courseId,
			standing.map(({ id }) => ({ id, bankId: bin?.bankId ?? bankId, categoryId: bin ? null : target })),
			{ deedId, personId }
		);
		await dropCategories(connection, deedId, gone);
		await checkSoon(connection, courseId);
		await endDeed(connection, deedId, questions);
		const where = bin
			? 'are in the bin'
			: `stand in “${tree.find(({ id }) => id === target)?.name ?? 'the bank itself'}”`;
		return {
			deedId,
			questions,
			words: `“${node.name}” is gone; ${told(questions)} ${questions === 1 ? where.replace(/^are /, 'is ').replace(/^stand /, 'stands ') : where}.`
		};
	});
}

/** Puts all that is in a category into another of the same bank, categories under it by their names; it is gone then. */
export async function mergeCategory(
	pool: Pool,
	{ courseId, personId }: Changer,
	bankId: number,
	fromId: number,
	toId: number
): Promise<Done> {
	return transaction(pool, async (connection) => {
		const { tree, node: from } = await inTree(connection, courseId, bankId, fromId);
		const to = tree.find(({ id }) => id === toId);
		if (!to || withUnder(tree, fromId).includes(toId))
			throw new Refused('A category cannot be merged into itself, or into one under it.');
		const deedId = await beginDeed(connection, {
			courseId,
			personId,
			deed: 'merged categories',
			subject: `${from.name} into ${to.name}`,
			address: addressOf(courseId, bankId, toId)
		});
		const landing = new Map<number, number>([[fromId, toId]]);
		const moved: [id: number, parent: number][] = [];
		for (const node of tree.filter(({ id }) => id !== fromId && withUnder(tree, fromId).includes(id))) {
			const above = landing.get(node.parentId!);
			if (above === undefined) continue;
			const twin = tree.find((other) => other.parentId === above && other.name === node.name);
			if (twin) landing.set(node.id, twin.id);
			else moved.push([node.id, above]);
		}
		await changeThings(
			connection,
			deedId,
			'category',
			moved.map(([id]) => id),
			async () => {
				if (moved.length)
					await run(
						connection,
						`UPDATE categories SET parent_id = ELT(FIELD(id, ${moved.map(() => '?').join(', ')}), ${moved.map(() => '?').join(', ')}) WHERE id IN (?)`,
						[...moved.map(([id]) => id), ...moved.map(([, parent]) => parent), moved.map(([id]) => id)]
					);
				return undefined;
			}
		);
		const gone = [...landing.keys()];
		await run(
			connection,
			`INSERT IGNORE INTO quiz_part_categories (part_id, category_id) SELECT part_id, ELT(FIELD(category_id, ${gone.map(() => '?').join(', ')}), ${gone.map(() => '?').join(', ')}) FROM quiz_part_categories WHERE category_id IN (?)`,
			[...gone, ...landing.values(), gone]
		);
		const standing = await standingIn(connection, bankId, gone);
		const questions = await placeQuestions(
			connection,
			courseId,
			courseId,
			standing.map(({ id, categoryId }) => ({ id, bankId, categoryId: landing.get(categoryId)! })),
			{ deedId, personId }
		);
		await changeThings(connection, deedId, 'category', gone, async () => {
			await run(connection, 'DELETE FROM categories WHERE id IN (?)', [gone]);
			return undefined;
		});
		await checkSoon(connection, courseId);
		await endDeed(connection, deedId, questions);
		return { deedId, questions, words: `“${from.name}” is part of “${to.name}” now, with ${told(questions)}.` };
	});
}
