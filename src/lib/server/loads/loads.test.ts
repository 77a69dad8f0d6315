import { afterAll, beforeEach, describe, expect, it } from 'vitest';
import { emptyCommon } from '$core/model/question';
import { choice, essay, option } from '$core/test-support/questions';
import { pathKey } from '$core/take-in/paths';
import { planTakeIn } from '$core/take-in/plan';
import { banksOf, storedQuestion } from '../banks/banks';
import { allListed, allRows, wholeBank } from '../test-support/world';
import { categoryTree } from '../banks/tree';
import { row, rows, run } from '../db/pool';
import { Stopped, unhindered } from '../jobs/control';
import { deedsOf } from '../ledger/ledger';
import { quizzesOf } from '../quizzes/quizzes';
import { quizOf } from '../quizzes/quiz';
import { changesOf } from './changes';
import { arriving, bankXml, decide, item, loadPackage, makeCourse, testPool } from '../test-support/world';
import { loadOf, readAgain, receive, stopReading, throwAway } from './loads';
import { readLoad } from './read';
import { receipt, receiptQuestions, receiptHead } from './receipt';
import { keepDecision } from './decide';
import { reviewSummary } from './summary';
import { Refused } from './refused';
import { fileReports, foundOthers, stagedQuestion } from './review';
import { plannedQuestions } from './planned';
import { takeIn } from './take-in';
import { undo, undoPreview } from './undo';

const pool = testPool();
afterAll(() => pool.end());
let course: Awaited<ReturnType<typeof makeCourse>>;
beforeEach(async () => {
	course = await makeCourse(pool);
});

const picture = '<svg xmlns="http://www.w3.org/2000/svg"/>';
const files = {
	'bank.xml': bankXml({
		Stability: [
			item('s1', 'What does GM join?', ['The metacentre', 'The keel']),
			item('s2', 'What lowers G?', ['Ballast', 'Deck cargo'], null)
		],
		Trim: [item('t1', 'Which sign?', ['By the stern', 'By the head'], 'A', '<matimage uri="images/trim.svg"/>')],
		'': [item('n1', 'Which list?', ['To port', 'To port'])]
	}),
	'images/trim.svg': picture
};
const numbers = async (loadId: number) => {
	const sum = { found: 0, taken: 0, replaced: 0, aside: 0, left: 0, skipped: 0 };
	for (const line of (await receipt(pool, loadId)).categories)
		for (const key of Object.keys(sum) as (keyof typeof sum)[]) sum[key] += line[key];
	return sum;
};

