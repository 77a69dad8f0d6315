import { afterAll, beforeEach, describe, expect, it } from 'vitest';
import { edition } from '$core/checks/edition';
import { banksOf } from '../banks/banks';
import { allRows, wholeBank, makeQuiz } from '../test-support/world';
import { row, rows, run, transaction } from '../db/pool';
import { Stopped, unhindered } from '../jobs/control';
import { takeIn } from '../loads/take-in';
import { undo } from '../loads/undo';
import { removeQuestions } from '../questions/remove';
import { saveQuestions } from '../questions/save';
import { mend, mendPreview } from '../snags/mend';
import { everySnag } from '../snags/filter';
import { snagRows } from '../snags/list';
import { storedQuestion } from '../banks/banks';
import { bankXml, byDeed, decide, item, loadPackage, makeCourse, testPool } from '../test-support/world';
import { checkCourse, checkingOf, checkWhatIsDue, endChecking } from './course';
import { keptFindings, placeFindings } from './places';
import { touchCourse } from '../courses/counts';
import { throwAway } from '../quizzes/make';
import { saveQuiz } from '../quizzes/save';

const pool = testPool();
afterAll(() => pool.end());
let course: Awaited<ReturnType<typeof makeCourse>>;
let load = 0;
const titled = (ident: string, title: string, stem: string) =>
	item(ident, stem, ['Yes', 'No']).replace(`title="${ident}"`, `title="${title}"`);
beforeEach(async () => {
	course = await makeCourse(pool);
	load = await loadPackage(pool, course, {
		'bank.xml': bankXml({
			Tides: [
				titled('a', 'Neaps', 'Do neaps follow the quarters?'),
				titled('b', 'Neaps', 'Are neaps small?'),
				titled('c', 'Springs', 'Are springs large?'),
				titled('d', 'Springs', 'Are springs large?')
			],
			Lights: [titled('e', 'Neaps', 'Is a light seen at neaps?')]
		})
	});
	await takeIn(pool, course.courseId, load, course.personId, decide());
});
const idOf = async (stem: string) =>
	(await row<{ id: number }>(pool, 'SELECT id FROM questions WHERE course_id = ? AND stem_text = ?', [
		course.courseId,
		stem
	]))!.id;
const spoken = async (rule: string) =>
	(await snagRows(pool, course.courseId, { ...everySnag, check: rule }))
		.map((snag) => `${snag.category}: ${snag.title}`)
		.sort();
const change = async (id: number, stem: string, title: string) => {
	const { question, bankId } = (await storedQuestion(pool, course.courseId, id))!;
	await byDeed(pool, course, (connection, by) =>
		saveQuestions(connection, course.courseId, [{ id, bankId, question: { ...question, stem, title } }], by)
	);
};

