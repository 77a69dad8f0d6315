import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { parseQuestion } from '$core/kinds/schema';
import { banksOf, storedQuestion } from '../banks/banks';
import { binBank, makeBank, mergeBanks, moveBank, renameBank } from '../banks/change';
import {
	dropCategory,
	makeCategory,
	mergeCategory,
	moveCategory,
	numberCategories,
	renameCategory,
	sortCategories
} from '../banks/categories';
import { categoryTree } from '../banks/tree';
import { checkCourse } from '../checks/course';
import { row, rows, run } from '../db/pool';
import { unhindered } from '../jobs/control';
import { deedsOf } from '../ledger/ledger';
import { Refused } from '../loads/refused';
import { takeIn } from '../loads/take-in';
import { bringBackVersion, editQuestion, makeQuestion } from '../questions/edit';
import { quizOfChosen } from '../quizzes/make';
import { saveQuiz } from '../quizzes/save';
import { fillCourse } from '../test-support/fill';
import { copyBank } from '../banks/apart';
import { bankXml, decide, item, loadPackage, makeCourse, testPool, makeQuiz } from '../test-support/world';
import { doBulk, previewBulk, type Bulk } from './bulk';
import { undoDeed, wayBackOf } from './undo';

const pool = testPool();
afterAll(() => pool.end());
let course: { courseId: number; personId: number };
let other: { courseId: number; personId: number };
let bankId = 0;
const sections = {
	'1. Tides': [
		item('springs', 'When are springs?', ['Full moon', 'Half moon']),
		item('neaps', 'When are neaps?', ['Half', 'Full'])
	],
	'10. Lights': [item('red', 'What is red?', ['Port', 'Starboard'])],
	'2. Charts': [
		item('datum', 'What is chart datum?', ['A level', 'A place']),
		item('rose', 'What is a rose?', ['A compass', 'A flower'])
	]
};
beforeAll(async () => {
	other = await makeCourse(pool);
});
beforeEach(async () => {
	course = await makeCourse(pool);
	const load = await loadPackage(pool, course, { 'a.xml': bankXml(sections) });
	await takeIn(pool, course.courseId, load, course.personId, decide({ bankName: 'Spring' }));
	bankId = (await banksOf(pool, course.courseId))[0]!.id;
	await checkCourse(pool, course.courseId, unhindered);
});

/** All that a course holds, but for keys of what is made anew and for when things were done. */
async function stateOf(courseId: number) {
	return {
		banks: await rows(pool, 'SELECT id, name, description FROM banks WHERE course_id = ? ORDER BY id', [courseId]),
		categories: await rows(
			pool,
			'SELECT c.id, c.bank_id, c.parent_id, c.name, c.code FROM categories c JOIN banks b ON b.id = c.bank_id WHERE b.course_id = ? ORDER BY c.bank_id, c.position, c.id',
			[courseId]
		),
		questions: await rows<{ category_id: number | null; tags: string; points: number | null }>(
			pool,
			'SELECT id, bank_id, category_id, kind, title, points, tags, shuffle, difficulty, language, document, HEX(fingerprint) AS f, verified_by, verified, disputed, machine FROM questions WHERE course_id = ? ORDER BY id',
			[courseId]
		),
		snags: await rows(
			pool,
			'SELECT question_id, rule, message FROM snags WHERE course_id = ? ORDER BY question_id, rule, message',
			[courseId]
		),
		// what tags are found by
		tags: await rows(
			pool,
			'SELECT t.question_id, t.tag FROM question_tags t JOIN questions q ON q.id = t.question_id WHERE q.course_id = ? ORDER BY t.question_id, t.tag',
			[courseId]
		),
		quizzes: await rows(
			pool,
			`SELECT p.title, (SELECT GROUP_CONCAT(u.question_id ORDER BY u.position) FROM quiz_part_questions u WHERE u.part_id = p.id) AS questions,
				(SELECT GROUP_CONCAT(k.category_id ORDER BY k.category_id) FROM quiz_part_categories k WHERE k.part_id = p.id) AS categories,
				(SELECT GROUP_CONCAT(b.bank_id) FROM quiz_part_banks b WHERE b.part_id = p.id) AS banks
			FROM quiz_parts p JOIN quizzes z ON z.id = p.quiz_id WHERE z.course_id = ? ORDER BY p.id`,
			[courseId]
		)
	};
}
const idsOf = async () =>
	(await rows<{ id: number }>(pool, 'SELECT id FROM questions WHERE course_id = ? ORDER BY id', [course.courseId])).map(
		({ id }) => id
	);