describe('reading a load', () => {
	it('stages every question with its category, its source and its snags, and takes nothing in', async () => {
		const id = await loadPackage(pool, course, files);
		const load = await loadOf(pool, course.courseId, id);
		expect(load).toMatchObject({ state: 'review', questions_found: 4, format: 'QTI 1.2 package' });
		expect(load!.bytes_read).toBe(load!.bytes_total);
		const staged = await allListed(pool, course.courseId, id);
		expect(staged.map((one) => [one.number, one.title, one.category, one.broken])).toEqual([
			[1, 's1', 'Stability', false],
			[2, 's2', 'Stability', true],
			[3, 't1', 'Trim', false],
			[4, 'n1', '', false]
		]);
		expect(staged[1]!.marks).toEqual([{ rule: 'no-key', severity: 'broken' }]);
		expect(staged[3]!.marks.map((mark) => mark.rule)).toEqual(['empty-or-repeated-option']);
		const one = await stagedQuestion(pool, course.courseId, id, staged[2]!.id);
		expect(one!.source).toContain('<item ident="i-t1"');
		expect(one!.question.attachments).toMatchObject([
			{ name: 'images/trim.svg', missing: false, hash: expect.stringMatching(/^[0-9a-f]{64}$/) }
		]);
		expect(await banksOf(pool, course.courseId)).toEqual([]);
	});
	it('stores the same picture once', async () => {
		await loadPackage(pool, course, files);
		await loadPackage(pool, course, files);
		const hash = (
			await rows<{ n: number }>(pool, 'SELECT COUNT(*) AS n FROM files WHERE size = ?', [picture.length])
		)[0]!;
		expect(hash.n).toBe(1);
	});
	it('begins afresh after it broke off, with nothing twice', async () => {
		const id = await loadPackage(pool, course, files);
		await readLoad(pool, id, unhindered);
		expect(await allListed(pool, course.courseId, id)).toHaveLength(4);
	});
	it('says what a file holds in which there are no questions', async () => {
		const id = await loadPackage(pool, course, { 'a.png': 'x', 'b.png': 'y', 'notes.pdf': 'z' });
		expect(await loadOf(pool, course.courseId, id)).toMatchObject({
			state: 'failed',
			failure: 'No questions were found in it. It holds 3 files: 2 png, 1 pdf.'
		});
	});
	it('says what a file is that no reader knows, and what to do with it', async () => {
		const id = await loadPackage(pool, course, {
			mimetype: 'application/vnd.oasis.opendocument.text',
			'content.xml': '<office/>'
		});
		expect(await loadOf(pool, course.courseId, id)).toMatchObject({
			state: 'failed',
			failure: expect.stringContaining('OpenDocument') as string
		});
	});
	it('says that a file is no text, where it is none', async () => {
		const noise = Uint8Array.from({ length: 3000 }, (_, at) => (at * 7919) % 256);
		const id = await loadPackage(pool, course, noise, 'gannet.dat');
		expect(await loadOf(pool, course.courseId, id)).toMatchObject({
			state: 'failed',
			failure: expect.stringContaining('“gannet.dat” is no text in any encoding') as string
		});
	});
	it('lists what the package holds beside its questions', async () => {
		const id = await loadPackage(pool, course, { ...files, 'notes/trim.html': '<p>Trim</p>' });
		expect(await foundOthers(pool, id)).toEqual([{ path: 'notes/trim.html', type: '' }]);
		expect((await fileReports(pool, id)).map((report) => report.rule)).toEqual(['not-ours']);
	});
	it('says that a package is damaged', async () => {
		const id = await loadPackage(pool, course, new Uint8Array([0x50, 0x4b, 3, 4, 9, 9, 9, 9]));
		expect(await loadOf(pool, course.courseId, id)).toMatchObject({
			state: 'failed',
			failure: expect.stringContaining('damaged')
		});
	});
	it('keeps what is said about the file itself', async () => {
		const id = await loadPackage(pool, course, {
			...files,
			'imsmanifest.xml':
				'<manifest><resources><resource type="imsqti_xmlv1p2" href="bank.xml"><file href="bank.xml"/><file href="gone.xml"/></resource></resources></manifest>'
		});
		expect(await fileReports(pool, id)).toMatchObject([{ rule: 'missing-file', place: 'imsmanifest.xml' }]);
	});
	it('stops when it is told to, and keeps nothing of the reading', async () => {
		const bytes = new TextEncoder().encode(files['bank.xml']);
		const id = await receive(pool, course.courseId, course.personId, 'bank.xml', bytes.length, arriving(bytes));
		let steps = 0;
		const control = {
			check: () => {
				if ((steps += 1) > 2) throw new Stopped();
			}
		};
		await expect(readLoad(pool, id, control)).rejects.toBeInstanceOf(Stopped);
		expect(await loadOf(pool, course.courseId, id)).toMatchObject({ state: 'stopped' });
		expect(await allListed(pool, course.courseId, id)).toEqual([]);
		await readAgain(pool, id);
		expect(await loadOf(pool, course.courseId, id)).toMatchObject({ state: 'waiting' });
		await stopReading(pool, id);
		expect(await loadOf(pool, course.courseId, id)).toMatchObject({ state: 'stopped' });
	});
	it('leaves nothing behind where the upload breaks off', async () => {
		const before = await row<{ n: number }>(pool, 'SELECT COUNT(*) AS n FROM loads WHERE course_id = ?', [
			course.courseId
		]);
		const broken = (async function* () {
			yield new Uint8Array(2_000_000);
			throw new Error('the line is dead');
		})();
		await expect(receive(pool, course.courseId, course.personId, 'x.zip', 9_000_000, broken)).rejects.toThrow(
			'the line is dead'
		);
		expect(await row(pool, 'SELECT COUNT(*) AS n FROM loads WHERE course_id = ?', [course.courseId])).toEqual(before);
		expect(await row(pool, 'SELECT COUNT(*) AS n FROM files WHERE hash IS NULL')).toEqual({ n: 0 });
	});
	it('finds what is in the course already', async () => {
		await takeIn(pool, course.courseId, await loadPackage(pool, course, files), course.personId, decide());
		const again = await allListed(pool, course.courseId, await loadPackage(pool, course, files));
		expect(again[0]!.marks).toEqual([{ rule: 'exact-duplicate', severity: 'doubtful' }]);
	});
});

