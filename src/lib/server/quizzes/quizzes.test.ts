import { afterAll, beforeEach, describe, expect, it } from 'vitest';
import { banksOf, questionsById } from '../banks/banks';
import { rows, run } from '../db/pool';
import { Stopped, unhindered } from '../jobs/control';
import { questionIdsOf, type Consignment } from '../dispatches/consignment';
import { selectToSend } from '../dispatches/select';
import { begin, dispatchOf } from '../dispatches/dispatches';
import { lossTable } from '../dispatches/losses';
import { writeDispatch } from '../dispatches/write';
import { fileChunks } from '../files/files';
import { writtenFormats } from '$core/formats';
import type { FitOptions } from '$core/formats/fit/fit';
import { emptyCommon } from '$core/model/question';
import type { Question } from '$core/kinds';
import { takeIn } from '../loads/take-in';

import { allListed, bankXml, decide, item, loadPackage, makeCourse, testPool, makeQuiz } from '../test-support/world';
import { poolOf } from '$core/draws/pool';
import { poolSource } from './pools';
import { quizzesOf } from './quizzes';
import { blankPart, throwAway } from './make';
import { quizShape, saveQuiz, type EditedPart } from './save';
import { quizOf } from './quiz';

const pool = testPool();
afterAll(() => pool.end());
let course: Awaited<ReturnType<typeof makeCourse>>;
let bankId = 0;
beforeEach(async () => {
	course = await makeCourse(pool);
	const picture = '<matimage uri="images/low.svg"/>';
	const nested = `<questestinterop><section ident="w" title="Weather">${item('w1', 'What is a col?', ['Between two highs', 'A low'])}<section ident="f" title="Fronts">${item('f1', 'Which front?', ['Warm', 'Cold'], 'A', picture)}${item('f2', 'Which cloud?', ['Cirrus', 'Fog'])}</section></section>${item('n1', 'Which wind?', ['Veering', 'Backing'])}</questestinterop>`;
	await takeIn(
		pool,
		course.courseId,
		await loadPackage(pool, course, {
			'bank.xml': nested,
			'images/low.svg': '<svg xmlns="http://www.w3.org/2000/svg"/>'
		}),
		course.personId,
		decide()
	);
	bankId = (await banksOf(pool, course.courseId))[0]!.id;
});
const part = (more: Partial<EditedPart>) => blankPart('Part', { draw: 1, ...more });
const category = async (name: string) =>
	(await poolSource(pool, course.courseId, [])).tree.find((node) => node.name === name)!.id;
async function poolSize(one: EditedPart): Promise<number> {
	return poolOf(one, await poolSource(pool, course.courseId, [one])).length;
}
async function bytesOf(fileId: number): Promise<Uint8Array> {
	const chunks: Uint8Array[] = [];
	for await (const chunk of fileChunks(pool, fileId)) chunks.push(chunk);
	return Buffer.concat(chunks);
}

describe('pools', () => {
	it('hold a category, with and without what is under it', async () => {
		const weather = await category('Weather');
		expect(await poolSize(part({ categories: [weather] }))).toBe(3);
		expect(await poolSize(part({ categories: [weather], withUnder: false }))).toBe(1);
		expect(await poolSize(part({ categories: [weather, await category('Fronts')] }))).toBe(3);
	});
	it('hold a whole bank, or only what has no category in it', async () => {
		expect(await poolSize(part({ categories: [-bankId] }))).toBe(4);
		expect(await poolSize(part({ categories: [-bankId], withUnder: false }))).toBe(1);
	});
	it('hold questions that are named', async () => {
		const ids = await questionIdsOf(pool, course.courseId, { bankId });
		expect(await poolSize(part({ questions: ids.slice(0, 2) }))).toBe(2);
		expect([...(await questionsById(pool, course.courseId, ids)).keys()]).toHaveLength(4);
		expect((await questionsById(pool, (await makeCourse(pool)).courseId, ids)).size).toBe(0);
	});
});

