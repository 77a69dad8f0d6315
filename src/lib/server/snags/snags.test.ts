import { afterAll, beforeEach, describe, expect, it } from 'vitest';
import { banksOf, storedQuestion } from '../banks/banks';
import { allRows, wholeBank } from '../test-support/world';
import { categoryTree } from '../banks/tree';
import { takeIn } from '../loads/take-in';
import { bankXml, decide, item, loadPackage, makeCourse, testPool } from '../test-support/world';
import { snagCounts } from './snags';
import { everySnag } from './filter';
import { snagRows } from './list';
import { undoDeed } from '../changes/undo';
import { run } from '../db/pool';
import { Stopped, unhindered } from '../jobs/control';
import { mend, mendPreview } from './mend';
import { askedFor, carryOutMend, endMend, mendingOf, mendSoon } from './mending';

const pool = testPool();
afterAll(() => pool.end());
let course: Awaited<ReturnType<typeof makeCourse>>;
let bankId = 0;
const html = (ident: string, stem: string) =>
	item(ident, stem, ['Yes indeed', 'By no means']).replace('<mattext>', '<mattext texttype="text/html">');
beforeEach(async () => {
	course = await makeCourse(pool);
	const load = await loadPackage(pool, course, {
		'bank.xml': bankXml({
			Words: [
				html('e1', 'The sign &amp;amp;quot;Wk&amp;amp;quot; is a wreck?'),
				html('e2', 'Ship &amp;amp;amp; shore: does the shore call first?'),
				item('k1', 'Is the tide high?', ['At noon', 'At noon', 'At dusk'])
			],
			'Words/More': [
				item('m1', 'What is a bight?', ['A bend in a rope', 'A small fish']),
				item('m2', 'How is the anchor?', ['Aweigh', 'At the dip'])
			]
		})
	});
	await takeIn(pool, course.courseId, load, course.personId, decide());
	bankId = (await banksOf(pool, course.courseId))[0]!.id;
});
const titles = async (more: Partial<Parameters<typeof allRows>[2]>) =>
	(await allRows(pool, course.courseId, wholeBank(bankId, more))).map((one) => one.title);

describe('the snags of a course', () => {
	it('are counted by check and listed with the words concerned', async () => {
		expect(new Map((await snagCounts(pool, course.courseId)).map((one) => [one.rule, one.questions]))).toEqual(
			new Map([
				['empty-or-repeated-option', 1],
				['escaped-twice', 2]
			])
		);
		expect(await snagRows(pool, course.courseId, { ...everySnag, check: 'escaped-twice' })).toMatchObject([
			{ title: 'e1', words: ['&quot;'], category: 'Words' },
			{ title: 'e2', words: ['&amp;'] }
		]);
	});
	it('are shown with the question before and after the mend', async () => {
		const [one] = await snagRows(pool, course.courseId, { ...everySnag, check: 'escaped-twice' });
		const preview = await mendPreview(pool, course.courseId, 'escaped-twice', one!.questionId);
		expect(preview!.before.stem).toContain('&amp;quot;');
		expect(preview!.after.stem).toContain('"Wk"');
		expect(await mendPreview(pool, course.courseId, 'no-key', one!.questionId)).toBeNull();
	});
	it('go when one is mended, and the others stay', async () => {
		const [one, other] = await snagRows(pool, course.courseId, { ...everySnag, check: 'escaped-twice' });
		expect(await mend(pool, course.courseId, course.personId, 'escaped-twice', one!.questionId, 1)).toMatchObject({
			mended: 1,
			left: 0
		});
		expect(
			(await snagRows(pool, course.courseId, { ...everySnag, check: 'escaped-twice' })).map((row) => row.questionId)
		).toEqual([other!.questionId]);
		expect(await storedQuestion(pool, course.courseId, one!.questionId)).toMatchObject({
			version: 2,
			question: { stem: 'The sign "Wk" is a wreck?' },
			reports: []
		});
		expect(await titles({ words: 'wreck' })).toEqual(['e1']);
	});
	it('go when all of a check are mended at once', async () => {
		expect(await mend(pool, course.courseId, course.personId, 'escaped-twice', null, null)).toMatchObject({
			mended: 2,
			left: 0
		});
		expect((await snagCounts(pool, course.courseId)).map((one) => one.rule)).toEqual(['empty-or-repeated-option']);
	});
	it('are not mended over a change that somebody else has made', async () => {
		const [one] = await snagRows(pool, course.courseId, { ...everySnag, check: 'escaped-twice' });
		await mend(pool, course.courseId, course.personId, 'escaped-twice', one!.questionId, 1);
		const [next] = await snagRows(pool, course.courseId, { ...everySnag, check: 'escaped-twice' });
		expect(await mend(pool, course.courseId, course.personId, 'escaped-twice', next!.questionId, 99)).toBe('changed');
		expect(await storedQuestion(pool, course.courseId, next!.questionId)).toMatchObject({ version: 1 });
	});
	it('are left to a person where the mend would change nothing', async () => {
		expect(await mend(pool, course.courseId, course.personId, 'empty-or-repeated-option', null, null)).toEqual({
			mended: 0,
			left: 1
		});
		expect(await mend(pool, course.courseId, course.personId, 'several-keys', null, null)).toEqual({
			mended: 0,
			left: 0
		});
	});
});

