import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { unhindered } from '../jobs/control';
import { allListed, loadPackage, makeCourse, testPool } from '../test-support/world';
import { loadOf } from './loads';
import { readLoad } from './read';
import { openLoad, previewOf, readByRecipe, recipeOf, recipesOf } from './recipes';

const pool = testPool();
let course: { courseId: number; personId: number };
beforeAll(async () => {
	course = await makeCourse(pool);
});
afterAll(() => pool.end());

const bytes = (text: string) => new TextEncoder().encode(text);
const table = 'F1,F2,F3,F4\nWhich knot holds?,Bowline,Reef,1\nWhich knot slips?,Bowline,Reef,2\n';
const recipe = {
	headerRow: 1,
	columns: { stem: 'F1', options: ['F2', 'F3'], key: 'F4' },
	keyForms: ['index' as const]
};

describe('a table whose headings say nothing', () => {
	it('is previewed by a recipe, read by it, and the recipe is kept by its name', async () => {
		const id = await loadPackage(pool, course, bytes(table), 'odd.csv');
		const load = (await loadOf(pool, course.courseId, id))!;
		expect(await recipeOf(pool, id)).toBeNull();
		const preview = await previewOf(pool, load, recipe);
		expect(preview).toMatchObject({ count: 2, broken: 0, questions: [{ stem: 'Which knot holds?' }, {}] });
		expect(await readByRecipe(pool, load, course.personId, recipe, 'Rope lists')).toBe(true);
		await readLoad(pool, id, unhindered);
		expect((await allListed(pool, course.courseId, id)).map((one) => [one.title, one.marks.length])).toEqual([
			['Which knot holds?', 1],
			['Which knot slips?', 1]
		]);
		expect(await recipesOf(pool, course.courseId)).toMatchObject([{ name: 'Rope lists', recipe }]);
		expect(await recipeOf(pool, id)).toEqual(recipe);
	});
	it('is not read anew while it is being read', async () => {
		const id = await loadPackage(pool, course, bytes(table), 'odd.csv');
		const load = (await loadOf(pool, course.courseId, id))!;
		expect(await readByRecipe(pool, load, course.personId, recipe, '')).toBe(true);
		expect(await readByRecipe(pool, load, course.personId, recipe, '')).toBe(false);
		expect(await recipesOf(pool, course.courseId)).toHaveLength(1);
	});
	it('keeps the latest recipe of a name', async () => {
		const id = await loadPackage(pool, course, bytes(table), 'odd.csv');
		const load = (await loadOf(pool, course.courseId, id))!;
		await readByRecipe(pool, load, course.personId, { ...recipe, categorySeparators: ['/'] }, 'Rope lists');
		expect(await recipesOf(pool, course.courseId)).toMatchObject([{ recipe: { categorySeparators: ['/'] } }]);
	});
});

describe('files of every sort', () => {
	it.each([
		['list.txt', '1. Which knot holds?\n*a) Bowline\nb) Reef\n', 'Marked text'],
		['list.csv', 'Stem,A,B,Key\nWhich knot holds?,Bowline,Reef,A\n', 'CSV table'],
		[
			'list.json',
			'[{"question":"Which knot holds?","options":["Bowline","Reef"],"answer":"Bowline"}]',
			'Read by a recipe'
		],
		[
			'list.xml',
			'<b><i><question>Which knot holds?</question><option right="yes">Bowline</option><option right="no">Reef</option></i></b>',
			'Read by a recipe'
		]
	])('%s is read and staged, with no title as its only snag', async (name, text, format) => {
		const id = await loadPackage(pool, course, bytes(text), name);
		const load = (await loadOf(pool, course.courseId, id))!;
		expect(load).toMatchObject({ state: 'review', questions_found: 1, snags_found: 1 });
		expect(load.format).toContain(format);
		expect((await openLoad(pool, load)).files.first.path).toBe(name);
	});
});