describe('a quiz', () => {
	it('is saved whole and comes back as it was', async () => {
		const id = await makeQuiz(pool, course.courseId, 'Week 6');
		const parts = [
			part({
				title: 'Warm-up',
				draw: 2,
				pointsEach: 1.5,
				categories: [-bankId, await category('Fronts')].sort((a, b) => a - b)
			}),
			part({ title: 'All', draw: null, order: 'kept', shuffleOptions: false, withUnder: false })
		];
		expect(
			await saveQuiz(pool, course.courseId, id, { title: 'Week 6 check', state: 'ready', version: 1, parts })
		).toBe(2);
		expect(await quizOf(pool, course.courseId, id)).toMatchObject({
			id,
			title: 'Week 6 check',
			state: 'ready',
			version: 2,
			parts: parts.map((one) => ({ ...one, lost: [] }))
		});
	});
	it('is not saved over what somebody else has saved', async () => {
		const id = await makeQuiz(pool, course.courseId, 'Week 6');
		const quiz = { title: 'Mine', state: 'draft' as const, version: 1, parts: [] };
		expect(await saveQuiz(pool, course.courseId, id, quiz)).toBe(2);
		expect(await saveQuiz(pool, course.courseId, id, { ...quiz, title: 'Theirs' })).toBeNull();
		expect(await quizOf(pool, course.courseId, id)).toMatchObject({ title: 'Mine' });
	});
	it('draws from nothing of another course, whatever is sent', async () => {
		const other = await makeCourse(pool);
		const id = await makeQuiz(pool, other.courseId, 'Theirs');
		const ids = await questionIdsOf(pool, course.courseId, { bankId });
		await saveQuiz(pool, other.courseId, id, {
			title: 'Theirs',
			state: 'draft',
			version: 1,
			parts: [part({ categories: [await category('Weather'), -bankId], questions: ids })]
		});
		expect((await quizOf(pool, other.courseId, id))!.parts[0]).toMatchObject({ categories: [], questions: [] });
	});
	it('goes, and its questions stay', async () => {
		const id = await makeQuiz(pool, course.courseId, 'Week 6');
		await throwAway(pool, course, id);
		expect(await quizzesOf(pool, course.courseId)).toEqual([]);
		expect(await questionIdsOf(pool, course.courseId, { bankId })).toHaveLength(4);
	});
	it.each([
		[{ title: '', state: 'draft', version: 1, parts: [] }],
		[{ title: 'x', state: 'lost', version: 1, parts: [] }],
		[{ title: 'x', state: 'draft', version: 1, parts: [{ ...part({}), draw: -1 }] }],
		[{ title: 'x', state: 'draft', version: 1, parts: [{ ...part({}), pointsEach: 'many' }] }]
	])('wants the right shape: %j', (value) => {
		expect(() => quizShape.validateSync(value)).toThrow();
	});
});

