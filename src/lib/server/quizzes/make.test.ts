import { afterAll, beforeEach, describe, expect, it } from 'vitest';
import { drawingRule } from '$core/draws/sheets/rule';
import { plainSettings } from '$lib/forms/quiz';
import { banksOf } from '../banks/banks';
import { savedFilters, saveFilter } from '../banks/saved';
import { undoDeed } from '../changes/undo';
import { touchCourse } from '../courses/counts';
import { lossTable } from '../dispatches/losses';
import { row, rows, run } from '../db/pool';
import { deedsOf } from '../ledger/ledger';
import { Refused } from '../loads/refused';
import { takeIn } from '../loads/take-in';
import { bankXml, decide, item, loadPackage, makeCourse, testPool } from '../test-support/world';
import { copyQuiz } from './copy-quiz';
import { formsAt, formsOf, makeForms } from './forms';
import {
	addToQuiz,
	blankPart,
	makeWholeQuiz,
	putQuizBack,
	quizChoices,
	quizOfFilter,
	quizOfPlace,
	throwAway
} from './make';
import { lookIntoSheet } from './look';
import { markForms, typedLines, writeDifficulties } from './marks';
import { bankTrees } from './pools';
import { quizOf } from './quiz';
import { quizzesOf } from './quizzes';
import { makeSeries, seriesShape } from './series';

const pool = testPool();
afterAll(() => pool.end());
let course: Awaited<ReturnType<typeof makeCourse>>;
let bankId = 0;
let places = new Map<string, number>();
let ids: number[] = [];

async function fill(into: typeof course, sections: Record<string, string[]>, bankName = 'Watch'): Promise<void> {
	await takeIn(
		pool,
		into.courseId,
		await loadPackage(pool, into, { 'bank.xml': bankXml(sections) }),
		into.personId,
		decide({ bankName })
	);
}
const asked = (title: string) => item(title, `What does ${title} say?`, [`Right ${title}`, 'Wrong', 'Neither'], 'A');
beforeEach(async () => {
	course = await makeCourse(pool);
	await fill(course, { Lights: ['l1', 'l2', 'l3', 'l4'].map(asked), Sounds: ['s1', 's2'].map(asked) });
	bankId = (await banksOf(pool, course.courseId))[0]!.id;
	places = new Map((await bankTrees(pool, course.courseId)).map((node) => [node.name, node.id]));
	ids = (
		await rows<{ id: number }>(pool, 'SELECT id FROM questions WHERE course_id = ? ORDER BY id', [course.courseId])
	).map(({ id }) => id);
});
const partOf = async (quizId: number, at = 0) => (await quizOf(pool, course.courseId, quizId))!.parts[at]!;
const chosen = (keys: number[]) => ({
	bankId,
	ids: keys,
	categoryId: null,
	withUnder: true,
	words: '',
	filters: {},
	except: []
});

describe('a quiz that is made in one step', () => {
	it('draws from the category or the bank that it is made of', async () => {
		const lights = places.get('Lights')!;
		const ofCategory = await quizOfPlace(pool, course, { bankId, categoryId: lights });
		expect(await partOf(ofCategory)).toMatchObject({ title: 'Lights', categories: [lights], draw: null });
		const ofBank = await quizOfPlace(pool, course, { bankId, categoryId: null });
		expect((await quizOf(pool, course.courseId, ofBank))!).toMatchObject({
			title: 'Watch',
			drawingRule,
			parts: [{ categories: [-bankId] }]
		});
		await expect(quizOfPlace(pool, await makeCourse(pool), { bankId, categoryId: lights })).rejects.toThrow(Refused);
	});
	it('takes chosen questions in, behind those of a list or as a new part, and none twice', async () => {
		const quizId = await makeWholeQuiz(pool, course, {
			title: 'Own',
			parts: [blankPart('List', { questions: [ids[0]!] })]
		});
		expect(await addToQuiz(pool, course, chosen([ids[2]!, ids[0]!]), { quizId, part: 0 })).toEqual({
			quizId,
			questions: 1
		});
		expect((await partOf(quizId)).questions).toEqual([ids[0], ids[2]]);
		await addToQuiz(pool, course, chosen([ids[1]!]), { quizId, part: null });
		expect(await partOf(quizId, 1)).toMatchObject({ questions: [ids[1]], order: 'kept' });
		expect((await quizOf(pool, course.courseId, quizId))!.version).toBe(3);
		expect((await quizChoices(pool, course.courseId))[0]).toMatchObject({
			id: quizId,
			parts: [{ at: 0, title: 'List', questions: 2 }, { at: 1 }]
		});
		const drawing = await quizOfPlace(pool, course, { bankId, categoryId: null });
		await expect(addToQuiz(pool, course, chosen([ids[1]!]), { quizId: drawing, part: 0 })).rejects.toThrow(
			'draws from'
		);
	});
	it('is thrown away and put back as it was', async () => {
		const quizId = await makeWholeQuiz(pool, course, {
			title: 'Own',
			parts: [blankPart('List', { questions: [ids[0]!], pointsEach: 3 })],
			settings: { ...plainSettings(), minutes: 12 }
		});
		const gone = (await throwAway(pool, course, quizId))!;
		expect(await quizzesOf(pool, course.courseId)).toEqual([]);
		expect(await throwAway(pool, await makeCourse(pool), quizId)).toBeNull();
		const back = await putQuizBack(pool, course, { ...gone, parts: gone.parts.map((part) => ({ ...part, lost: [] })) });
		expect(await quizOf(pool, course.courseId, back)).toEqual({ ...gone, id: back, version: 1 });
		expect((await deedsOf(pool, course.courseId)).slice(0, 2).map(({ deed }) => deed)).toEqual([
			'put back a quiz',
			'threw away a quiz'
		]);
	});
});