describe('the questions of a course', () => {
	it('are held against one another once they are taken in, in the background', async () => {
		// what the load has said of it is there at once
		expect(await spoken('same-title')).toEqual(['Tides: Neaps', 'Tides: Neaps']);
		await run(pool, 'DELETE FROM snags WHERE course_id = ?', [course.courseId]);
		expect(await checkingOf(pool, course.courseId)).toMatchObject({ state: 'waiting' });
		await checkCourse(pool, course.courseId, unhindered);
		// of two that are the same it is said once
		expect(await spoken('same-title')).toEqual(['Tides: Neaps', 'Tides: Neaps']);
		expect(await spoken('exact-duplicate')).toEqual(['Tides: Springs', 'Tides: Springs']);
		expect(await rows(pool, 'SELECT DISTINCT checked FROM questions WHERE course_id = ?', [course.courseId])).toEqual([
			{ checked: edition }
		]);
	});
	it('are checked again where a check is new or changed, and keep what a reader has said', async () => {
		await checkCourse(pool, course.courseId, unhindered);
		const id = await idOf('Are neaps small?');
		// as it is after an older edition of the checks
		await run(pool, 'UPDATE questions SET checked = 7 WHERE id = ?', [id]);
		await run(pool, 'DELETE FROM snags WHERE course_id = ?', [course.courseId]);
		await run(
			pool,
			"INSERT INTO snags (course_id, question_id, rule, severity, message, words) VALUES (?, ?, 'typed-by-hand', 'untidy', 'Said by a reader.', '[]'), (?, ?, 'no-key', 'broken', 'Found by an older check.', '[]')",
			[course.courseId, id, course.courseId, id]
		);
		await run(pool, "UPDATE jobs SET state = 'done' WHERE kind = 'check' AND subject_id = ?", [course.courseId]);
		expect(await checkingOf(pool, course.courseId)).toBeNull();
		await checkWhatIsDue(pool);
		await checkWhatIsDue(pool);
		expect(
			(
				await rows(pool, "SELECT id FROM jobs WHERE kind = 'check' AND state = 'waiting' AND subject_id = ?", [
					course.courseId
				])
			).length
		).toBe(1);
		await checkCourse(pool, course.courseId, unhindered);
		expect(await spoken('typed-by-hand')).toEqual(['Tides: Neaps']);
		expect(await spoken('no-key')).toEqual([]);
		expect(await spoken('same-title')).toHaveLength(2);
	});
	it('can be left half checked, and it is said how far it came', async () => {
		let steps = 0;
		await expect(
			checkCourse(pool, course.courseId, {
				check: () => {
					steps += 1;
					if (steps > 2) throw new Stopped();
				}
			})
		).rejects.toThrow(Stopped);
		await endChecking(pool, course.courseId, 'stopped');
		await run(pool, "UPDATE jobs SET state = 'stopped' WHERE kind = 'check' AND subject_id = ?", [course.courseId]);
		expect(await checkingOf(pool, course.courseId)).toMatchObject({ state: 'stopped', done: 5, total: 5 });
	});
});

describe('a change of one question', () => {
	beforeEach(() => checkCourse(pool, course.courseId, unhindered));

	it('is checked at once, with those that it was like and those that it is like now', async () => {
		await change(await idOf('Are neaps small?'), 'Are springs large?', 'Springs');
		expect(await spoken('same-title')).toEqual([]);
		expect(await spoken('exact-duplicate')).toHaveLength(3);
		await change(await idOf('Do neaps follow the quarters?'), 'Does the moon pull?', 'Springs');
		expect(await spoken('same-title')).toHaveLength(4);
	});
	it('keeps what is said of a category where what it goes by is as it was, and takes it away where it is not', async () => {
		const placed = await loadPackage(pool, course, {
			'keys.xml': bankXml({
				Keys: Array.from({ length: 8 }, (_, at) =>
					item(`k${at}`, `What is said ${'once twice thrice four five six seven eight'.split(' ')[at]!} by the mate?`, [
						'Aye',
						'Nay',
						'Stay'
					]).replace('shuffle="Yes"', 'shuffle="No"')
				)
			})
		});
		await takeIn(pool, course.courseId, placed, course.personId, decide({ bankName: 'Keys' }));
		await checkCourse(pool, course.courseId, unhindered);
		const said = () => spoken('key-place').then((found) => found.length);
		expect(await said()).toBe(8);
		const id = await idOf('What is said once by the mate?');
		await change(id, 'What is said once by the first mate?', 'k0');
		expect(await said()).toBe(8);
		const { question, bankId } = (await storedQuestion(pool, course.courseId, id))!;
		await byDeed(pool, course, (connection, by) =>
			saveQuestions(
				connection,
				course.courseId,
				[{ id, bankId, question: { ...question, shuffle: true } as never }],
				by
			)
		);
		expect(await said()).toBe(0);
	});
	it('that takes it away ends what was said of the other', async () => {
		const first = await idOf('Are neaps small?');
		await transaction(pool, (connection) => removeQuestions(connection, course.courseId, [first]));
		expect(await spoken('same-title')).toEqual([]);
	});
	it('says nothing of questions of other courses', async () => {
		const other = await makeCourse(pool);
		const theirs = await loadPackage(pool, other, {
			'bank.xml': bankXml({ Tides: [titled('x', 'Ebb', 'Are springs large?')] })
		});
		await takeIn(pool, other.courseId, theirs, other.personId, decide());
		await checkCourse(pool, other.courseId, unhindered);
		expect(await snagRows(pool, other.courseId, { ...everySnag, check: 'exact-duplicate' })).toEqual([]);
	});
	it('loses nothing where two are made at the same time', async () => {
		const [a, b] = [await idOf('Are neaps small?'), await idOf('Do neaps follow the quarters?')];
		await Promise.all([change(a, 'Is it slack?', 'Slack'), change(b, 'When is it slack?', 'Slack')]);
		expect(await spoken('same-title')).toEqual(['Tides: Slack', 'Tides: Slack']);
	});
});