const categoryNamed = async (name: string, bank = bankId) =>
	(await categoryTree(pool, bank)).find((node) => node.name === name)!;
const whole = () => ({ bankId, categoryId: null, withUnder: true, words: '', filters: {}, except: [] as number[] });
const bulk = (what: Omit<Bulk, 'chosen'> & { chosen?: object }) =>
	doBulk(pool, course.courseId, course.personId, { chosen: whole(), ...what } as unknown as Bulk);
const back = (deedId: number, all = false) => undoDeed(pool, course.courseId, course.personId, deedId, all);

/** Does something, says whether the course is another then, takes it back, and has it as it was; then does it again. */
async function thereAndBack(does: () => Promise<{ deedId: number }>) {
	const before = await stateOf(course.courseId);
	const { deedId } = await does();
	await checkCourse(pool, course.courseId, unhindered);
	const after = await stateOf(course.courseId);
	expect(after.tags).toHaveLength(after.questions.flatMap((one) => JSON.parse(one.tags) as string[]).length);
	expect(after).not.toEqual(before);
	expect((await wayBackOf(pool, course.courseId, deedId))?.changedInAll).toBe(0);
	const undone = await back(deedId);
	await checkCourse(pool, course.courseId, unhindered);
	expect(await stateOf(course.courseId)).toEqual(before);
	expect(await wayBackOf(pool, course.courseId, deedId)).toBeUndefined();
	await expect(back(deedId)).rejects.toThrow('taken back already');
	// and what was taken back is done again the same way
	const redone = await back(undone.deedId);
	await checkCourse(pool, course.courseId, unhindered);
	expect(
		(await stateOf(course.courseId)).questions.map(({ category_id, tags, points }) => [
			category_id === null,
			tags,
			points
		])
	).toEqual(after.questions.map(({ category_id, tags, points }) => [category_id === null, tags, points]));
	await back(redone.deedId);
	await checkCourse(pool, course.courseId, unhindered);
	expect(await stateOf(course.courseId)).toEqual(before);
}

describe('what is done to many at once is taken back as one', () => {
	it.each([
		['points', { do: 'edit', what: { edit: 'points', points: 3 } }],
		['tags', { do: 'edit', what: { edit: 'tags', add: ['tide'], remove: [] } }],
		['shuffle', { do: 'edit', what: { edit: 'shuffle', on: false } }],
		['pin', { do: 'edit', what: { edit: 'pin', which: 'last' } }],
		['difficulty', { do: 'edit', what: { edit: 'difficulty', difficulty: 'hard' } }],
		['language', { do: 'edit', what: { edit: 'language', language: 'de' } }],
		[
			'words',
			{ do: 'edit', what: { edit: 'replace', find: 'When', put: 'At what time', exactCase: true, wholeWords: true } }
		],
		['keys verified', { do: 'key', state: 'verified', note: '' }],
		['keys doubted', { do: 'key', state: 'disputed', note: 'The tables of 2026 say otherwise.' }],
		['a machine', { do: 'machine', on: 'yes' }],
		['the bin', { do: 'bin' }]
	] as [string, Bulk][])('%s', async (_, what) => {
		await thereAndBack(() => bulk(what));
	});
	it('a move to another category', async () => {
		const to = await categoryNamed('2. Charts');
		await thereAndBack(() => bulk({ do: 'move', to: { bankId, categoryId: to.id } } as never));
	});
	it('a copy, whose questions are in the bin then', async () => {
		const to = await categoryNamed('2. Charts');
		const before = await stateOf(course.courseId);
		const copied = await bulk({ do: 'copy', to: { bankId, categoryId: to.id } } as never);
		expect(copied.questions).toBe(5);
		expect(await idsOf()).toHaveLength(10);
		await back(copied.deedId);
		await checkCourse(pool, course.courseId, unhindered);
		expect(await stateOf(course.courseId)).toEqual(before);
	});
	it('a move to another course, with its snags, and back', async () => {
		await run(pool, "INSERT INTO memberships (person_id, course_id, role) VALUES (?, ?, 'work')", [
			course.personId,
			other.courseId
		]);
		const { bankId: there } = await makeBank(pool, other, `Bank ${Date.now()}`);
		await thereAndBack(() => bulk({ do: 'move', to: { bankId: there, categoryId: null } } as never));
	});
	it('is not taken back out of a course that the person may not change any more', async () => {
		const elsewhere = await makeCourse(pool);
		const role = (what: string) =>
			run(
				pool,
				'INSERT INTO memberships (person_id, course_id, role) VALUES (?, ?, ?) ON DUPLICATE KEY UPDATE role = VALUES(role)',
				[course.personId, elsewhere.courseId, what]
			);
		await role('work');
		const { bankId: there } = await makeBank(pool, elsewhere, 'There');
		const moved = await bulk({ do: 'move', to: { bankId: there, categoryId: null } } as never);
		await role('look');
		await expect(back(moved.deedId)).rejects.toThrow('which you may not change');
		expect((await stateOf(elsewhere.courseId)).questions).toHaveLength(5);
		await role('work');
		expect((await back(moved.deedId)).questions).toBe(5);
	});
	it('goes nowhere that the person may not change, and nowhere that is not there', async () => {
		const { bankId: there } = await makeBank(pool, await makeCourse(pool), 'Not yours');
		for (const to of [
			{ bankId: there, categoryId: null },
			{ bankId: 999_999, categoryId: null },
			{ bankId, categoryId: 999_999 }
		])
			await expect(bulk({ do: 'move', to } as never)).rejects.toBeInstanceOf(Refused);
	});
});

