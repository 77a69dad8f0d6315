import { afterAll, beforeEach, describe, expect, it } from 'vitest';
import { banksOf } from '../banks/banks';
import { makeCategory } from '../banks/categories';
import { mendPlaces } from '../banks/mend-places';
import { categoryTree } from '../banks/tree';
import { undoDeed } from '../changes/undo';
import { checkCourse } from '../checks/course';
import { placeFindings } from '../checks/places';
import { row, rows, run } from '../db/pool';
import { unhindered } from '../jobs/control';
import { takeIn } from '../loads/take-in';
import { saveQuiz } from '../quizzes/save';
import { bankXml, decide, item, loadPackage, makeCourse, testPool, makeQuiz } from '../test-support/world';
import { countsOf } from '../courses/counts';
import { daysOf } from './days';
import { waive } from './waive';
import { everySnag, snagFilterIn } from './filter';
import { headsOf } from './heads';
import { keepOneOfEach } from './keep-one';
import { snagPlace, snagRows, snagsFound } from './list';
import { mend, mendableCount } from './mend';
import { visitSnags } from './visits';

const pool = testPool();
afterAll(() => pool.end());
let course: Awaited<ReturnType<typeof makeCourse>>;
let bankId = 0;
beforeEach(async () => {
	course = await makeCourse(pool);
	const load = await loadPackage(pool, course, {
		'bank.xml': bankXml({
			'Week 2': [
				item('springs', 'When are springs? Select one:', ['Full moon', 'Half moon']),
				item('neaps', 'When are neaps? Select one:', ['Half', 'Full', 'Half'])
			],
			'Week 10': [
				item('red', 'What is red? Select one:', ['Port', 'Starboard']),
				item('green', 'What is green?', ['Starboard', 'Port', 'Port'])
			],
			'Week 11': [
				item('white', 'What is white at night?', ['The stern light', 'The anchor']),
				item('white again', 'What is white at night?', ['The stern light', 'The anchor'])
			]
		})
	});
	await takeIn(pool, course.courseId, load, course.personId, decide());
	await checkCourse(pool, course.courseId, unhindered);
	bankId = (await banksOf(pool, course.courseId))[0]!.id;
});
const titled = async (title: string) =>
	(await row<{ id: number }>(pool, 'SELECT id FROM questions WHERE course_id = ? AND title = ?', [
		course.courseId,
		title
	]))!.id;
const category = async (name: string) => (await categoryTree(pool, bankId)).find((node) => node.name === name)!.id;
const found = async (more: Partial<typeof everySnag>) => {
	const filter = { ...everySnag, ...more };
	const listed = await snagRows(pool, course.courseId, filter);
	expect(await snagsFound(pool, course.courseId, filter)).toBe(listed.length);
	return listed.map(({ title, rule }) => `${title}: ${rule}`);
};
/** A quiz with one part that draws from a category. */
async function drawing(name: string, draw: number): Promise<number> {
	const quiz = await makeQuiz(pool, course.courseId, 'Watch');
	const part = {
		title: 'One',
		categories: [await category(name)],
		withUnder: true,
		questions: [],
		draw,
		pointsEach: 1,
		order: 'shuffled' as const,
		shuffleOptions: false
	};
	await saveQuiz(pool, course.courseId, quiz, { title: 'Watch', state: 'draft', version: 1, parts: [part] });
	return quiz;
}
const names = async () => (await categoryTree(pool, bankId)).map(({ name }) => name);
const undo = (deedId: number) => undoDeed(pool, course.courseId, course.personId, deedId, false);

describe('the snags that are listed', () => {
	it('are those of a category, a question, a severity, or a check within them', async () => {
		const within = { bank: bankId, category: await category('Week 2') };
		expect(await found(within)).toEqual([
			'springs: boilerplate',
			'neaps: boilerplate',
			'neaps: empty-or-repeated-option'
		]);
		expect(await found({ ...within, check: 'boilerplate' })).toEqual(['springs: boilerplate', 'neaps: boilerplate']);
		expect(await found({ question: await titled('neaps'), severity: 'doubtful' })).toEqual([
			'neaps: empty-or-repeated-option'
		]);
		expect(await found({ severity: 'broken' })).toEqual([]);
		expect(await found({ bank: bankId, category: 0 })).toEqual([]);
	});
	it('are those of questions that came or were changed since one was here', async () => {
		await run(pool, "UPDATE questions SET created = '2026-01-01' WHERE course_id = ?", [course.courseId]);
		await run(pool, 'UPDATE questions SET changed = NOW(3) WHERE id = ?', [await titled('red')]);
		expect(await found({ since: '2026-02-01T00:00:00.000Z' })).toEqual(['red: boilerplate']);
	});
	it('are those of the questions that a quiz can draw', async () => {
		const quiz = await drawing('Week 10', 1);
		expect(await found({ quiz })).toEqual(['red: boilerplate', 'green: empty-or-repeated-option']);
	});
	it('are known by their place', async () => {
		const filter = { ...everySnag, bank: bankId };
		const listed = await snagRows(pool, course.courseId, filter);
		const at = await snagPlace(pool, course.courseId, filter, await titled('red'));
		expect(listed[at]!.title).toBe('red');
	});
	it('come from an address, of which what does not fit restricts nothing', () => {
		const asked = (query: string) => snagFilterIn(new URL(`http://localhost/?${query}`));
		expect(asked('check=no-key&bank=3&category=0&severity=broken')).toEqual({
			...everySnag,
			check: 'no-key',
			bank: 3,
			category: 0,
			severity: 'broken'
		});
		expect(asked('bank=-1&category=x&severity=__proto__&since=today&question=1e400&quiz=')).toEqual(everySnag);
	});
});

