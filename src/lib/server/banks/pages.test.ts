import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { countsOf, questionsIn, snagsIn, touchCourse } from '../courses/counts';
import { row, rows, run, transaction } from '../db/pool';
import { removeQuestions } from '../questions/remove';
import { snagCounts, snagPlaces } from '../snags/snags';
import { everySnag } from '../snags/filter';
import { snagPlace, snagRows } from '../snags/list';
import { fillCourse } from '../test-support/fill';
import { allRows, makeCourse, testPool, wholeBank } from '../test-support/world';
import { filtersIn } from './conditions';
import { sortings, type QuestionFilter } from './filter';
import { pageSize, questionsPage } from './pages';
import { stretchesOf } from './stretches';
import { categoryTree, keptTree } from './tree';

const pool = testPool();
afterAll(() => pool.end());
const size = 430;
let course: Awaited<ReturnType<typeof fillCourse>>;
beforeAll(async () => {
	course = await fillCourse(pool, (await makeCourse(pool)).personId, size);
	// an order of the tree that is none of the keys
	await run(pool, 'UPDATE categories SET position = 100 - position WHERE bank_id = ?', [course.bank]);
});
const filter = (more: Partial<QuestionFilter> = {}) => wholeBank(course.bank, more);
const all = (more: Partial<QuestionFilter> = {}) => allRows(pool, course.id, filter(more));

describe('the questions of a bank, a page at a time', () => {
	it('are all there, each once, in the order of the tree and then in that in which they came', async () => {
		const found = await all();
		expect(new Set(found.map(({ id }) => id)).size).toBe(size);
		const place = new Map((await categoryTree(pool, course.bank)).map(({ id }, at) => [id, at]));
		const keys = found.map(({ categoryId, id }) => place.get(categoryId!)! * 1e9 + id);
		expect(keys).toEqual([...keys].sort((a, b) => a - b));
	});
	it('are those of a kind, of a category, and with words', async () => {
		const numeric = await all({ filters: { kind: 'numeric' } });
		expect(numeric).toHaveLength(size / 5);
		expect(new Set(numeric.map(({ kind }) => kind))).toEqual(new Set(['numeric']));
		const chapter = await all({ categoryId: course.category });
		expect(new Set(chapter.map(({ categoryId }) => categoryId))).toEqual(new Set([course.category]));
		expect((await all({ words: 'number 77' })).map(({ title }) => title)).toEqual(['Light 77']);
		expect(await all({ words: 'number', filters: { kind: 'essay' } })).toEqual([]);
	});
	it('come as the page that holds the one that is asked for', async () => {
		const listed = await all();
		for (const place of [0, pageSize - 1, pageSize, 257, size - 1]) {
			const page = await questionsPage(pool, course.id, filter(), { questionId: listed[place]!.id });
			expect(page).toMatchObject({ total: size, from: Math.floor(place / pageSize) * pageSize });
			expect(page.rows[place - page.from]).toEqual(listed[place]);
		}
		expect(await questionsPage(pool, course.id, filter(), { questionId: 1e9 })).toMatchObject({ from: 0 });
		expect((await questionsPage(pool, course.id, filter(), { from: 10 * size })).rows).toEqual([]);
	});
	it('say their worst snag and how many they have', async () => {
		const broken = (await all()).filter(({ worst }) => worst === 'broken');
		expect(broken).toHaveLength(size / 10);
		expect(broken.every(({ snags }) => snags === 1)).toBe(true);
	});
});