describe('what is chosen', () => {
	it('is some by their keys, or all that a filter finds but for some', async () => {
		const ids = await idsOf();
		const some = await bulk({
			do: 'edit',
			what: { edit: 'points', points: 7 },
			chosen: { ...whole(), ids: ids.slice(0, 2) }
		} as never);
		expect(some.questions).toBe(2);
		const found = await bulk({
			do: 'edit',
			what: { edit: 'points', points: 8 },
			chosen: { ...whole(), filters: { points: '7' }, except: [ids[0]] }
		} as never);
		expect(found).toMatchObject({ questions: 1, words: '1 question: 8 points each.' });
	});
	it('is never of another course', async () => {
		const ids = await idsOf();
		await expect(
			doBulk(pool, other.courseId, other.personId, { do: 'bin', chosen: { ...whole(), ids } } as never)
		).rejects.toThrow('Nothing is chosen');
		expect(await idsOf()).toHaveLength(5);
	});
	it('is told in numbers before, with what it would be', async () => {
		const before = await stateOf(course.courseId);
		const preview = await previewBulk(pool, course.courseId, course.personId, {
			do: 'edit',
			chosen: whole(),
			what: { edit: 'replace', find: 'when', put: 'At what time', exactCase: false, wholeWords: true }
		} as never);
		expect(preview).toMatchObject({ chosen: 5, changes: 2, words: '2 questions: “when” by “At what time”.' });
		expect(preview.examples.map(({ after }) => after.stem)).toEqual([
			'At what time are springs?',
			'At what time are neaps?'
		]);
		expect(await stateOf(course.courseId)).toEqual(before);
	});
	it('becomes a quiz in its order', async () => {
		const ids = await idsOf();
		const { quizId, questions } = await quizOfChosen(pool, course, { ...whole(), ids: [ids[2]!, ids[0]!] }, 'Short');
		expect(questions).toBe(2);
		const named = await rows<{ id: number }>(
			pool,
			'SELECT u.question_id AS id FROM quiz_part_questions u JOIN quiz_parts p ON p.id = u.part_id WHERE p.quiz_id = ? ORDER BY u.position',
			[quizId]
		);
		expect(named.map(({ id }) => id)).toEqual([ids[2], ids[0]]);
	});
});

describe('what was changed since', () => {
	it('is told first, stays as it is, and goes back too where that is asked for', async () => {
		const ids = await idsOf();
		const { deedId } = await bulk({ do: 'edit', what: { edit: 'points', points: 3 } } as never);
		await bulk({ do: 'edit', what: { edit: 'points', points: 4 }, chosen: { ...whole(), ids: [ids[0]] } } as never);
		const told = await wayBackOf(pool, course.courseId, deedId);
		expect(told).toMatchObject({ questions: 5, changedInAll: 1, changed: [{ id: ids[0] }] });
		const undone = await back(deedId);
		expect(undone.questions).toBe(4);
		const points = async () =>
			(
				await rows<{ points: number }>(pool, 'SELECT points FROM questions WHERE course_id = ? ORDER BY id', [
					course.courseId
				])
			).map((one) => one.points);
		expect(await points()).toEqual([4, 1, 1, 1, 1]);
		await back(undone.deedId);
		expect(await points()).toEqual([4, 3, 3, 3, 3]);
	});
	it('goes back as well where that is asked for', async () => {
		const ids = await idsOf();
		const { deedId } = await bulk({ do: 'edit', what: { edit: 'points', points: 3 } } as never);
		await bulk({ do: 'edit', what: { edit: 'points', points: 4 }, chosen: { ...whole(), ids: [ids[0]] } } as never);
		await back(deedId, true);
		expect(await row(pool, 'SELECT points FROM questions WHERE id = ?', [ids[0]])).toEqual({ points: 1 });
	});
	it('is of one course alone', async () => {
		const { deedId } = await bulk({ do: 'bin' } as never);
		expect(await wayBackOf(pool, other.courseId, deedId)).toBeUndefined();
		await expect(undoDeed(pool, other.courseId, other.personId, deedId, true)).rejects.toThrow('no way back');
	});
});