describe('taking a load in', () => {
	it('does what the plan said, and adds up', async () => {
		const id = await loadPackage(pool, course, files);
		const said = planTakeIn(await plannedQuestions(pool, course.courseId, id, decide()), decide(), []);
		const plan = await takeIn(pool, course.courseId, id, course.personId, decide());
		expect(plan).toEqual(said);
		expect(plan).toMatchObject({ found: 4, taken: 3, aside: 1, left: 0 });
		expect([...plan.newCategories].sort()).toEqual(['Stability', 'Trim']);
		expect(await numbers(id)).toMatchObject({ found: 4, taken: 3, aside: 1, left: 0 });
		const [bank] = await banksOf(pool, course.courseId);
		expect(bank).toMatchObject({ name: 'Autumn', questions: 3 });
		expect((await categoryTree(pool, bank!.id)).map((node) => [node.name, node.own, node.all])).toEqual([
			['Stability', 1, 1],
			['Trim', 1, 1]
		]);
		expect(await deedsOf(pool, course.courseId)).toMatchObject([
			{ deed: 'took in', questions: 3, person: 'Ines Carrow' }
		]);
	});
	it('keeps what is set aside with its reason, and in no bank', async () => {
		const id = await loadPackage(pool, course, files);
		await takeIn(pool, course.courseId, id, course.personId, decide());
		expect(await receiptQuestions(pool, id, 'aside', null)).toMatchObject([
			{ title: 's2', questionId: null, why: 'No option is marked as right. Mark the key.' }
		]);
		expect(await receiptQuestions(pool, id, 'taken', 'Trim')).toMatchObject([
			{ title: 't1', questionId: expect.any(Number) }
		]);
	});
	it('brings the snags of what it takes', async () => {
		const id = await loadPackage(pool, course, files);
		await takeIn(pool, course.courseId, id, course.personId, decide());
		expect(await rows(pool, 'SELECT rule FROM snags WHERE course_id = ?', [course.courseId])).toEqual([
			{ rule: 'empty-or-repeated-option' }
		]);
	});
	it('takes nothing at all where one is in error and the rule says so', async () => {
		const id = await loadPackage(pool, course, files);
		await expect(takeIn(pool, course.courseId, id, course.personId, decide({ errors: 'nothing' }))).rejects.toThrow(
			'1 question is broken'
		);
		expect(await banksOf(pool, course.courseId)).toEqual([]);
		expect(await loadOf(pool, course.courseId, id)).toMatchObject({ state: 'review' });
	});
	it('leaves out categories, and puts the rest in one', async () => {
		const id = await loadPackage(pool, course, files);
		await takeIn(
			pool,
			course.courseId,
			id,
			course.personId,
			decide({ categories: 'one', oneCategory: 'All', leftOut: ['Stability'] })
		);
		expect(await numbers(id)).toMatchObject({ found: 4, taken: 2, aside: 0, left: 2 });
		const [bank] = await banksOf(pool, course.courseId);
		expect((await categoryTree(pool, bank!.id)).map((node) => [node.name, node.own])).toEqual([['All', 2]]);
	});
	it('makes the categories of a file in which nothing stands, and says so before', async () => {
		const own = {
			format: 'yarn-barrow-questions',
			version: 1,
			title: 'Trim',
			questions: [essay({ category: ['Trim'] })],
			categories: [['Trim'], ['Stability', 'Free surface'], ['Old']]
		};
		const id = await loadPackage(pool, course, Buffer.from(JSON.stringify(own)), 'trim.json');
		const decision = decide({ leftOut: ['Old'] });
		await keepDecision(pool, id, course.personId, decision);
		expect((await reviewSummary(pool, course.courseId, id))!.plan.newCategories).toEqual([
			'Trim',
			'Stability',
			pathKey(['Stability', 'Free surface'])
		]);
		await takeIn(pool, course.courseId, id, course.personId, decision);
		const [bank] = await banksOf(pool, course.courseId);
		expect((await categoryTree(pool, bank!.id)).map((node) => [node.name, node.own])).toEqual([
			['Trim', 1],
			['Stability', 0],
			['Free surface', 0]
		]);
		await undo(pool, course.courseId, id, course.personId);
		expect(await rows(pool, 'SELECT id FROM categories WHERE bank_id = ?', [bank!.id])).toEqual([]);
	});
	it('joins an existing bank and its categories', async () => {
		await takeIn(pool, course.courseId, await loadPackage(pool, course, files), course.personId, decide());
		const [bank] = await banksOf(pool, course.courseId);
		const more = await loadPackage(pool, course, {
			'more.xml': bankXml({
				Trim: [item('t9', 'Draught?', ['Depth', 'Height'])],
				trim: [item('t8', 'Beam?', ['Width', 'Height'])]
			})
		});
		const plan = await takeIn(pool, course.courseId, more, course.personId, decide({ bankId: bank!.id }));
		// names differ by case, so they are two categories
		expect([plan.categories.length, plan.newCategories]).toEqual([2, ['trim']]);
		expect((await categoryTree(pool, bank!.id)).map((node) => [node.name, node.own])).toEqual([
			['Stability', 1],
			['Trim', 2],
			['trim', 1]
		]);
	});
	it('works once, however often it is pressed', async () => {
		const id = await loadPackage(pool, course, files);
		const presses = await Promise.allSettled(
			Array.from({ length: 5 }, () => takeIn(pool, course.courseId, id, course.personId, decide()))
		);
		expect(presses.filter((press) => press.status === 'fulfilled')).toHaveLength(1);
		for (const press of presses) if (press.status === 'rejected') expect(press.reason).toBeInstanceOf(Refused);
		const [bank] = await banksOf(pool, course.courseId);
		expect(bank!.questions).toBe(3);
	});
	it('refuses a name that is taken, a bank of another course, and a load of another course', async () => {
		const id = await loadPackage(pool, course, files);
		await run(pool, 'INSERT INTO banks (course_id, name) VALUES (?, ?)', [course.courseId, 'Autumn']);
		await expect(takeIn(pool, course.courseId, id, course.personId, decide())).rejects.toThrow(
			'There is a bank called “Autumn”'
		);
		const other = await makeCourse(pool);
		const foreign = (await run(pool, 'INSERT INTO banks (course_id, name) VALUES (?, ?)', [other.courseId, 'Theirs']))
			.id;
		await expect(takeIn(pool, course.courseId, id, course.personId, decide({ bankId: foreign }))).rejects.toThrow(
			'is gone'
		);
		await expect(takeIn(pool, other.courseId, id, other.personId, decide())).rejects.toThrow('is gone');
	});
	it('takes quizzes in, whose parts refer to the questions', async () => {
		const assessment = `<questestinterop><assessment ident="a" title="Paper"><section ident="p1" title="At random"><selection_ordering><selection><selection_number>1</selection_number></selection><order order_type="Random"/></selection_ordering>${item('q1', 'One?', ['a', 'b'])}${item('q2', 'Two?', ['a', 'b'])}</section></assessment></questestinterop>`;
		await takeIn(
			pool,
			course.courseId,
			await loadPackage(pool, course, { 'paper.xml': assessment }),
			course.personId,
			decide()
		);
		const [quiz] = await quizzesOf(pool, course.courseId);
		expect(quiz).toMatchObject({ title: 'Paper', parts: 1 });
		expect((await quizOf(pool, course.courseId, quiz!.id))!.parts).toMatchObject([
			{ title: 'At random', draw: 1, order: 'shuffled', questions: [expect.any(Number), expect.any(Number)] }
		]);
	});
	it('takes a quiz that comes again in no second time, and gives another of its title a number', async () => {
		const paper = (drawn: number) => ({
			'paper.xml': `<questestinterop><assessment ident="a" title="Paper"><section ident="p1" title="At random"><selection_ordering><selection><selection_number>${drawn}</selection_number></selection><order order_type="Random"/></selection_ordering>${item('q1', 'One?', ['a', 'b'])}${item('q2', 'Two?', ['a', 'b'])}</section></assessment></questestinterop>`
		});
		let bankId: number | null = null;
		const load = async (drawn: number) => {
			const id = await loadPackage(pool, course, paper(drawn));
			const changes = await changesOf(pool, course.courseId, id);
			await takeIn(pool, course.courseId, id, course.personId, decide(bankId ? { bankId, same: 'skip' } : {}));
			const { bank, quizzes, sameQuizzes } = await receiptHead(pool, id);
			bankId ??= bank!.id;
			return { known: changes!.quizzes[0]!.isKnown, quizzes, sameQuizzes };
		};
		const first = await load(1);
		expect(first).toMatchObject({ known: false, quizzes: [{ title: 'Paper', lacks: [] }], sameQuizzes: [] });
		const { id } = first.quizzes[0]!;
		expect(await load(1)).toEqual({ known: true, quizzes: [], sameQuizzes: [{ id, title: 'Paper' }] });
		const other = await load(2);
		expect(other.quizzes).toMatchObject([
			{ title: 'Paper 2', lacks: ['The course has another quiz called “Paper”, so that this one is called “Paper 2”.'] }
		]);
		expect((await quizzesOf(pool, course.courseId)).map(({ title }) => title).sort()).toEqual(['Paper', 'Paper 2']);
		// as it was found once more, it is the first
		expect((await load(1)).sameQuizzes).toEqual([{ id, title: 'Paper' }]);
	});
	it('has quizzes refer to the right questions, also where these have no identifiers', async () => {
		const questions = ['One?', 'Two?', 'Three?', 'Four?'].map((stem) => ({
			...emptyCommon('', stem),
			kind: 'essay',
			stem
		}));
		const quizzes = [{ title: 'Paper', parts: [{ title: 'P', questions: [3, 2] }] }];
		const file = JSON.stringify({ format: 'yarn-barrow-questions', version: 1, questions, quizzes });
		const id = await loadPackage(pool, course, new TextEncoder().encode(file), 'bank.json');
		await takeIn(pool, course.courseId, id, course.personId, decide());
		const [quiz] = await quizzesOf(pool, course.courseId);
		const [part] = (await quizOf(pool, course.courseId, quiz!.id))!.parts;
		const titles = await Promise.all(
			part!.questions.map((question) =>
				row<{ title: string }>(pool, 'SELECT title FROM questions WHERE id = ?', [question])
			)
		);
		expect(titles.map((one) => one!.title).sort()).toEqual(['Three?', 'Two?']);
	});
});