describe('what snags are gone through by', () => {
	const heads = async (order: 'category' | 'question' | 'quiz') =>
		(await headsOf(pool, course.courseId, order, await placeFindings(pool, course.courseId))).map(
			({ name, severity, snags }) => [name, severity, snags]
		);
	it('is each category, question or quiz with how many it has, the worst known', async () => {
		expect(await heads('category')).toEqual([
			['Week 2', 'doubtful', 3],
			['Week 10', 'doubtful', 2],
			['Week 11', 'doubtful', 2]
		]);
		expect((await heads('question'))[0]).toEqual(['neaps', 'doubtful', 2]);
		expect(await heads('quiz')).toEqual([]);
		await drawing('Week 10', 9);
		expect(await heads('quiz')).toEqual([['Watch', 'broken', 3]]);
	});
	it('adds up to what is listed', async () => {
		for (const order of ['category', 'question'] as const)
			for (const { asks, snags } of await headsOf(pool, course.courseId, order, [])) {
				const url = new URL(`http://localhost/?${new URLSearchParams(asks)}`);
				expect(await snagsFound(pool, course.courseId, snagFilterIn(url))).toBe(snags);
			}
	});
});

describe('many snags mended at once', () => {
	it('are those that are listed, and no others, and are taken back as one', async () => {
		const filter = { ...everySnag, check: 'boilerplate', bank: bankId, category: await category('Week 2') };
		expect(await mendableCount(pool, course.courseId, filter)).toBe(2);
		const done = await mend(pool, course.courseId, course.personId, 'boilerplate', null, null, filter);
		expect(done).toMatchObject({ mended: 2, left: 0 });
		expect(await found({ check: 'boilerplate' })).toEqual(['red: boilerplate']);
		await undo((done as { deedId: number }).deedId);
		expect(await found({ check: 'boilerplate' })).toHaveLength(3);
	});
	it('keep one of each group of repeats, and bring the others back', async () => {
		await expect(
			keepOneOfEach(pool, course.courseId, course.personId, { ...everySnag, bank: bankId + 1 })
		).rejects.toThrow('Nothing is there twice');
		const done = await keepOneOfEach(pool, course.courseId, course.personId, everySnag);
		expect(done).toMatchObject({ kept: 1, gone: 1 });
		expect(await found({ check: 'exact-duplicate' })).toEqual([]);
		const left = await rows<{ title: string }>(
			pool,
			"SELECT title FROM questions WHERE course_id = ? AND title LIKE 'white%'",
			[course.courseId]
		);
		expect(left).toEqual([{ title: 'white' }]);
		await undo(done.deedId);
		expect(await found({ check: 'exact-duplicate' })).toHaveLength(2);
	});
});

describe('what is wrong with a tree', () => {
	const changer = () => ({ courseId: course.courseId, personId: course.personId });
	it('is mended where numbers sort wrongly by letters: they are padded, and no category is numbered anew', async () => {
		const done = await mendPlaces(pool, changer(), 'category-order', { bankId, categoryId: null });
		expect(done.words).toBe('1 category renamed.');
		expect(await names()).toEqual(['Week 02', 'Week 10', 'Week 11']);
		expect((await placeFindings(pool, course.courseId)).map(({ rule }) => rule)).not.toContain('category-order');
		await undo(done.deedId);
		expect(await names()).toEqual(['Week 2', 'Week 10', 'Week 11']);
	});
	it('is mended where nothing stands: the category goes, with the empty ones under it', async () => {
		const { categoryId } = await makeCategory(pool, changer(), bankId, null, 'Old');
		await makeCategory(pool, changer(), bankId, categoryId, 'Older');
		const done = await mendPlaces(pool, changer(), 'category-empty', null);
		expect(done.words).toBe('2 categories taken out.');
		expect(await names()).not.toContain('Old');
		await undo(done.deedId);
		expect(await names()).toEqual(['Week 2', 'Week 10', 'Week 11', 'Old', 'Older']);
		await expect(mendPlaces(pool, changer(), 'category-empty', { bankId, categoryId: 1e9 })).rejects.toThrow('nothing');
		await expect(mendPlaces(pool, changer(), 'no-key', null)).rejects.toThrow('nothing');
	});
});

describe('the days of a course', () => {
	it('tell what was open, and what was mended and not taken back', async () => {
		const today = async () => (await daysOf(pool, course.courseId)).at(-1)!;
		await countsOf(pool, course.courseId);
		expect(await today()).toMatchObject({ untidy: 3, mended: 0, waived: 0 });
		const done = await mend(pool, course.courseId, course.personId, 'boilerplate', null, null);
		await waive(pool, course.courseId, course.personId, {
			rule: 'empty-or-repeated-option',
			scope: 'course',
			questionId: await titled('green'),
			reason: ''
		});
		await countsOf(pool, course.courseId);
		expect(await today()).toMatchObject({ untidy: 0, mended: 3, waived: 2 });
		await undo((done as { deedId: number }).deedId);
		expect(await today()).toMatchObject({ mended: 0 });
	});
});

describe('a visit to the snags', () => {
	it('is told apart from the one before only after some time away', async () => {
		const visit = () => visitSnags(pool, course.courseId, course.personId);
		expect(await visit()).toBeNull();
		expect(await visit()).toBeNull();
		await run(pool, 'UPDATE snag_visits SET seen = seen - INTERVAL 2 DAY WHERE course_id = ?', [course.courseId]);
		const before = await visit();
		expect(Date.now() - before!.getTime()).toBeGreaterThan(47 * 3_600_000);
		expect(await visit()).toEqual(before);
	});
});