describe('quizzes', () => {
	it('remember what goes to the bin, and have it again once it is back', async () => {
		const [first, second] = await idsOf();
		const charts = await categoryNamed('2. Charts');
		const quizId = await makeQuiz(pool, course.courseId, 'Week 1');
		const part = {
			title: 'A',
			draw: null,
			pointsEach: 1,
			order: 'kept' as const,
			shuffleOptions: true,
			withUnder: true
		};
		await saveQuiz(pool, course.courseId, quizId, {
			title: 'Week 1',
			state: 'draft',
			version: 1,
			parts: [
				{ ...part, categories: [], questions: [second!, first!] },
				{ ...part, title: 'B', categories: [charts.id], questions: [] }
			]
		});
		const before = (await stateOf(course.courseId)).quizzes;
		const { deedId } = await bulk({ do: 'bin' } as never);
		expect((await stateOf(course.courseId)).quizzes[0]).toMatchObject({ questions: null });
		const dropped = await dropCategory(pool, course, bankId, charts.id, 'above');
		expect((await stateOf(course.courseId)).quizzes[1]).toMatchObject({ categories: null });
		await back(dropped.deedId);
		await back(deedId);
		expect((await stateOf(course.courseId)).quizzes).toEqual(before);
	});
});

describe('a bank', () => {
	it('is made, renamed and described, and no two have one name', async () => {
		await thereAndBack(() => makeBank(pool, course, 'Autumn', 'What the autumn needs.'));
		await thereAndBack(() => renameBank(pool, course, bankId, 'Spring 2027', 'Renewed'));
		await makeBank(pool, course, 'Winter');
		await expect(makeBank(pool, course, 'winter')).rejects.toThrow('Another bank of this course is called');
		await expect(renameBank(pool, course, bankId, 'Winter', '')).rejects.toThrow('Another bank');
	});
	it('goes to the bin with all that is in it, and comes back', async () => {
		await thereAndBack(() => binBank(pool, course, bankId));
	});
	it('goes to another course with its categories', async () => {
		await run(pool, "INSERT INTO memberships (person_id, course_id, role) VALUES (?, ?, 'work')", [
			course.personId,
			other.courseId
		]);
		const to = { id: other.courseId, name: 'Vessel Stability', code: 'X' };
		const moved = await moveBank(pool, course, bankId, to);
		expect(moved.questions).toBe(5);
		expect((await stateOf(course.courseId)).questions).toEqual([]);
		expect((await categoryTree(pool, bankId)).map(({ all }) => all)).toEqual([2, 1, 2]);
		expect((await banksOf(pool, other.courseId)).find(({ id }) => id === bankId)?.questions).toBe(5);
		await back(moved.deedId);
		expect((await stateOf(course.courseId)).questions).toHaveLength(5);
	});
	it('is copied and taken back while all questions of the course are checked', async () => {
		const large = await fillCourse(pool, course.personId, 1500);
		const who = { courseId: large.id, personId: course.personId };
		const copied = await copyBank(pool, who, large.bank, 'Again', { id: large.id, name: 'Lights', code: 'B' });
		expect(copied.questions).toBe(1500);
		const [undone] = await Promise.all([
			undoDeed(pool, large.id, course.personId, copied.deedId, false),
			checkCourse(pool, large.id, unhindered)
		]);
		expect(undone.questions).toBe(1500);
		expect(await rows(pool, 'SELECT COUNT(*) AS n FROM questions WHERE course_id = ?', [large.id])).toEqual([
			{ n: 1500 }
		]);
	});
	it('is merged into another by the paths of its categories', async () => {
		const { bankId: into } = await makeBank(pool, course, 'Into');
		await makeCategory(pool, course, into, null, '2. Charts');
		const before = await stateOf(course.courseId);
		const merged = await mergeBanks(pool, course, bankId, into);
		expect(merged.questions).toBe(5);
		expect((await categoryTree(pool, into)).map(({ name, all }) => [name, all])).toEqual([
			['2. Charts', 2],
			['1. Tides', 2],
			['10. Lights', 1]
		]);
		await expect(mergeBanks(pool, course, into, into)).rejects.toThrow('itself');
		await back(merged.deedId);
		await checkCourse(pool, course.courseId, unhindered);
		expect(await stateOf(course.courseId)).toEqual(before);
	});
});