describe('the mend of a check over many', () => {
	beforeEach(() => checkCourse(pool, course.courseId, unhindered));

	it('is shown before it is made, and looks at the others', async () => {
		const preview = await mendPreview(pool, course.courseId, 'same-title', await idOf('Are neaps small?'));
		expect([preview!.before.title, preview!.after.title]).toEqual(['Neaps', 'Neaps (2)']);
		const first = await mendPreview(pool, course.courseId, 'same-title', await idOf('Do neaps follow the quarters?'));
		expect(first!.after).toEqual(first!.before);
	});
	it('mends all at once, after which nothing is found', async () => {
		expect(await mend(pool, course.courseId, course.personId, 'same-title', null, null)).toMatchObject({
			mended: 1,
			left: 1
		});
		expect(await spoken('same-title')).toEqual([]);
		const bank = (await banksOf(pool, course.courseId))[0]!;
		const found = await allRows(pool, course.courseId, wholeBank(bank.id));
		expect(found.map((question) => question.title).sort()).toEqual([
			'Neaps',
			'Neaps',
			'Neaps (2)',
			'Springs',
			'Springs'
		]);
	});
});

describe('a load that is taken back', () => {
	it('takes its notes with it, and the others are checked again', async () => {
		await checkCourse(pool, course.courseId, unhindered);
		await undo(pool, course.courseId, load, course.personId);
		expect(await rows(pool, 'SELECT rule FROM check_notes WHERE course_id = ?', [course.courseId])).toEqual([]);
		expect(await checkingOf(pool, course.courseId)).toMatchObject({ state: 'waiting' });
	});
});

describe('the categories and quizzes of a course', () => {
	const found = async () =>
		(await placeFindings(pool, course.courseId)).map(({ rule, place }) => [
			rule,
			'quizId' in place ? place.quiz : `${place.bank}: ${place.category.join('/')}`
		]);
	it('are checked as they are now, and anew once something has changed', async () => {
		expect(await found()).toEqual([]);
		const [bank] = await banksOf(pool, course.courseId);
		await run(pool, 'INSERT INTO categories (bank_id, name, position) VALUES ?', [
			[
				[bank!.id, 'Week 2', 7],
				[bank!.id, 'Week 10', 8]
			]
		]);
		expect(await found()).toEqual([]);
		await touchCourse(pool, course.courseId);
		expect(await found()).toEqual([
			['category-empty', `${bank!.name}: Week 2`],
			['category-empty', `${bank!.name}: Week 10`],
			['category-order', `${bank!.name}: `]
		]);
		expect(await keptFindings(pool, course.courseId)).toHaveLength(3);
		const quiz = await makeQuiz(pool, course.courseId, 'Tides for nothing');
		const part = {
			title: 'All',
			draw: null,
			pointsEach: 0,
			order: 'kept' as const,
			shuffleOptions: false,
			withUnder: true,
			categories: [-bank!.id],
			questions: []
		};
		const tides = await row<{ id: number }>(pool, "SELECT id FROM categories WHERE bank_id = ? AND name = 'Tides'", [
			bank!.id
		]);
		await saveQuiz(pool, course.courseId, quiz, {
			title: 'Tides for nothing',
			state: 'draft',
			version: 1,
			parts: [{ ...part, categories: [tides!.id] }]
		});
		expect(await found()).toContainEqual(['quiz-worthless', 'Tides for nothing']);
		await throwAway(pool, course, quiz);
		expect(await found()).toHaveLength(3);
	});
	it('are of one course alone', async () => {
		const other = await makeCourse(pool);
		expect(await placeFindings(pool, other.courseId)).toEqual([]);
	});
});