describe('a series', () => {
	const series = (more: object) => seriesShape.validateSync({ categories: [], title: 'Week {n}: {category}', ...more });
	it('has a quiz for each category in the order of the tree, dated one after the other', async () => {
		const categories = [places.get('Sounds')!, places.get('Lights')!];
		await makeSeries(
			pool,
			course,
			series({ categories, draw: 2, pointsEach: 1, opens: '2027-03-26T08:00', everyDays: 7, dueAfter: 5 })
		);
		const made = [...(await quizzesOf(pool, course.courseId))].reverse();
		expect(made.map(({ title, draws, opens, due }) => [title, draws, opens, due])).toEqual([
			['Week 1: Lights', 2, '2027-03-26T08:00', '2027-03-31T08:00'],
			// over the night in which the clocks change, it opens at the same hour
			['Week 2: Sounds', 2, '2027-04-02T08:00', '2027-04-07T08:00']
		]);
	});
	it('by the sheet of a quiz has its parts, its lists and its settings', async () => {
		const like = await makeWholeQuiz(pool, course, {
			title: 'Like this',
			parts: [
				blankPart('Always', { questions: [ids[0]!], order: 'kept' }),
				blankPart('Some', { categories: [-bankId], draw: 1, pointsEach: 4, conditions: undefined })
			],
			settings: { ...plainSettings(), minutes: 9 }
		});
		const [first] = await makeSeries(pool, course, series({ categories: [places.get('Sounds')!], quizId: like }));
		const quiz = (await quizOf(pool, course.courseId, first!))!;
		expect(quiz.settings.minutes).toBe(9);
		expect(quiz.parts).toMatchObject([
			{ title: 'Always', questions: [ids[0]], categories: [] },
			{ title: 'Some', draw: 1, pointsEach: 4, categories: [places.get('Sounds')] }
		]);
		await expect(makeSeries(pool, course, series({ categories: [999_999_999] }))).rejects.toThrow(Refused);
	});
});

describe('a copy of a quiz', () => {
	it('in another course finds its pools by path and its questions by what they say, and tells what is not there', async () => {
		const other = { ...(await makeCourse(pool)), personId: course.personId };
		await fill(other, { Lights: ['l1', 'l2'].map(asked) });
		const quizId = await makeWholeQuiz(pool, course, {
			title: 'Watch',
			parts: [
				blankPart('Drawn', { categories: [places.get('Lights')!, places.get('Sounds')!], draw: 1 }),
				blankPart('Listed', { questions: [ids[0]!, ids[4]!] })
			]
		});
		const copy = await copyQuiz(pool, course, quizId, other.courseId);
		expect(copy.missing).toEqual(['Watch › Sounds', '“s1”']);
		const there = (await quizOf(pool, other.courseId, copy.quizId))!;
		expect(there.parts[0]!.lost).toMatchObject([{ kind: 'category', bank: 'Watch', name: 'Sounds' }]);
		expect(there.parts[1]).toMatchObject({ questions: [expect.any(Number)], lost: [{ kind: 'question', name: 's1' }] });
		// what it lacks is found as soon as it comes
		await takeIn(
			pool,
			other.courseId,
			await loadPackage(pool, other, { 'bank.xml': bankXml({ Sounds: ['s1', 's2'].map(asked) }) }),
			other.personId,
			decide({ bankId: (await banksOf(pool, other.courseId))[0]!.id })
		);
		const later = (await quizOf(pool, other.courseId, copy.quizId))!;
		expect(later.parts.map(({ lost }) => lost)).toEqual([[], []]);
		expect(later.parts[0]!.categories).toHaveLength(2);
		const here = await copyQuiz(pool, course, quizId, course.courseId);
		expect(await partOf(here.quizId)).toMatchObject({ draw: 1, title: 'Drawn' });
	});
});