describe('looking through a bank', () => {
	it('lays the tree out with counts, with and without what is under', async () => {
		const tree = await categoryTree(pool, bankId);
		expect(tree.map((node) => [node.name, node.depth, node.own, node.all, node.allSnags])).toEqual([
			['Words', 0, 3, 3, 3],
			['Words/More', 0, 2, 2, 0]
		]);
	});
	it.each([
		['wreck', ['e1']],
		['shor', ['e2']],
		['is the', ['e1', 'k1', 'm2']],
		['a bight', ['m1']],
		['nowhere', []],
		['"*+-()', ['e1', 'e2', 'k1', 'm1', 'm2']]
	])('finds the words “%s”', async (words, found) => {
		expect((await titles({ words })).sort()).toEqual([...found].sort());
	});
	it('finds by category and by kind', async () => {
		const [, more] = await categoryTree(pool, bankId);
		expect(await titles({ categoryId: more!.id })).toEqual(['m1', 'm2']);
		expect(await titles({ filters: { kind: 'essay' } })).toEqual([]);
		expect(await titles({ filters: { kind: 'multiple-choice' }, categoryId: more!.id, words: 'anchor' })).toEqual([
			'm2'
		]);
	});
});

describe('a mend of very many', () => {
	const begin = async () => {
		const found = await askedFor(pool, course.courseId, 'escaped-twice', everySnag);
		expect(found).toBe(2);
		const id = await mendSoon(pool, course.courseId, course.personId, 'escaped-twice', everySnag, found);
		await run(pool, "UPDATE jobs SET state = 'done' WHERE kind = 'mend' AND subject_id = ?", [id]);
		return id;
	};
	const left = async () => (await snagRows(pool, course.courseId, { ...everySnag, check: 'escaped-twice' })).length;
	it('is done in the background, told, and taken back as one', async () => {
		const id = await begin();
		expect(await mendingOf(pool, course.courseId)).toMatchObject({ id, state: 'waiting', total: 2, result: null });
		await carryOutMend(pool, id, unhindered);
		const done = (await mendingOf(pool, course.courseId))!;
		expect(done).toMatchObject({ state: 'done', done: 2, result: { mended: 2, left: 0 } });
		expect(await left()).toBe(0);
		await undoDeed(pool, course.courseId, course.personId, done.result!.deedId!, false);
		expect(await left()).toBe(2);
	});
	it('that is stopped has changed nothing', async () => {
		const id = await begin();
		const stopping = {
			check: () => {
				throw new Stopped();
			}
		};
		await expect(carryOutMend(pool, id, stopping)).rejects.toThrow(Stopped);
		await endMend(pool, id, 'stopped');
		expect(await mendingOf(pool, course.courseId)).toMatchObject({ state: 'stopped', result: null });
		expect(await left()).toBe(2);
	});
	it('that was done is not done again, whoever begins it anew', async () => {
		const id = await begin();
		await carryOutMend(pool, id, unhindered);
		const before = await mendingOf(pool, course.courseId);
		await carryOutMend(pool, id, unhindered);
		await endMend(pool, id, 'failed', { failure: 'late' });
		expect(await mendingOf(pool, course.courseId)).toEqual(before);
	});
});
