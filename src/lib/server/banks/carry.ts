import type { Pool, PoolConnection } from 'mysql2/promise';
import { pathKey, pathOfKey } from '$core/take-in/paths';
import { binPlace } from '../changes/bin';
import { placeNamed } from '../changes/bulk';
import { copyQuestions } from '../changes/copy';
import { beginDeed, endDeed, type Done } from '../changes/deed';
import { placeQuestions } from '../changes/place';
import { changeThings } from '../changes/things';
import { checkSoon } from '../checks/course';
import { rows, run, transaction } from '../db/pool';
import { fillWords, matcher, type Known } from '../loads/against';
import { Refused } from '../loads/refused';
import { wordsOfColumn } from '../questions/columns';
import { rememberCategories } from '../quizzes/lost';
import { ensureByDeed } from './by-deed';
import { bankOf, type Changer } from './change';
import { categoryTree, type CategoryNode } from './tree';
import { withUnder } from '$core/take-in/under';
import { told } from '../told';

/** What carrying categories elsewhere comes to: in all = new + changed + near + same; only the last are not carried. */
export interface CarryCounts {
	inAll: number;
	/** Questions that the bank did not have, that are changes of some, that are nearly the same as some, and the same. */
	fresh: number;
	changed: number;
	near: number;
	same: number;
	categories: number;
	/** Categories that the bank lacked. */
	made: number;
}

/** The same, once it is done. */
export interface Carried extends Done, CarryCounts {
	/** Where they are now. */
	to: { courseId: number; bankId: number; words: string; course: string };
}

interface Standing extends Known {
	categoryId: number;
	fingerprint: Buffer;
}

/** The roots of what is chosen: categories of which none stands under another that is chosen, and the bank as a whole for none. */
function rootsOf(tree: CategoryNode[], chosen: readonly number[]): CategoryNode[] {
	const under = new Set(chosen.flatMap((id) => withUnder(tree, id).slice(1)));
	const roots = tree.filter(({ id }) => chosen.includes(id) && !under.has(id));
	if (roots.length < new Set(chosen.filter((id) => !under.has(id))).size || !roots.length)
		throw new Refused('A category that was chosen is not in this bank any more.');
	return roots;
}

/** So many categories are named, where there are more. */
const mostNamed = 3;

/** The names of categories, or of the first of very many. */
function namesOf(categories: readonly { name: string }[]): string {
	const names = categories.map(({ name }) => name);
	const more = names.length - mostNamed;
	return more > 1 ? `${names.slice(0, mostNamed).join(', ')} and ${more} more` : names.join(', ');
}

const columns = 'id, identifier, title, category_id AS categoryId, fingerprint, word_hashes AS words';
type Stored = Omit<Standing, 'words'> & { words: Buffer | null };
const known = (stored: Stored[]): Standing[] =>
	stored.map((question) => ({
		...question,
		words: question.words ? wordsOfColumn(question.words) : new Uint32Array()
	}));

/** What is carried where: checked, and with what is under it. Throws Refused. */
async function carrying(
	connection: PoolConnection,
	{ courseId, personId }: Changer,
	bankId: number,
	chosen: readonly number[],
	target: { bankId: number; categoryId: number | null }
) {
	const bank = await bankOf(connection, courseId, bankId);
	const to = await placeNamed(connection, personId, target);
	const tree = await categoryTree(connection, bankId);
	const roots = rootsOf(tree, chosen);
	if (to.bankId === bankId) throw new Refused('They stand in that bank already. Move them in its tree.');
	return { bank, to, tree, roots, carried: roots.flatMap(({ id }) => withUnder(tree, id)) };
}

/** What `carryCategories` would come to, in numbers; nothing is changed. Throws Refused where it would. */
export async function carryPreview(
	pool: Pool,
	who: Changer,
	bankId: number,
	chosen: readonly number[],
	target: { bankId: number; categoryId: number | null }
): Promise<CarryCounts> {
	return transaction(pool, async (connection) => {
		const { to, tree, roots, carried } = await carrying(connection, who, bankId, chosen, target);
		const there = await categoryTree(connection, to.bankId);
		const known = new Set(there.map(({ key }) => key));
		const keys = new Set([...landingPaths(tree, roots, there, to.categoryId).values()].map(pathKey));
		const { standing, counts } = await heldAgainst(connection, who.courseId, bankId, carried, to);
		return {
			inAll: standing.length,
			...counts,
			categories: carried.length,
			made: [...keys].filter((key) => !known.has(key)).length
		};
	});
}

/**
 * Moves or copies categories with all under them to another bank, of this or another course, under a category of it or at
 * its top. They are merged into what is there by their paths, and each question is held against those of the bank: what
 * is there already is not carried (a copy leaves it, a move puts it in the bin). A second time nothing is doubled.
 */
