import { afterAll, beforeEach, describe, expect, it } from 'vitest';
import { banksOf } from '../banks/banks';
import { row } from '../db/pool';
import { bankXml, decide as decision, item, loadPackage, makeCourse, testPool } from '../test-support/world';
import { changesOf } from './changes';
import { decide, keepDecision, mendStaged } from './decide';
import { firstToLookAt, listPage, wholeLoad, type ListFilter } from './listed';
import { keptSummary, reviewSummary } from './summary';
import { takeIn } from './take-in';

const pool = testPool();
afterAll(() => pool.end());
let course: Awaited<ReturnType<typeof makeCourse>>;
let id: number;
const anchors = Array.from({ length: 120 }, (_, at) =>
	item(`a${at + 1}`, `How much chain at ${at + 2} metres of water?`, ['Four times as much', 'None'])
);
const harbour = {
	'bank.xml': bankXml({
		Anchors: anchors,
		Knots: [
			item('k_1', 'Which knot is 100% safe?', ['Bowline', 'None of them']),
			item('k2', 'Which knot slips?', ['Slip knot', 'Bowline'], null),
			item('k2b', 'Which knot slips?', ['Slip knot', 'Bowline'], null)
		]
	})
};
beforeEach(async () => {
	course = await makeCourse(pool);
	id = await loadPackage(pool, course, harbour);
});
const page = (filter: Partial<ListFilter>) => listPage(pool, course.courseId, id, { ...wholeLoad, ...filter });
const titles = async (filter: Partial<ListFilter>) => (await page(filter)).rows.map(({ title }) => title);
const numbers = async (order: Parameters<typeof listPage>[4], from = 0) =>
	(await listPage(pool, course.courseId, id, wholeLoad, order, { from })).rows.map(({ number }) => number);

describe('the questions of a load', () => {
	it('come a page at a time, whatever their number, in the order of the file', async () => {
		const first = await page({});
		expect(first).toMatchObject({ total: 123, from: 0 });
		expect(first.rows.map(({ number }) => number)).toEqual(Array.from({ length: 100 }, (_, at) => at + 1));
		expect(await numbers('file', 100)).toEqual(Array.from({ length: 23 }, (_, at) => at + 101));
	});
	it('are found by letters of their titles, of which none is a pattern', async () => {
		expect(await titles({ words: '_1' })).toEqual(['k_1']);
		expect(await titles({ words: '%' })).toEqual([]);
		expect(await titles({ words: 'K2' })).toEqual(['k2', 'k2b']);
	});
	it('are found by category, snag and kind, and by all of them at once', async () => {
		expect((await page({ category: 'Anchors' })).total).toBe(120);
		expect(await titles({ category: 'Knots' })).toEqual(['k_1', 'k2', 'k2b']);
		expect(await titles({ category: 'Kn' })).toEqual([]);
		expect(await titles({ rule: 'no-key' })).toEqual(['k2', 'k2b']);
		expect(await titles({ rule: 'no-key', words: 'b', kind: 'multiple-choice' })).toEqual(['k2b']);
		expect(await titles({ rule: 'no-key', kind: 'essay' })).toEqual([]);
		expect(await titles({ match: 'same' })).toEqual([]);
	});
	it('stand in the order that is asked for', async () => {
		expect((await numbers('snag')).slice(0, 2)).toEqual([122, 123]);
		await decide(
			pool,
			course.courseId,
			id,
			course.personId,
			{ ids: [(await page({ words: 'k_1' })).rows[0]!.id] },
			{
				do: 'place',
				category: 'A'
			}
		);
		expect((await numbers('category'))[0]).toBe(121);
	});
	it('are first looked at where something is wrong', async () => {
		const [broken] = (await page({ words: 'k2' })).rows;
		expect(await firstToLookAt(pool, course.courseId, id)).toBe(broken!.id);
	});
});

describe('all that a filter lists', () => {
	const choices = async () =>
		row(pool, 'SELECT COUNT(choice) AS away, COUNT(*) AS n FROM staged_questions WHERE load_id = ?', [id]);
	it('is decided on at once, but for those that are excepted', async () => {
		const [kept] = (await page({ category: 'Anchors' })).rows;
		const chosen = { filter: { ...wholeLoad, category: 'Anchors' }, except: [kept!.id] };
		await decide(pool, course.courseId, id, course.personId, chosen, { do: 'choose', choice: 'leave' });
		expect(await choices()).toMatchObject({ away: 119 });
	});
	it('is mended at once, and nothing beside it', async () => {
		const escaped = await loadPackage(pool, course, {
			'bank.xml': bankXml({
				One: [item('e1', 'What is &amp;amp;quot;slack water&amp;amp;quot;?', ['No stream', 'Low water'])],
				Two: [item('e2', 'What is a &amp;amp;quot;neap&amp;amp;quot;?', ['A small tide', 'A high one'])]
			})
		});
		const chosen = { filter: { ...wholeLoad, category: 'Two' }, except: [] };
		expect(await mendStaged(pool, course.courseId, escaped, course.personId, 'escaped-twice', chosen)).toEqual({
			mended: 1,
			left: 0
		});
	});
	it('is nobody else’s question', async () => {
		const other = await loadPackage(pool, course, harbour);
		const chosen = { filter: wholeLoad, except: [] };
		await decide(pool, course.courseId, other, course.personId, chosen, { do: 'choose', choice: 'leave' });
		expect(await choices()).toMatchObject({ away: 0, n: 123 });
	});
});

describe('what a load comes to', () => {
	const summary = async () => (await reviewSummary(pool, course.courseId, id))!;
	it('is counted with what a review begins with, and kept until something changes', async () => {
		const found = await summary();
		expect(found).toMatchObject({
			found: 123,
			categories: [
				{ key: 'Anchors', own: 120 },
				{ key: 'Knots', own: 3 }
			],
			decision: { bankId: null },
			plan: { found: 123, taken: 121, aside: 2 }
		});
		expect(found.rules.find(({ rule }) => rule === 'no-key')).toMatchObject({ questions: 2, severity: 'broken' });
		expect(await keptSummary(pool, course.courseId, id)).toEqual(found);
		await keepDecision(pool, id, course.personId, decision({ leftOut: ['Anchors'] }));
		expect(await keptSummary(pool, course.courseId, id)).toBeUndefined();
		expect((await summary()).plan).toMatchObject({ left: 120, taken: 1, aside: 2 });
	});
	it('is counted anew once something has been done in its course', async () => {
		const second = await loadPackage(pool, course, harbour);
		await reviewSummary(pool, course.courseId, second);
		await takeIn(pool, course.courseId, id, course.personId, decision());
		expect(await keptSummary(pool, course.courseId, second)).toBeUndefined();
		const bank = (await banksOf(pool, course.courseId))[0]!;
		await keepDecision(pool, second, course.personId, decision({ bankId: bank.id }));
		expect((await reviewSummary(pool, course.courseId, second))!.existing).toEqual(['Anchors', 'Knots']);
	});
	it('is told in full: the questions by what becomes of them, those of quizzes too', async () => {
		const changes = (await changesOf(pool, course.courseId, id))!;
		expect(changes.outcomes.map(({ outcome, questions, first }) => [outcome, questions, first.length])).toEqual([
			['taken', 121, 100],
			['aside', 2, 2]
		]);
		expect(changes.quizzes).toEqual([]);
	});
	it('is nothing for a load of another course', async () => {
		const other = await makeCourse(pool);
		expect(await reviewSummary(pool, other.courseId, id)).toBeUndefined();
		expect(await changesOf(pool, other.courseId, id)).toBeUndefined();
	});
});
