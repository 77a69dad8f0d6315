import { restricts, type PoolFacts } from '$core/draws/conditions';
import { secondsToRead } from '$core/draws/reading-time';
import type { PoolPart, PoolSource } from '$core/draws/pool';
import { bankNames } from '../banks/banks';
import { keptTrees, type CategoryNode } from '../banks/tree';
import { withUnder } from '$core/take-in/under';
import type { CourseCounts } from '../courses/counts';
import { row, rows, type Database } from '../db/pool';

/** What quizzes draw from, with the trees of the banks as they are shown; unreadable questions are never drawn. */
export interface CoursePools extends PoolSource {
	/** The banks, each above its categories under its key made negative: it stands for its questions without a category. */
	tree: CategoryNode[];
	/** The category of each question, or its bank's key made negative where it stands in none. */
	places: ReadonlyMap<number, number>;
}

const nothingCounted: CourseCounts = { places: [], snags: [], rules: [] };
/** Kinds of which nothing is drawn. */
const undrawn = new Set(['information', 'unreadable']);

/** The banks of a course with their trees, one below the other; the counts are of what can be drawn. */
export async function bankTrees(db: Database, courseId: number, counts = nothingCounted): Promise<CategoryNode[]> {
	const places = counts.places.filter(({ kind }) => !undrawn.has(kind));
	const banks = await bankNames(db, courseId);
	const trees = await keptTrees(
		db,
		banks.map(({ id }) => id),
		{ ...counts, places }
	);
	return banks.flatMap((bank) => {
		const own = places
			.filter(({ bankId, categoryId }) => bankId === bank.id && categoryId === null)
			.reduce((sum, place) => sum + place.questions, 0);
		const tree = trees.get(bank.id)!;
		const all = own + tree.reduce((sum, node) => sum + node.own, 0);
		const root = {
			id: -bank.id,
			parentId: null,
			name: bank.name,
			code: '',
			key: '',
			depth: 0,
			own,
			all,
			ownSnags: 0,
			allSnags: 0
		};
		return [root, ...tree.map((node) => ({ ...node, parentId: node.parentId ?? root.id, depth: node.depth + 1 }))];
	});
}

interface Drawable {
	id: number;
	bank_id: number;
	category_id: number | null;
	kind: string;
	points: number | null;
	difficulty: string;
	verified: number;
	disputed: number;
	made: string;
	words: number;
}

/** What is to be known of the questions of pools beside their points. */
export interface Asked {
	/** What conditions and quotas ask for. */
	facts: boolean;
	tags: boolean;
	broken: boolean;
}

/** All that is known. */
export const everything: Asked = { facts: true, tags: true, broken: true };

/** What the parts of quizzes ask of their questions. */
export function askedBy(parts: readonly PoolPart[]): Asked {
	const all = parts.flatMap(({ conditions }) => (conditions && restricts(conditions) ? [conditions] : []));
	return {
		facts: all.length > 0,
		tags: all.some(({ tags }) => tags.any.length + tags.all.length + tags.none.length > 0),
		broken: all.some(({ unbroken }) => unbroken)
	};
}

const batch = 10_000;

/** The tags of questions, by their keys. */
async function tagsOf(db: Database, ids: readonly number[]): Promise<Map<number, string[]>> {
	const found = new Map<number, string[]>();
	const batches = Array.from({ length: Math.ceil(ids.length / batch) }, (_, at) =>
		ids.slice(at * batch, (at + 1) * batch)
	);
	const tagged = await Promise.all(
		batches.map((some) =>
			rows<{ id: number; tag: string }>(
				db,
				'SELECT question_id AS id, tag FROM question_tags WHERE question_id IN (?)',
				[some]
			)
		)
	);
	for (const { id, tag } of tagged.flat()) {
		const known = found.get(id);
		if (known) known.push(tag);
		else found.set(id, [tag]);
	}
	return found;
}

/** The questions of a course that have an open snag that is broken. */
async function brokenIn(db: Database, courseId: number): Promise<Set<number>> {
	// by_severity
	const found = await rows<{ id: number }>(
		db,
		"SELECT DISTINCT question_id AS id FROM snags WHERE course_id = ? AND severity = 'broken'",
		[courseId]
	);
	return new Set(found.map(({ id }) => id));
}

async function factsOf(
	db: Database,
	courseId: number,
	questions: readonly Drawable[],
	asked: Asked
): Promise<Map<number, PoolFacts>> {
	const none = new Map<number, string[]>();
	const [tags, broken] = await Promise.all([
		asked.tags
			? tagsOf(
					db,
					questions.map(({ id }) => id)
				)
			: none,
		asked.broken ? brokenIn(db, courseId) : new Set<number>()
	]);
	return new Map(
		questions.map(({ id, kind, difficulty, verified, disputed, made, words }) => {
			const number = Number(difficulty.replace(',', '.'));
			return [
				id,
				{
					kind,
					tags: tags.get(id) ?? [],
					difficulty: difficulty.trim() && Number.isFinite(number) ? number : null,
					isVerified: verified > 0,
					isDisputed: disputed > 0,
					isBroken: broken.has(id),
					made,
					seconds: secondsToRead(words)
				}
			];
		})
	);
}

