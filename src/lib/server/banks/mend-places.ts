import type { Pool, PoolConnection } from 'mysql2/promise';
import { paddedNumbers } from '$core/take-in/padded';
import { withUnder } from '$core/take-in/under';
import { beginDeed, endDeed, type Done } from '../changes/deed';
import { checkSoon } from '../checks/course';
import { placeFindings, type PlaceFinding } from '../checks/places';
import { run, transaction } from '../db/pool';
import { Refused } from '../loads/refused';
import { told } from '../told';
import { dropCategories, renameAll } from './categories';
import type { Changer } from './change';
import { categoryTree, type CategoryNode } from './tree';

type InBank = Extract<PlaceFinding['place'], { bankId: number }>;

/** Does a mend in one tree, and gives how many categories it changed. */
type PlaceMender = (
	connection: PoolConnection,
	deedId: number,
	tree: CategoryNode[],
	places: readonly InBank[]
) => Promise<number>;

/** Takes categories away in which nothing stands, with all under them. */
const takeOut: PlaceMender = async (connection, deedId, tree, places) => {
	const ids = [
		...new Set(places.flatMap(({ categoryId }) => (categoryId === null ? [] : withUnder(tree, categoryId))))
	];
	if (ids.length) await dropCategories(connection, deedId, ids);
	return ids.length;
};

/** Pads the numbers in the names of levels. */
const pad: PlaceMender = async (connection, deedId, tree, places) => {
	const names = new Map<number, string>();
	for (const { categoryId } of places) {
		const level = tree.filter(({ parentId }) => parentId === categoryId);
		paddedNumbers(level.map(({ name }) => name)).forEach((name, at) => {
			if (name !== level[at]!.name) names.set(level[at]!.id, name);
		});
	}
	await renameAll(connection, deedId, names);
	return names.size;
};

const menders = new Map<string, { mender: PlaceMender; deed: string; did: string }>([
	['category-empty', { mender: takeOut, deed: 'took out empty categories', did: 'taken out' }],
	['category-order', { mender: pad, deed: 'padded the numbers of categories', did: 'renamed' }]
]);

/** Whether what a check finds in trees can be mended. */
export const mendsPlaces = (rule: string): boolean => menders.has(rule);

/**
 * Mends what a check finds in the trees of a course: at one place, a category (or null for the top of the bank), or
 * everywhere where none is named. Throws Refused where nothing is found there any more.
 */
export async function mendPlaces(
	pool: Pool,
	{ courseId, personId }: Changer,
	rule: string,
	place: { bankId: number; categoryId: number | null } | null
): Promise<Done> {
	const how = menders.get(rule);
	const found = (await placeFindings(pool, courseId)).flatMap((finding) =>
		finding.rule === rule && 'bankId' in finding.place ? [finding.place] : []
	);
	const meant = found.filter(
		({ bankId, categoryId }) => !place || (bankId === place.bankId && categoryId === place.categoryId)
	);
	if (!how || !meant.length) throw new Refused('There is nothing of that to mend any more.');
	return transaction(pool, async (connection) => {
		const deedId = await beginDeed(connection, {
			courseId,
			personId,
			deed: how.deed,
			subject: meant.length === 1 ? (meant[0]!.category.at(-1) ?? meant[0]!.bank) : told(meant.length, 'place'),
			address: `/courses/${courseId}/snags?check=${rule}`
		});
		let changed = 0;
		for (const bankId of new Set(meant.map((here) => here.bankId))) {
			await run(connection, 'SELECT id FROM banks WHERE id = ? FOR UPDATE', [bankId]);
			const tree = await categoryTree(connection, bankId);
			changed += await how.mender(
				connection,
				deedId,
				tree,
				meant.filter((here) => here.bankId === bankId)
			);
		}
		await checkSoon(connection, courseId);
		await endDeed(connection, deedId, 0);
		return { deedId, questions: 0, words: `${told(changed, 'category', 'categories')} ${how.did}.` };
	});
}
