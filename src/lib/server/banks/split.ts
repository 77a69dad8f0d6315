import type { Pool } from 'mysql2/promise';
import { kindName, type Kind } from '$core/kinds';
import { pathKey, pathOfKey } from '$core/take-in/paths';
import { beginDeed, endDeed, type Done } from '../changes/deed';
import { placeQuestions } from '../changes/place';
import { rows, transaction } from '../db/pool';
import { Refused } from '../loads/refused';
import { ensureByDeed } from './by-deed';
import { bankOf, type Changer } from './change';
import { categoryTree } from './tree';
import { told } from '../told';

/** By what the questions of a category can be sorted into categories under it. */
export const splitRules = ['kind', 'tag', 'points', 'difficulty', 'language'] as const;

/** One of those. */
export type SplitRule = (typeof splitRules)[number];

interface Split {
	id: number;
	kind: Kind;
	tags: string;
	points: number | null;
	difficulty: string;
	language: string;
}

/** The name of the category that a question goes to by each rule; nothing where it stays. */
const nameBy: Record<SplitRule, (question: Split) => string> = {
	kind: ({ kind }) => kindName(kind),
	tag: ({ tags }) => (JSON.parse(tags) as string[])[0] ?? '',
	points: ({ points }) => (points === null ? '' : `${points} ${points === 1 ? 'point' : 'points'}`),
	difficulty: ({ difficulty }) => difficulty,
	language: ({ language }) => language
};

/** Sorts the questions that stand in a category into categories under it, by a rule; what has no value stays. */
export async function splitCategory(
	pool: Pool,
	{ courseId, personId }: Changer,
	bankId: number,
	categoryId: number,
	rule: SplitRule
): Promise<Done> {
	return transaction(pool, async (connection) => {
		await bankOf(connection, courseId, bankId);
		const node = (await categoryTree(connection, bankId)).find(({ id }) => id === categoryId);
		if (!node) throw new Refused('There is no such category in this bank any more.');
		// by_category
		const standing = await rows<Split>(
			connection,
			'SELECT id, kind, tags, points, difficulty, language FROM questions WHERE bank_id = ? AND category_id = ? ORDER BY id FOR UPDATE',
			[bankId, categoryId]
		);
		const above = pathOfKey(node.key);
		const going = standing.flatMap((question) => {
			const name = nameBy[rule](question).replace(/\n/g, ' ').trim().slice(0, 255);
			return name ? [{ id: question.id, path: [...above, name] }] : [];
		});
		if (!going.length) throw new Refused('No question that stands in this category has a value for that rule.');
		const deedId = await beginDeed(connection, {
			courseId,
			personId,
			deed: `split by ${rule}`,
			subject: node.name,
			address: `/courses/${courseId}/banks?bank=${bankId}&category=${categoryId}`
		});
		const paths = new Map(going.map(({ path }) => [pathKey(path), path]));
		const ids = await ensureByDeed(connection, deedId, bankId, [...paths.values()]);
		const questions = await placeQuestions(
			connection,
			courseId,
			courseId,
			going.map(({ id, path }) => ({ id, bankId, categoryId: ids.get(pathKey(path))! })),
			{ deedId, personId }
		);
		await endDeed(connection, deedId, questions);
		return {
			deedId,
			questions,
			words: `Of “${node.name}”, ${told(questions)} ${questions === 1 ? 'stands' : 'stand'} in ${told(paths.size, 'category', 'categories')} under it now${standing.length > questions ? `; ${standing.length - questions} stay` : ''}.`
		};
	});
}