describe('a dispatch', () => {
	async function send(what: Consignment, as = 'qti21', options?: FitOptions) {
		const id = await begin(pool, course.courseId, course.personId, what, as, options);
		await run(pool, "UPDATE jobs SET state = 'done' WHERE kind = 'dispatch' AND subject_id = ?", [id]);
		await writeDispatch(pool, id!, unhindered);
		return (await dispatchOf(pool, course.courseId, id!))!;
	}
	it('says beforehand what becomes of the questions', async () => {
		expect((await lossTable(pool, course.courseId, { bankId }, 'qti21')).lines).toMatchObject([
			{
				kind: 'multiple-choice',
				outcome: 'kept',
				what: '',
				questions: [{ title: 'w1' }, { title: 'f1' }, { title: 'f2' }, { title: 'n1' }]
			}
		]);
	});
	it('proves that nothing differs, and another course that takes it in has the same', async () => {
		const dispatch = await send({ bankId });
		expect(dispatch).toMatchObject({
			state: 'done',
			file_name: 'autumn-4.zip',
			proof: {
				inAll: 4,
				sent: 4,
				foundInFile: 4,
				identical: 4,
				foretold: 0,
				otherwise: 0,
				missing: 0,
				leftBehind: 0,
				lines: [],
				quiz: []
			}
		});
		const other = await makeCourse(pool);
		const load = await loadPackage(pool, other, await bytesOf(dispatch.file_id!));
		expect(
			(await allListed(pool, course.courseId, load)).map((one) => [one.title, one.category, one.marks.length])
		).toEqual([
			['w1', 'Weather', 0],
			['f1', 'Weather\nFronts', 0],
			['f2', 'Weather\nFronts', 0],
			['n1', '', 0]
		]);
		const fingerprints = async (courseId: number) =>
			(await questionIdsOf(pool, courseId, { bankId: (await banksOf(pool, courseId))[0]!.id })).length;
		await takeIn(pool, other.courseId, load, other.personId, decide());
		expect(await fingerprints(other.courseId)).toBe(4);
	});
	it('is of those questions alone that were selected, in their order, and says what is gone of them', async () => {
		const named = async (titles: string[]) =>
			rows<{ id: number }>(pool, 'SELECT id FROM questions WHERE course_id = ? AND title IN (?) ORDER BY id DESC', [
				course.courseId,
				titles
			]);
		const ids = (await named(['f1', 'n1'])).map(({ id }) => id);
		const chosen = { ids, bankId, categoryId: null, withUnder: true, words: '', filters: {}, except: [] };
		const what = await selectToSend(pool, course.courseId, chosen);
		expect(await questionIdsOf(pool, course.courseId, what)).toEqual(ids);
		expect(
			(await lossTable(pool, course.courseId, what, 'csv')).lines.flatMap(({ questions }) => questions)
		).toHaveLength(2);
		expect(await send(what)).toMatchObject({
			title: '2 questions of Autumn',
			state: 'done',
			proof: { inAll: 2, identical: 2 }
		});
		// nobody else has it
		expect(await questionIdsOf(pool, course.courseId + 1, what)).toEqual([]);
		const gone = await selectToSend(pool, course.courseId, { ...chosen, ids: [...ids] });
		await run(pool, 'DELETE FROM selection_questions WHERE selection_id = ? AND question_id = ?', [
			gone.selectionId,
			ids[0]
		]);
		expect(await questionIdsOf(pool, course.courseId, gone)).toEqual([ids[1]]);
		await expect(selectToSend(pool, course.courseId, { ...chosen, ids: [1e9] })).rejects.toThrow('Choose anew');
	});
	it.each(writtenFormats.map((format) => format.name))(
		'is written as %s and read back as its table said',
		async (name) => {
			const dispatch = await send({ bankId }, name);
			expect(dispatch).toMatchObject({ state: 'done', proof: { inAll: 4, otherwise: 0, missing: 0 } });
			const { sent, leftBehind } = dispatch.proof!;
			expect(sent + leftBehind).toBeGreaterThanOrEqual(4);
		}
	);
	it('carries a quiz, with the questions of its pools', async () => {
		const id = await makeQuiz(pool, course.courseId, 'Week 6');
		await saveQuiz(pool, course.courseId, id, {
			title: 'Week 6',
			state: 'ready',
			version: 1,
			parts: [
				part({ title: 'Fronts', draw: 1, pointsEach: 2, categories: [await category('Fronts')] }),
				part({ title: 'Rest', draw: null, categories: [-bankId], withUnder: false })
			]
		});
		const dispatch = await send({ quizId: id });
		expect(dispatch).toMatchObject({ state: 'done', proof: { inAll: 3, identical: 3, quiz: [] } });
		const other = await makeCourse(pool);
		await takeIn(
			pool,
			other.courseId,
			await loadPackage(pool, other, await bytesOf(dispatch.file_id!)),
			other.personId,
			decide()
		);
		const [quiz] = await quizzesOf(pool, other.courseId);
		expect((await quizOf(pool, other.courseId, quiz!.id))!.parts).toMatchObject([
			{ title: 'Fronts', draw: 1, pointsEach: 2, questions: [expect.any(Number), expect.any(Number)] },
			{ title: 'Rest', draw: null, pointsEach: null, questions: [expect.any(Number)] }
		]);
	});
	it('leaves behind what the format cannot hold, and counts it', async () => {
		const order =
			'<questestinterop><item ident="o1" title="Order"><presentation><material><mattext>Order them.</mattext></material><response_extension ident="R"/></presentation></item></questestinterop>';
		const load = await loadPackage(pool, course, {
			'o.xml': order,
			'b.xml': bankXml({ '': [item('b1', 'Which?', ['a', 'b'])] })
		});
		// what is broken is set aside, so it is made doubtful here to come along
		await run(pool, 'UPDATE staged_questions SET broken = 0 WHERE load_id = ?', [load]);
		await takeIn(pool, course.courseId, load, course.personId, decide({ bankName: 'Odd' }));
		const odd = (await banksOf(pool, course.courseId)).find((bank) => bank.name === 'Odd')!;
		expect((await lossTable(pool, course.courseId, { bankId: odd.id }, 'qti21')).lines[0]).toMatchObject({
			kind: 'unreadable',
			outcome: 'lost'
		});
		expect(await send({ bankId: odd.id })).toMatchObject({
			proof: { inAll: 2, leftBehind: 1, sent: 1, identical: 1, lines: [{ title: 'Order', outcome: 'left behind' }] }
		});
	});
	it('sends as many worked-out questions for a calculated one as is asked for, and proves each', async () => {
		const calculated: Question = {
			...emptyCommon('c1', 'Speed'),
			stem: '<p>A launch runs <var class="variable">D</var> miles in an hour. How fast is it, in knots?</p>',
			points: 1,
			kind: 'calculated',
			variables: [{ name: 'D', whole: true, decimals: null, values: { form: 'range', min: 4, max: 12, step: 1 } }],
			constraints: [],
			expression: 'D',
			tolerance: { mode: 'absolute', value: 0 },
			whole: false
		};
		const load = await loadPackage(
			pool,
			course,
			new TextEncoder().encode(
				JSON.stringify({
					format: 'yarn-barrow-questions',
					version: 1,
					title: 'x',
					questions: [calculated],
					quizzes: []
				})
			),
			'speed.json'
		);
		await takeIn(pool, course.courseId, load, course.personId, decide({ bankName: 'Speed' }));
		const bank = (await banksOf(pool, course.courseId)).find((one) => one.name === 'Speed')!;
		expect((await lossTable(pool, course.courseId, { bankId: bank.id }, 'csv', { workedOut: 4 })).lines).toMatchObject([
			{ kind: 'calculated', outcome: 'changed' }
		]);
		expect(await send({ bankId: bank.id }, 'csv', { workedOut: 4 })).toMatchObject({
			state: 'done',
			proof: { inAll: 1, sent: 4, foundInFile: 4, identical: 0, foretold: 4, otherwise: 0, missing: 0 }
		});
	});
	it('says where a format cannot carry the draws of a quiz', async () => {
		const id = await makeQuiz(pool, course.courseId, 'Week 7');
		await saveQuiz(pool, course.courseId, id, {
			title: 'Week 7',
			state: 'ready',
			version: 1,
			parts: [part({ title: 'All of it', draw: 2, pointsEach: 3, categories: [-bankId] })]
		});
		const { proof } = await send({ quizId: id }, 'cc13');
		expect(proof).toMatchObject({ inAll: 4, identical: 4, missing: 0 });
		expect(proof!.quiz).toEqual([]);
		expect(proof!.quizForetold!.join(' ')).toContain('“All of it” gives all of its 4 questions instead of drawing 2');
		expect((await send({ quizId: id }, 'qti21')).proof!.quiz).toEqual([]);
	});
	it('that is stopped while it is written keeps no file and says so, and the next one is whole', async () => {
		const id = (await begin(pool, course.courseId, course.personId, { bankId }, 'qti21'))!;
		let looks = 0;
		const impatient = {
			check: () => {
				looks += 1;
				if (looks > 2) throw new Stopped();
			}
		};
		await expect(writeDispatch(pool, id, impatient)).rejects.toThrow(Stopped);
		expect(await dispatchOf(pool, course.courseId, id)).toMatchObject({ state: 'stopped', file_id: null, proof: null });
		expect(await send({ bankId })).toMatchObject({ state: 'done', proof: { identical: 4 } });
	});
	it('is of the moment in which it began, whatever is taken away meanwhile', async () => {
		const id = (await begin(pool, course.courseId, course.personId, { bankId }, 'qti21'))!;
		const ids = await questionIdsOf(pool, course.courseId, { bankId });
		let gone: Promise<unknown> | null = null;
		const meanwhile = {
			check: () => {
				gone ??= run(pool, 'DELETE FROM questions WHERE id = ?', [ids[3]]);
			}
		};
		await writeDispatch(pool, id, meanwhile);
		await Promise.resolve(gone);
		const { proof } = (await dispatchOf(pool, course.courseId, id))!;
		expect(proof).toMatchObject({ sent: ids.length, identical: ids.length, missing: 0 });
	});
	it('of which some is gone before it begins says how much, and writes nothing', async () => {
		const id = (await begin(pool, course.courseId, course.personId, { bankId }, 'qti21'))!;
		const left = await questionIdsOf(pool, course.courseId, { bankId });
		await run(pool, 'DELETE FROM questions WHERE id = ?', [left[0]]);
		await writeDispatch(pool, id, unhindered);
		const dispatch = (await dispatchOf(pool, course.courseId, id))!;
		expect(dispatch).toMatchObject({ state: 'failed', file_id: null, proof: null });
		expect(dispatch.failure).toMatch(new RegExp(`^1 of the ${left.length} questions that were chosen are gone`));
	});
	it('stands in the ledger with its number of questions', async () => {
		const dispatch = await send({ bankId });
		const [line] = await rows<{ deed: string; questions: number; address: string }>(
			pool,
			'SELECT deed, questions, address FROM ledger WHERE course_id = ? ORDER BY id DESC LIMIT 1',
			[course.courseId]
		);
		expect(line).toEqual({
			deed: 'dispatched',
			questions: 4,
			address: `/courses/${course.courseId}/dispatch?show=${dispatch.id}`
		});
	});
	it('is nothing for a bank that is empty or of another course', async () => {
		const other = await makeCourse(pool);
		expect(await begin(pool, other.courseId, other.personId, { bankId }, 'qti21')).toBeNull();
		expect(await begin(pool, course.courseId, course.personId, { bankId }, 'stone')).toBeNull();
	});
});