describe('taking a load back', () => {
	it('leaves the course as it was, and the load to be reviewed again', async () => {
		const id = await loadPackage(pool, course, files);
		await takeIn(pool, course.courseId, id, course.personId, decide());
		expect(await undoPreview(pool, id)).toEqual({ questions: 3, replaced: 0, changed: [], quizzes: [], own: [] });
		expect(await undo(pool, course.courseId, id, course.personId)).toBe(3);
		// the receipt stays in the ledger
		const deeds = await deedsOf(pool, course.courseId);
		expect(deeds.find((deed) => deed.deed === 'took in')!.receipt).toMatchObject([
			{ key: 'Stability', found: 2, taken: 1, aside: 1 },
			{ key: 'Trim', found: 1, taken: 1 },
			{ key: '', found: 1, taken: 1 }
		]);
		expect(await banksOf(pool, course.courseId)).toEqual([]);
		expect(await rows(pool, 'SELECT id FROM snags WHERE course_id = ?', [course.courseId])).toEqual([]);
		expect(await rows(pool, 'SELECT id FROM categories WHERE load_id = ?', [id])).toEqual([]);
		expect(await loadOf(pool, course.courseId, id)).toMatchObject({ state: 'undone' });
		await expect(undo(pool, course.courseId, id, course.personId)).rejects.toBeInstanceOf(Refused);
		await takeIn(pool, course.courseId, id, course.personId, decide());
		expect(await numbers(id)).toMatchObject({ found: 4, taken: 3, aside: 1, left: 0 });
	});
	it('keeps what others have put into the same bank', async () => {
		const first = await loadPackage(pool, course, files);
		await takeIn(pool, course.courseId, first, course.personId, decide());
		const [bank] = await banksOf(pool, course.courseId);
		const second = await loadPackage(pool, course, {
			'more.xml': bankXml({ Trim: [item('t9', 'Draught?', ['Depth', 'Height'])] })
		});
		await takeIn(pool, course.courseId, second, course.personId, decide({ bankId: bank!.id }));
		await undo(pool, course.courseId, first, course.personId);
		const left = await allRows(pool, course.courseId, wholeBank(bank!.id));
		expect(left.map((one) => one.title)).toEqual(['t9']);
		expect((await categoryTree(pool, bank!.id)).map((node) => node.name)).toEqual(['Trim']);
	});
	it('throws away only what is not in the course', async () => {
		const id = await loadPackage(pool, course, files);
		await takeIn(pool, course.courseId, id, course.personId, decide());
		expect(await throwAway(pool, id)).toBe(false);
		await undo(pool, course.courseId, id, course.personId);
		expect(await throwAway(pool, id)).toBe(true);
		expect(await loadOf(pool, course.courseId, id)).toBeUndefined();
	});
	it('knows where a question came from', async () => {
		const id = await loadPackage(pool, course, files, 'autumn.zip');
		await takeIn(pool, course.courseId, id, course.personId, decide());
		const [line] = await receiptQuestions(pool, id, 'taken', 'Trim');
		expect(await storedQuestion(pool, course.courseId, line!.questionId!)).toMatchObject({
			from: 'autumn.zip',
			category: ['Trim'],
			version: 1,
			source: expect.stringContaining('ident="i-t1"')
		});
	});
});