export async function carryCategories(
	pool: Pool,
	who: Changer,
	bankId: number,
	chosen: readonly number[],
	target: { bankId: number; categoryId: number | null },
	how: 'move' | 'copy'
): Promise<Carried> {
	const { courseId, personId } = who;
	return transaction(pool, async (connection) => {
		const { bank, to, tree, roots, carried } = await carrying(connection, who, bankId, chosen, target);
		const deedId = await beginDeed(connection, {
			courseId,
			personId,
			deed: how === 'move' ? 'moved categories' : 'copied categories',
			subject: `${namesOf(roots)} of ${bank.name} to ${to.words}${to.courseId === courseId ? '' : ` in ${to.course}`}`,
			address: `/courses/${to.courseId}/banks?bank=${to.bankId}`
		});
		const by = { deedId, personId };
		const landing = await landingsOf(connection, deedId, tree, roots, to);
		const { standing, counts, same } = await heldAgainst(connection, courseId, bankId, carried, to);
		const going = standing.filter(({ id }) => !same.has(id));
		const placings = going.map(({ id, categoryId }) => ({
			id,
			bankId: to.bankId,
			categoryId: landing.ids.get(categoryId)!
		}));
		const questions =
			how === 'copy'
				? await copyQuestions(connection, to.courseId, placings, by)
				: await placeQuestions(connection, courseId, to.courseId, placings, by);
		if (how === 'move') await leave(connection, courseId, carried, [...same], by);
		await endDeed(connection, deedId, questions);
		return {
			deedId,
			questions,
			inAll: standing.length,
			...counts,
			categories: carried.length,
			made: landing.made,
			to: { courseId: to.courseId, bankId: to.bankId, words: to.words, course: to.course },
			words: `${questions.toLocaleString('en')} of ${told(standing.length)} ${how === 'move' ? 'moved' : 'copied'} to ${to.words}${counts.same ? `; ${counts.same.toLocaleString('en')} were there already` : ''}.`
		};
	});
}

/** The path at which each category that is carried lands in the tree that is there. */
function landingPaths(
	tree: CategoryNode[],
	roots: CategoryNode[],
	there: CategoryNode[],
	categoryId: number | null
): Map<number, string[]> {
	const above = pathOfKey(there.find(({ id }) => id === categoryId)?.key ?? '');
	const paths = new Map<number, string[]>();
	for (const root of roots)
		for (const id of withUnder(tree, root.id)) {
			const path = pathOfKey(tree.find((node) => node.id === id)!.key);
			paths.set(id, [...above, ...path.slice(root.depth)]);
		}
	return paths;
}

/** Where each category that is carried lands, by its key; those that the bank lacks are made. */
async function landingsOf(
	connection: PoolConnection,
	deedId: number,
	tree: CategoryNode[],
	roots: CategoryNode[],
	to: { bankId: number; categoryId: number | null }
): Promise<{ ids: Map<number, number>; made: number }> {
	const there = await categoryTree(connection, to.bankId);
	const paths = landingPaths(tree, roots, there, to.categoryId);
	const ids = await ensureByDeed(connection, deedId, to.bankId, [...paths.values()]);
	return {
		ids: new Map([...paths].map(([id, path]) => [id, ids.get(pathKey(path))!])),
		made: ids.size - there.length
	};
}

/** Holds the questions of categories against those of the bank that they go to. */
async function heldAgainst(
	connection: PoolConnection,
	courseId: number,
	bankId: number,
	categories: readonly number[],
	to: { courseId: number; bankId: number }
): Promise<{
	standing: Standing[];
	counts: Pick<Carried, 'fresh' | 'changed' | 'near' | 'same'>;
	same: Set<number>;
}> {
	for (const course of new Set([courseId, to.courseId])) await fillWords(connection, course);
	// by_category
	const standing = known(
		await rows<Stored>(
			connection,
			`SELECT ${columns} FROM questions WHERE bank_id = ? AND category_id IN (?) ORDER BY id FOR UPDATE`,
			[bankId, categories]
		)
	);
	const there = known(
		await rows<Stored>(connection, `SELECT ${columns} FROM questions WHERE bank_id = ? ORDER BY id`, [to.bankId])
	);
	const byContent = new Map(there.map(({ id, fingerprint }) => [fingerprint.toString('hex'), id]));
	const match = matcher(there);
	const counts = { fresh: 0, changed: 0, near: 0, same: 0 };
	const same = new Set<number>();
	for (const question of standing) {
		const found = match({ ...question, same: byContent.get(question.fingerprint.toString('hex')) ?? null });
		if (found.match === 'same') same.add(question.id);
		counts[found.match === 'new' ? 'fresh' : found.match] += 1;
	}
	return { standing, counts, same };
}

/** Takes categories away from which all has moved; what the other bank had already goes to the bin. */
async function leave(
	connection: PoolConnection,
	courseId: number,
	categories: readonly number[],
	same: readonly number[],
	by: { deedId: number; personId: number }
): Promise<void> {
	const bin = await binPlace(connection, courseId);
	await placeQuestions(
		connection,
		courseId,
		bin.courseId,
		same.map((id) => ({ id, bankId: bin.bankId, categoryId: null })),
		by
	);
	await rememberCategories(connection, [...categories]);
	await changeThings(connection, by.deedId, 'category', categories, async () => {
		await run(connection, 'DELETE FROM categories WHERE id IN (?)', [categories]);
		return undefined;
	});
	await checkSoon(connection, courseId);
}