describe('forms for paper', () => {
	const quizOfLights = (draw: number) =>
		makeWholeQuiz(pool, course, {
			title: 'On paper',
			parts: [blankPart('Lights', { categories: [places.get('Lights')!], draw })]
		});
	it('share as little as can be, or have the same questions in other orders', async () => {
		const quizId = await quizOfLights(2);
		const apart = (await formsAt(
			pool,
			course.courseId,
			quizId,
			await makeForms(pool, course, quizId, { count: 2, same: false, seed: 'paper' })
		))!;
		expect(apart).toMatchObject({ reached: 0, least: 0, forms: [{ name: 'A' }, { name: 'B' }] });
		const same = (await formsAt(
			pool,
			course.courseId,
			quizId,
			await makeForms(pool, course, quizId, { count: 5, same: true, seed: 'paper' })
		))!;
		const sets = same.forms.map(({ parts }) => [...parts[0]!].sort((a, b) => a - b).join());
		expect(new Set(sets).size).toBe(1);
		expect(new Set(same.forms.map(({ parts }) => parts[0]!.join())).size).toBe(2);
		await expect(makeForms(pool, course, await quizOfLights(9), { count: 1, same: false, seed: 'x' })).rejects.toThrow(
			'wants 9'
		);
		await run(pool, 'UPDATE questions SET version = version + 1 WHERE id = ?', [ids[0]]);
		expect((await formsOf(pool, course.courseId, quizId)).map(({ changed, gone }) => changed + gone)).toContain(1);
	});
	it('are marked by the real scoring whatever order their options have, and show how each question did', async () => {
		const quizId = await quizOfLights(4);
		const formsId = await makeForms(pool, course, quizId, { count: 3, same: false, seed: 'paper' });
		const { formQuestions } = await import('$core/paper/form');
		const { paperQuestion } = await import('$core/paper');
		const { questionsById } = await import('../banks/banks');
		const forms = (await formsAt(pool, course.courseId, quizId, formsId))!;
		const questions = await questionsById(pool, course.courseId, ids);
		const keys = new Map(
			forms.forms.map((form) => [
				form.name,
				formQuestions(form, forms, questions).map(({ question, order }) => paperQuestion(question, order).key)
			])
		);
		const line = (student: string, form: string, wrong: number) =>
			[student, form, ...keys.get(form)!.map((key, at) => (at < wrong ? (key === 'A' ? 'B' : 'A') : key))].join(';');
		const csv = ['name;form;1;2;3;4', line('Ines', 'A', 0), line('Bo', 'B', 1), line('Kim', 'C', 4), 'Jon;X;A'].join(
			'\n'
		);
		const marks = await markForms(pool, course.courseId, quizId, formsId, csv);
		expect(marks.students.map(({ student, points, outOf }) => [student, points, outOf])).toEqual([
			['Ines', 4, 4],
			['Bo', 3, 4],
			['Kim', 0, 4]
		]);
		expect(marks.faults).toMatchObject([{ line: 4, message: expect.stringContaining('no form “X”') }]);
		expect(marks.items).toHaveLength(4);
		for (const { options, papers } of marks.items) {
			expect(papers).toBe(3);
			expect(options.reduce((sum, { count }) => sum + count, 0)).toBe(3);
			expect(options.filter(({ isRight }) => isRight)).toHaveLength(1);
		}
		const deed = await writeDifficulties(
			pool,
			course,
			marks.items.map(({ id, ease }) => ({ id, difficulty: 1 - ease }))
		);
		const hard = async () =>
			(
				await rows<{ difficulty: string }>(pool, 'SELECT difficulty FROM questions WHERE id IN (?) ORDER BY id', [
					marks.items.map(({ id }) => id)
				])
			).map(({ difficulty }) => difficulty);
		expect((await hard()).filter((difficulty) => difficulty === '0.67')).toHaveLength(1);
		expect((await hard()).filter((difficulty) => difficulty === '0.33')).toHaveLength(3);
		await undoDeed(pool, course.courseId, course.personId, deed.deedId, false);
		expect(await hard()).toEqual(['', '', '', '']);
	});
	it('take answers with and without headings, and say where there are none', () => {
		expect(typedLines('Ines,A,B', ['A'])).toEqual([{ student: 'Ines', form: 'A', answers: ['B'] }]);
		expect(typedLines('who\tform\t1\nInes\ta\tB', ['A'])).toEqual([{ student: 'Ines', form: 'a', answers: ['B'] }]);
		expect(() => typedLines('  ', ['A'])).toThrow(Refused);
	});
});