describe('two loads at once', () => {
	it('that go to a new bank of one name make one of it, and the second is told', async () => {
		const ids = [
			await loadPackage(pool, course, files),
			await loadPackage(pool, course, { ...files, 'more.txt': '1. Which?' })
		];
		const settled = await Promise.allSettled(
			ids.map((id) =>
				takeIn(pool, course.courseId, id, course.personId, decide({ bankName: 'Shared', against: 'nothing' }))
			)
		);
		const refused = settled.filter((one) => one.status === 'rejected');
		expect(refused).toHaveLength(1);
		expect(refused[0]!.reason).toBeInstanceOf(Refused);
		expect(String(refused[0]!.reason.message)).toContain('“Shared”');
		expect((await banksOf(pool, course.courseId)).map((bank) => bank.name)).toEqual(['Shared']);
	});
});

describe('a category that is called like what every object has', () => {
	it.each(['constructor', '__proto__', 'toString'])('is taken in like any other: %s', async (name) => {
		const id = await loadPackage(pool, course, {
			'b.xml': bankXml({ [`x${name}`]: [item('a', 'Which light?', ['Red', 'Green'])] }).replaceAll(`x${name}`, name)
		});
		expect(planTakeIn(await plannedQuestions(pool, course.courseId, id, decide()), decide(), []).taken).toBeDefined();
		await takeIn(pool, course.courseId, id, course.personId, decide({ bankName: name }));
		const [bank] = await banksOf(pool, course.courseId);
		expect(bank!.name).toBe(name);
		expect((await categoryTree(pool, bank!.id)).map((node) => node.name)).toEqual([name]);
	});
});