describe('a list that is asked for again', () => {
	it('is the same until something in the course changes, and then what it has become', async () => {
		const total = async () => (await questionsPage(pool, course.id, filter({ words: 'light' }), { from: 0 })).total;
		expect([await total(), await total()]).toEqual([size, size]);
		const { id } = (await all())[0]!;
		const { words } = (await row<{ words: Buffer }>(
			pool,
			'SELECT searched_words AS words FROM questions WHERE id = ?',
			[id]
		))!;
		await run(pool, "UPDATE questions SET searched_words = ' mast ' WHERE id = ?", [id]);
		await touchCourse(pool, course.id);
		expect([await total(), await total()]).toEqual([size - 1, size - 1]);
		await run(pool, 'UPDATE questions SET searched_words = ? WHERE id = ?', [words, id]);
		await touchCourse(pool, course.id);
		expect(await total()).toBe(size);
	});
	it.each([
		'title',
		'stem_start',
		'kind',
		'points',
		'tags_start',
		'difficulty',
		'language',
		'key_rank',
		'created',
		'changed',
		'changed_by',
		'load_id'
	])('has an index in which it stands by %s, so that nothing is put in order for it', async (column) => {
		const indexes = await rows<{ columns: string }>(
			pool,
			"SELECT GROUP_CONCAT(column_name ORDER BY seq_in_index) AS columns FROM information_schema.statistics WHERE table_schema = DATABASE() AND table_name = 'questions' GROUP BY index_name"
		);
		expect(indexes.some(({ columns }) => `${columns},`.startsWith(`bank_id,${column},id,`))).toBe(true);
	});
});

describe('the counts of a course', () => {
	it('are those of its questions and snags, and the same in the tree', async () => {
		const counts = await countsOf(pool, course.id);
		expect([questionsIn(counts), questionsIn(counts, course.bank), snagsIn(counts)]).toEqual([size, size, size / 10]);
		expect(await keptTree(pool, course.bank, counts)).toEqual(await categoryTree(pool, course.bank));
	});
	it('are kept until something changes, and then are counted anew', async () => {
		const kept = async () =>
			(await row<{ stamp: number }>(pool, 'SELECT stamp FROM course_counts WHERE course_id = ?', [course.id]))!.stamp;
		const before = await kept();
		await countsOf(pool, course.id);
		expect(await kept()).toBe(before);
		const [gone] = await rows<{ id: number }>(pool, 'SELECT id FROM questions WHERE course_id = ? LIMIT 1', [
			course.id
		]);
		await transaction(pool, (connection) => removeQuestions(connection, course.id, [gone!.id]));
		expect(questionsIn(await countsOf(pool, course.id))).toBe(size - 1);
		expect(await kept()).toBeGreaterThan(before);
	});
});

describe('the snags of a course, a page at a time', () => {
	it('are counted by check and by category, and found again by their question', async () => {
		const [counted] = await snagCounts(pool, course.id);
		expect(counted).toMatchObject({ rule: 'no-key', severity: 'broken' });
		const first = await snagRows(pool, course.id, { ...everySnag, check: 'no-key' });
		expect(first.length).toBe(Math.min(50, counted!.questions));
		expect(await snagPlace(pool, course.id, { ...everySnag, check: 'no-key' }, first[7]!.questionId)).toBe(7);
		expect(await snagPlace(pool, course.id, { ...everySnag, check: 'no-key' }, 1e9)).toBe(0);
		const places = await snagPlaces(pool, course.id);
		expect(places[0]!.name).toMatch(/^Chapter \d+$/);
		expect(places.every(({ doubtful, untidy }) => doubtful + untidy === 0)).toBe(true);
	});
});