describe('a category', () => {
	it('is made, renamed, moved, merged, sorted, numbered and taken away, and each is taken back', async () => {
		const [tides, lights, charts] = await Promise.all(
			['1. Tides', '10. Lights', '2. Charts'].map((name) => categoryNamed(name))
		);
		await thereAndBack(() => makeCategory(pool, course, bankId, tides!.id, 'Springs'));
		await thereAndBack(() => renameCategory(pool, course, bankId, tides!.id, { name: 'Tides', code: 'T1' }));
		await thereAndBack(() => moveCategory(pool, course, bankId, lights!.id, tides!.id, null));
		await thereAndBack(() => moveCategory(pool, course, bankId, charts!.id, null, tides!.id));
		await thereAndBack(() => mergeCategory(pool, course, bankId, lights!.id, charts!.id));
		await thereAndBack(() => dropCategory(pool, course, bankId, charts!.id, 'above'));
		await thereAndBack(() => dropCategory(pool, course, bankId, charts!.id, 'bin'));
		await thereAndBack(() => dropCategory(pool, course, bankId, charts!.id, { categoryId: tides!.id }));
		await thereAndBack(() => sortCategories(pool, course, bankId, null));
		await thereAndBack(() => numberCategories(pool, course, bankId, null));
	});
	it('stands where numbers have their natural order, and is numbered so that letters keep it', async () => {
		await sortCategories(pool, course, bankId, null);
		const names = async () => (await categoryTree(pool, bankId)).map(({ name }) => name);
		expect(await names()).toEqual(['1. Tides', '2. Charts', '10. Lights']);
		await numberCategories(pool, course, bankId, null);
		expect(await names()).toEqual(['1 Tides', '2 Charts', '3 Lights']);
	});
	it('takes what is under it along when it is merged, by their names', async () => {
		const [tides, charts] = [await categoryNamed('1. Tides'), await categoryNamed('2. Charts')];
		const { categoryId: one } = await makeCategory(pool, course, bankId, tides.id, 'Extra');
		const { categoryId: two } = await makeCategory(pool, course, bankId, charts.id, 'Extra');
		await makeCategory(pool, course, bankId, charts.id, 'More');
		const [first] = await idsOf();
		await bulk({ do: 'move', chosen: { ...whole(), ids: [first] }, to: { bankId, categoryId: two } } as never);
		await mergeCategory(pool, course, bankId, charts.id, tides.id);
		expect((await categoryTree(pool, bankId)).map(({ name, depth, own }) => [name, depth, own])).toEqual([
			['1. Tides', 0, 3],
			['Extra', 1, 1],
			['More', 1, 0],
			['10. Lights', 0, 1]
		]);
		expect(
			(await row<{ category_id: number }>(pool, 'SELECT category_id FROM questions WHERE id = ?', [first]))!.category_id
		).toBe(one);
	});
	it('never stands in itself, beside one of its name, or in another course', async () => {
		const tides = await categoryNamed('1. Tides');
		const { categoryId: under } = await makeCategory(pool, course, bankId, tides.id, 'Under');
		await expect(moveCategory(pool, course, bankId, tides.id, under, null)).rejects.toThrow('under itself');
		await expect(mergeCategory(pool, course, bankId, tides.id, under)).rejects.toThrow('under it');
		await expect(makeCategory(pool, course, bankId, null, '1. Tides')).rejects.toThrow('already');
		await expect(dropCategory(pool, course, bankId, tides.id, { categoryId: under })).rejects.toThrow('that stays');
		await expect(makeCategory(pool, other, bankId, null, 'x')).rejects.toThrow('no such bank');
		await expect(moveCategory(pool, other, bankId, tides.id, null, null)).rejects.toThrow('no such bank');
	});
});