describe('a question that has much of everything', () => {
	it('is staged with all that is said of it, and ends no load', async () => {
		const options = Array.from({ length: 60 }, (_, at) =>
			option(`o${at}`, `${at + 1}) ${'long '.repeat(400)}${at}`, at === 0 ? 1 : 1 / (at + 1.234567891))
		);
		const question = {
			...choice({ options, tags: Array.from({ length: 300 }, (_, at) => `tag number ${at}`) }),
			kind: 'multiple-response',
			stem: '1. Which of these?'
		};
		const text = JSON.stringify({ format: 'yarn-barrow-questions', version: 1, questions: [question] });
		const id = await loadPackage(pool, course, new TextEncoder().encode(text), 'much.json');
		expect(await loadOf(pool, course.courseId, id)).toMatchObject({ state: 'review', questions_found: 1 });
		const [one] = await allListed(pool, course.courseId, id);
		const found = await stagedQuestion(pool, course.courseId, id, one!.id);
		expect(found!.question.kind).toBe('multiple-response');
		expect(found!.reports.some((report) => report.rule === 'typed-numbering')).toBe(true);
	});
	it('is refused where its file says that it cannot be read at great length', async () => {
		const id = await loadPackage(pool, course, new TextEncoder().encode('x'.repeat(50)), `${'long-'.repeat(400)}.zip`);
		expect((await loadOf(pool, course.courseId, id))!.state).toBe('failed');
	});
});