describe('the questions of a bank by what they are', () => {
	it('are those that meet all that is asked, in the order of the tree, page by page and by the question that is asked for', async () => {
		await run(pool, 'UPDATE questions SET verified = NOW(3) WHERE course_id = ? AND id % 3 = 0', [course.id]);
		const verified = await all({ filters: { key: 'verified' } });
		const listed = (await all()).filter(({ id }) => id % 3 === 0);
		expect(verified.map(({ id }) => id)).toEqual(listed.map(({ id }) => id));
		const both = await all({ filters: { key: 'verified', kind: 'numeric' }, categoryId: course.category });
		expect(both.map(({ id }) => id)).toEqual(
			listed.filter(({ kind, categoryId }) => kind === 'numeric' && categoryId === course.category).map(({ id }) => id)
		);
		const asked = verified[Math.min(verified.length - 1, 120)]!;
		const page = await questionsPage(pool, course.id, filter({ filters: { key: 'verified' } }), {
			questionId: asked.id
		});
		expect(page.rows.some(({ id }) => id === asked.id)).toBe(true);
		expect(page.total).toBe(verified.length);
	});
	it('are counted alike in two halves and in one, wherever they stand', async () => {
		await run(pool, 'UPDATE questions SET category_id = NULL WHERE course_id = ? AND id % 11 = 0', [course.id]);
		await touchCourse(pool, course.id);
		const counts = await countsOf(pool, course.id);
		const tree = await keptTree(pool, course.bank, counts);
		for (const asked of [
			{ words: 'number' },
			{ words: '77' },
			{ filters: { points: '1' } },
			{ words: 'light', filters: { kind: 'numeric' } },
			{ filters: { key: 'verified' as const }, categoryId: course.category },
			{ words: 'number', down: true }
		]) {
			const once = await stretchesOf(pool, filter(asked), tree, counts);
			expect(once.length, JSON.stringify(asked)).toBeGreaterThan(0);
			expect(await stretchesOf(pool, filter(asked), tree, counts, 1)).toEqual(once);
		}
	});
	it('are ordered by snags, those that have none behind them as in the tree, and found again by their question', async () => {
		const listed = await all({ sort: 'snags' });
		const inTree = (await all()).map(({ id }) => id);
		const weighed = listed.map(({ worst }) => (worst === null ? 0 : 1));
		expect(weighed).toEqual([...weighed].sort((a, b) => b - a));
		const light = listed.filter(({ worst }) => worst === null).map(({ id }) => id);
		expect(light).toEqual(inTree.filter((id) => new Set(light).has(id)));
		for (const place of [0, 42, listed.length - 1])
			for (const down of [false, true]) {
				const page = await questionsPage(pool, course.id, filter({ sort: 'snags', down }), {
					questionId: listed[place]!.id
				});
				expect(page.rows.some(({ id }) => id === listed[place]!.id)).toBe(true);
			}
	});
	it.each(sortings.filter((sort) => sort !== 'tree'))('are ordered by %s both ways, all of them', async (sort) => {
		const ids = new Set((await all()).map(({ id }) => id));
		const up = await all({ sort });
		const down = await all({ sort, down: true });
		expect(new Set(up.map(({ id }) => id))).toEqual(ids);
		expect(down.map(({ id }) => id)).toEqual(up.map(({ id }) => id).reverse());
	});
	it('are ordered by who changed them and by the files they came with, by name, and by how often quizzes name them', async () => {
		const people = await Promise.all(['Zora', 'Abel'].map(async (name) => ({ name, ...(await makeCourse(pool)) })));
		for (const { name, personId } of people)
			await run(pool, 'UPDATE people SET name = ? WHERE id = ?', [name, personId]);
		const [first, second, third] = await all();
		await run(pool, 'UPDATE questions SET changed_by = ? WHERE id = ?', [people[0]!.personId, first!.id]);
		await run(pool, 'UPDATE questions SET changed_by = ? WHERE id IN (?)', [
			people[1]!.personId,
			[second!.id, third!.id]
		]);
		await touchCourse(pool, course.id);
		const names = (listed: { changedBy: string | null }[]) => listed.map(({ changedBy }) => changedBy).filter(Boolean);
		expect(names(await all({ sort: 'by' }))).toEqual(['Abel', 'Abel', 'Zora']);
		const down = await all({ sort: 'by', down: true });
		expect(down[0]!.changedBy).toBe('Zora');
		// few are put in order otherwise than many
		const few = await all({ sort: 'by', down: true, words: 'light' });
		expect(few.map(({ id }) => id)).toEqual(down.map(({ id }) => id));
		const part = (await row<{ id: number }>(pool, 'SELECT id FROM quiz_parts WHERE quiz_id = ?', [course.quiz]))!;
		await run(pool, "INSERT INTO quiz_part_questions (part_id, question_id, role) VALUES (?, ?, 'listed')", [
			part.id,
			third!.id
		]);
		expect((await all({ sort: 'used' })).at(-1)).toMatchObject({ id: third!.id, used: 1 });
		expect((await all({ sort: 'used', down: true }))[0]!.id).toBe(third!.id);
		await run(pool, 'DELETE FROM quiz_part_questions WHERE part_id = ?', [part.id]);
		expect((await all({ sort: 'used', down: true }))[0]!.used).toBe(0);
	});
	it('are none where a filter means nothing, which is left out', async () => {
		expect(filtersIn((name) => (name === 'points' ? 'many' : name === 'key' ? 'constructor' : null))).toEqual({});
		expect(filtersIn((name) => (name === 'points' ? ' 2 ' : null))).toEqual({ points: '2' });
	});
});