/** The questions of some categories, and those that are named, as what can be drawn. */
async function drawableIn(
	db: Database,
	courseId: number,
	categories: readonly number[],
	named: readonly number[],
	asked: Asked
): Promise<Omit<CoursePools, 'tree'>> {
	const inCategory: Record<number, number[]> = Object.fromEntries(categories.map((id) => [id, []]));
	const points: Record<number, number | null> = {};
	const texts: number[] = [];
	const places = new Map<number, number>();
	const columns = `id, bank_id, category_id, kind, points, difficulty${asked.facts ? ", verified IS NOT NULL AS verified, disputed_by IS NOT NULL AS disputed, DATE_FORMAT(created, '%Y-%m-%d') AS made, COALESCE(LENGTH(word_hashes) DIV 4, 0) AS words" : ''}`;
	const select = async (condition: string, keys: readonly number[]) =>
		keys.length
			? rows<Drawable>(db, `SELECT ${columns} FROM questions WHERE course_id = ? AND ${condition}`, [courseId, keys])
			: [];
	// by_filters, by_filters, and by key
	const parts = await Promise.all([
		select(
			'category_id IN (?)',
			categories.filter((id) => id > 0)
		),
		select(
			'bank_id IN (?) AND category_id IS NULL',
			categories.filter((id) => id < 0).map((id) => -id)
		),
		select('id IN (?)', named)
	]);
	const found = [...new Map(parts.flat().map((question) => [question.id, question])).values()].sort(
		(a, b) => a.id - b.id
	);
	const readable = found.filter(({ kind }) => kind !== 'unreadable');
	for (const question of readable) {
		places.set(question.id, question.category_id ?? -question.bank_id);
		if (question.kind === 'information') {
			texts.push(question.id);
			continue;
		}
		points[question.id] = question.points;
		inCategory[question.category_id ?? -question.bank_id]?.push(question.id);
	}
	return {
		inCategory,
		points,
		texts,
		places,
		...(asked.facts ? { facts: await factsOf(db, courseId, readable, asked) } : {})
	};
}

/** What is meant by some parts: the categories with all under them, and the questions that are named. */
function meantBy(tree: readonly CategoryNode[], parts: readonly PoolPart[], beside: readonly number[]) {
	const here = new Set(tree.map(({ id }) => id));
	const categories = new Set(
		parts
			.flatMap((part) => (part.withUnder ? part.categories.flatMap((id) => withUnder(tree, id)) : part.categories))
			.filter((id) => here.has(id))
	);
	const named = new Set([...parts.flatMap((part) => [...part.questions, ...(part.include ?? [])]), ...beside]);
	return { categories: [...categories], named: [...named] };
}

/**
 * What some parts of a quiz draw from: the trees of all banks, and the questions of the categories that they mean, with
 * what the parts ask of them, or with all that is asked for. `beside` are questions that are to be known too.
 */
export async function poolSource(
	db: Database,
	courseId: number,
	parts: readonly PoolPart[],
	counts: CourseCounts = nothingCounted,
	asked = askedBy(parts),
	beside: readonly number[] = []
): Promise<CoursePools> {
	const tree = await bankTrees(db, courseId, counts);
	const { categories, named } = meantBy(tree, parts, beside);
	return { tree, ...(await drawableIn(db, courseId, categories, named, asked)) };
}

/** What was asked for last, by course: a sheet that is edited asks for the same again and again. */
const latest = new Map<number, { stamp: number; key: string; source: CoursePools }>();
/** Of so many courses what was asked for last is kept. */
const mostKept = 3;

/** The same with all that rules and figures speak of, as it was read before where nothing has changed in the course since. */
export async function keptPoolSource(
	db: Database,
	courseId: number,
	parts: readonly PoolPart[],
	beside: readonly number[]
): Promise<CoursePools> {
	const { stamp } = (await row<{ stamp: number }>(db, 'SELECT stamp FROM courses WHERE id = ?', [courseId])) ?? {
		stamp: 0
	};
	const before = latest.get(courseId);
	const tree = before?.stamp === stamp ? before.source.tree : await bankTrees(db, courseId);
	const { categories, named } = meantBy(tree, parts, beside);
	const ascending = (ids: number[]) => ids.sort((a, b) => a - b).join();
	const key = `${ascending(categories)} ${ascending(named)}`;
	if (before?.stamp === stamp && before.key === key) return before.source;
	const source = { tree, ...(await drawableIn(db, courseId, categories, named, everything)) };
	latest.delete(courseId);
	latest.set(courseId, { stamp, key, source });
	for (const oldest of latest.keys()) {
		if (latest.size <= mostKept) break;
		latest.delete(oldest);
	}
	return source;
}