describe('what students get of a sheet', () => {
	it('follows the bank at once, and tells how long it takes to be read', async () => {
		const sheet = { parts: [blankPart('All', { categories: [-bankId], draw: 3 })] };
		const look = () => lookIntoSheet(pool, course.courseId, sheet, { figures: true, attempts: null });
		const before = await look();
		expect(before.parts[0]!.holds).toBe(6);
		expect(before.figures!.seconds!.mean).toBeGreaterThan(3);
		expect(before.figures!.difficulty).toBeNull();
		expect(await look()).toEqual(before);
		await fill(course, { Flags: [asked('f1')] }, 'Signals');
		const flags = (await banksOf(pool, course.courseId)).find(({ name }) => name === 'Signals')!.id;
		sheet.parts[0]!.categories.push(-flags);
		expect((await look()).parts[0]!.holds).toBe(7);
		await updateQuestions();
		expect((await look()).figures!.difficulty).toMatchObject({ least: 0.5, most: 0.5, equal: true });
	});
	async function updateQuestions() {
		await run(pool, "UPDATE questions SET difficulty = '0,5' WHERE course_id = ?", [course.courseId]);
		await touchCourse(pool, course.courseId);
	}
});

describe('a quiz of a saved filter', () => {
	const save = async (query: string) => {
		await saveFilter(pool, course.courseId, course.personId, 'Sums', query);
		return (await savedFilters(pool, course.courseId)).find(({ name }) => name === 'Sums')!.id;
	};
	it('draws from a pool that asks for the same, so that what fits later comes in', async () => {
		const filterId = await save('kind=multiple-choice&since=2026-01-01&sort=title');
		const place = { bankId, categoryId: places.get('Lights')!, filterId };
		const { quizId, listed } = await quizOfFilter(pool, course, place);
		expect(listed).toBeNull();
		const quiz = (await quizOf(pool, course.courseId, quizId))!;
		expect(quiz).toMatchObject({
			title: 'Sums',
			parts: [{ categories: [places.get('Lights')], conditions: { kinds: ['multiple-choice'], since: '2026-01-01' } }]
		});
	});
	it('lists what fits now, where a pool cannot ask for all of it', async () => {
		const filterId = await save('shuffle=no&kind=multiple-choice');
		await run(pool, 'UPDATE questions SET shuffle = 0 WHERE id IN (?)', [ids.slice(0, 2)]);
		const { quizId, listed } = await quizOfFilter(pool, course, { bankId, categoryId: null, filterId });
		expect(listed).toBe(2);
		expect((await partOf(quizId)).questions.toSorted()).toEqual(ids.slice(0, 2).toSorted());
	});
	it('says so where the filter is gone, or finds nothing', async () => {
		const filterId = await save('words=zzyzx');
		const place = { bankId, categoryId: null };
		await expect(quizOfFilter(pool, course, { ...place, filterId })).rejects.toThrow(Refused);
		await expect(quizOfFilter(pool, course, { ...place, filterId: filterId + 999 })).rejects.toThrow('gone meanwhile');
	});
});

describe('a quiz that is sent', () => {
	it('tells what of its sheet no format says, and writes quotas that come out even as parts', async () => {
		const even = { by: 'category' as const, spread: 'equal' as const, least: null, most: null };
		const values = ['Lights', 'Sounds'].map((name) => ({ category: places.get(name)! }));
		const quizId = await makeWholeQuiz(pool, course, {
			title: 'Sent',
			parts: [blankPart('Mixed', { categories: [-bankId], draw: 2, quotas: [{ ...even, values }] })],
			settings: { ...plainSettings(), attempts: 3 }
		});
		const told = async () => (await lossTable(pool, course.courseId, { quizId }, 'qti21')).quiz!.what.join(' ');
		expect(await told()).toContain('becomes 2 parts, which give exactly the same');
		expect(await told()).toContain('that there are 3 attempts');
		await run(pool, 'UPDATE quiz_parts SET draw = 3 WHERE quiz_id = ?', [quizId]);
		expect(await told()).toContain('without its quotas');
		expect(await row(pool, 'SELECT id FROM quizzes WHERE id = ?', [quizId])).toBeDefined();
	});
});