describe('a question', () => {
	const stored = async (id: number) => (await storedQuestion(pool, course.courseId, id))!;
	it('is edited, has a history, and has an old version back', async () => {
		const [id] = await idsOf();
		const { question, version } = await stored(id!);
		const done = await editQuestion(pool, course.courseId, course.personId, id!, version, {
			...question,
			stem: 'When are spring tides?'
		});
		expect(done).toMatchObject({ questions: 1 });
		const edited = await stored(id!);
		expect(edited.question.stem).toBe('When are spring tides?');
		expect(edited.history.map((old) => [old.version, old.question.stem])).toEqual([[1, 'When are springs?']]);
		await bringBackVersion(pool, course.courseId, course.personId, id!, 1);
		expect((await stored(id!)).question.stem).toBe('When are springs?');
		expect((await stored(id!)).history).toHaveLength(2);
	});
	it('that two people edit is kept once, and the second is shown both', async () => {
		const [id] = await idsOf();
		const { question, version } = await stored(id!);
		const write = (stem: string) =>
			editQuestion(pool, course.courseId, course.personId, id!, version, { ...question, stem });
		const both = await Promise.all([write('One says this.'), write('The other says that.')]);
		const clash = both.find((done) => 'clash' in done) as { now: { stem: string }; version: number; by: string };
		expect(both.filter((done) => 'deedId' in done)).toHaveLength(1);
		expect(clash).toMatchObject({ version: version + 1, by: 'Ines Carrow' });
		expect(clash.now.stem).toBe((await stored(id!)).question.stem);
	});
	it('is made by hand, with its snags, and taken back into the bin', async () => {
		const question = { ...(await stored((await idsOf())[0]!)).question, identifier: 'new', title: 'New', stem: '' };
		const made = await makeQuestion(pool, course.courseId, course.personId, { bankId, categoryId: null }, question);
		const shown = await stored(made.questionId);
		expect(shown.reports.map(({ rule }) => rule)).toContain('empty-stem');
		await back(made.deedId);
		expect(await storedQuestion(pool, course.courseId, made.questionId)).toBeUndefined();
		await expect(
			makeQuestion(pool, course.courseId, course.personId, { bankId: 999_999, categoryId: null }, question)
		).rejects.toBeInstanceOf(Refused);
	});
	it('that is no question is refused, and takes no file of another course', async () => {
		const [id] = await idsOf();
		const { question, version } = await stored(id!);
		await expect(
			editQuestion(pool, course.courseId, course.personId, id!, version, { ...question, kind: 'constructor' })
		).rejects.toThrow();
		const hash = '0'.repeat(64);
		await editQuestion(pool, course.courseId, course.personId, id!, version, {
			...question,
			stem: '<p>See <img src="media:x.png" alt="x"/></p>',
			attachments: [{ name: 'x.png', mediaType: 'image/png', hash, missing: false }]
		});
		expect((await stored(id!)).question.attachments).toEqual([]);
	});
	it('whose key was verified is verified still when its points are set, and not when it was edited', async () => {
		const [id] = await idsOf();
		const chosen = { ...whole(), ids: [id] };
		await bulk({ do: 'key', state: 'verified', chosen, note: '' } as never);
		await bulk({ do: 'edit', what: { edit: 'points', points: 9 }, chosen } as never);
		const state = () => row(pool, 'SELECT version, verified_version FROM questions WHERE id = ?', [id]);
		expect(await state()).toEqual({ version: 2, verified_version: 2 });
		const { question, version } = await stored(id!);
		await editQuestion(pool, course.courseId, course.personId, id!, version, { ...question, stem: 'Another stem?' });
		expect(await state()).toEqual({ version: 3, verified_version: 2 });
		expect(parseQuestion(question).points).toBe(9);
	});
});

describe('the ledger', () => {
	it('tells each deed, who did it, to how many, and whether it can be taken back', async () => {
		const { deedId } = await bulk({ do: 'edit', what: { edit: 'points', points: 3 } } as never);
		await bulk({ do: 'edit', what: { edit: 'points', points: 3 } } as never);
		const [last] = await deedsOf(pool, course.courseId);
		expect(last).toMatchObject({
			id: deedId,
			deed: 'set the points of',
			questions: 5,
			wayBack: 'open',
			person: 'Ines Carrow'
		});
		await back(deedId);
		const [undo, first] = await deedsOf(pool, course.courseId);
		expect(undo).toMatchObject({ deed: 'took back', wayBack: 'open' });
		expect(first).toMatchObject({ wayBack: 'done' });
	});
});
