import { afterAll, beforeEach, describe, expect, it } from 'vitest';
import { plainConditions, plainRules, plainSettings } from '$lib/forms/quiz';
import { rows, run } from '../db/pool';
import { fileChunks } from '../files/files';
import { unhindered } from '../jobs/control';
import { pathKey } from '$core/take-in/paths';
import { receiptHead } from '../loads/receipt';
import { takeIn } from '../loads/take-in';
import { formsById, makeForms } from '../quizzes/forms';
import { blankPart, makeWholeQuiz } from '../quizzes/make';
import { poolSource } from '../quizzes/pools';
import { quizOf } from '../quizzes/quiz';
import { quizzesOf } from '../quizzes/quizzes';
import { pathsOf } from '../quizzes/sheet';
import { decide, item, loadPackage, makeCourse, testPool } from '../test-support/world';
import type { Consignment } from './consignment';
import { begin, dispatchOf } from './dispatches';
import { lossTable } from './losses';
import { writeDispatch } from './write';

const pool = testPool();
afterAll(() => pool.end());
let course: Awaited<ReturnType<typeof makeCourse>>;
let quizId = 0;
const ids = new Map<string, number>();
const idOf = (title: string) => ids.get(title)!;

const section = (title: string, inner: string) => `<section ident="${title}" title="${title}">${inner}</section>`;
const items = (...names: string[]) => names.map((name) => item(name, `What is ${name}?`, ['This', 'That'])).join('');

beforeEach(async () => {
	course = await makeCourse(pool);
	const bank = `<questestinterop>${section('Tides', items('t1', 't2', 't3', 't4'))}${section('Lights', items('l1', 'l2', 'l3') + section('Sectors', items('s1', 's2')))}</questestinterop>`;
	await takeIn(pool, course.courseId, await loadPackage(pool, course, { 'bank.xml': bank }), course.personId, decide());
	for (const { id, title } of await rows<{ id: number; title: string }>(
		pool,
		'SELECT id, title FROM questions WHERE course_id = ?',
		[course.courseId]
	))
		ids.set(title, id);
	await run(pool, 'UPDATE questions SET points = 2 WHERE course_id = ?', [course.courseId]);
	const place = new Map(
		[...pathsOf(await poolSource(pool, course.courseId, []))].map(([id, path]) => [path.slice(1).join('/'), id])
	);
	const [tides, lights, sectors] = ['Tides', 'Lights', 'Lights/Sectors'].map((path) => place.get(path)!);
	quizId = await makeWholeQuiz(pool, course, {
		title: 'Week 6 check',
		settings: {
			...plainSettings(),
			description: 'Chapters 3 and 4.',
			instructions: 'No phones.\n\nTake a pencil.',
			minutes: 45,
			attempts: 2,
			opens: '2027-01-11T09:00',
			pass: 60,
			gradeName: 'Term mark'
		},
		rules: {
			...plainRules(),
			never: [[idOf('t1'), idOf('t2')]],
			together: [[idOf('s2'), idOf('s1')]],
			fixedOptions: [idOf('t3')]
		},
		parts: [
			blankPart('Warm-up', {
				draw: 3,
				pointsEach: 1,
				categories: [tides!, lights!],
				conditions: { ...plainConditions(), kinds: ['multiple-choice'] },
				exclude: [idOf('t4')],
				quotas: [
					{
						by: 'category',
						values: [{ category: tides! }, { category: lights! }],
						spread: 'equal',
						least: null,
						most: null
					}
				]
			}),
			blankPart('Sectors', { draw: 2, order: 'easy first', categories: [sectors!] }),
			blankPart('Always', { order: 'kept', questions: [idOf('t4'), idOf('l3')] })
		]
	});
});

async function bytesOf(fileId: number): Promise<Uint8Array> {
	const chunks: Uint8Array[] = [];
	for await (const chunk of fileChunks(pool, fileId)) chunks.push(chunk);
	return Buffer.concat(chunks);
}

/** Writes what is sent, and has another course take it in. */
async function travelled(what: Consignment, as: string, decision = decide()) {
	const id = await begin(pool, course.courseId, course.personId, what, as);
	await run(pool, "UPDATE jobs SET state = 'done' WHERE kind = 'dispatch' AND subject_id = ?", [id]);
	await writeDispatch(pool, id!, unhindered);
	const dispatch = (await dispatchOf(pool, course.courseId, id!))!;
	const other = await makeCourse(pool);
	const loadId = await loadPackage(pool, other, await bytesOf(dispatch.file_id!));
	await takeIn(pool, other.courseId, loadId, other.personId, decision);
	const quizzes = await quizzesOf(pool, other.courseId);
	const quiz = (await quizOf(pool, other.courseId, quizzes.at(-1)!.id))!;
	const titles = new Map(
		(
			await rows<{ id: number; title: string }>(pool, 'SELECT id, title FROM questions WHERE course_id = ?', [
				other.courseId
			])
		).map(({ id: key, title }) => [key, title])
	);
	const paths = pathsOf(await poolSource(pool, other.courseId, []));
	return {
		proof: dispatch.proof!,
		other,
		loadId,
		quizzes,
		quiz,
		names: (keys: readonly number[]) => keys.map((key) => titles.get(key)!),
		categories: (keys: readonly (number | undefined)[]) =>
			keys.map((key) =>
				paths
					.get(key ?? 0)!
					.slice(1)
					.join('/')
			)
	};
}

describe('a draw sheet', () => {
	it.each(['json', 'xml', 'archive'])('goes whole to another course as %s', async (as) => {
		const { proof, quiz, names, categories } = await travelled({ quizId }, as);
		expect(proof).toMatchObject({ otherwise: 0, missing: 0, quiz: [], quizForetold: [], quizzesSent: 1 });
		const here = (await quizOf(pool, course.courseId, quizId))!;
		expect(quiz).toMatchObject({ title: 'Week 6 check', settings: here.settings });
		expect(quiz.rules.never.map(names)).toEqual([['t1', 't2']]);
		expect(quiz.rules.together.map(names)).toEqual([['s2', 's1']]);
		expect(names(quiz.rules.fixedOptions)).toEqual(['t3']);
		const [warmUp, sectors, always] = quiz.parts;
		expect(warmUp).toMatchObject({ draw: 3, pointsEach: 1, questions: [], withUnder: true });
		expect(categories(warmUp!.categories).sort()).toEqual(['Lights', 'Tides']);
		expect(warmUp!.conditions.kinds).toEqual(['multiple-choice']);
		expect(names(warmUp!.exclude)).toEqual(['t4']);
		expect(warmUp!.quotas).toMatchObject([{ by: 'category', spread: 'equal' }]);
		expect(categories(warmUp!.quotas[0]!.values.map(({ category }) => category))).toEqual(['Tides', 'Lights']);
		expect(sectors).toMatchObject({ draw: 2, order: 'easy first' });
		expect(names(always!.questions)).toEqual(['t4', 'l3']);
	});
	it('says on the receipt what of it had no place in the course, since its categories stayed behind', async () => {
		const { other, loadId, quiz, names } = await travelled(
			{ quizId },
			'json',
			decide({ leftOut: [pathKey(['Tides'])] })
		);
		const [warmUp] = quiz.parts;
		expect(warmUp).toMatchObject({ draw: 3, categories: [], quotas: [] });
		expect(names(warmUp!.questions).sort()).toEqual(['l1', 'l2', 'l3', 's1', 's2']);
		const [came] = (await receiptHead(pool, loadId)).quizzes;
		const said = came!.lacks.join(' ');
		for (const words of [
			'“Warm-up” drew from “Tides”, which did not come into the course: it draws from a list of the 5 questions',
			'“Warm-up” was balanced by “Tides”',
			'1 pair that never comes together is left out',
			'“Always” lacks 1 question'
		])
			expect(said).toContain(words);
		expect(other.courseId).not.toBe(course.courseId);
	});
	it('says nothing on the receipt where all of it came', async () => {
		const { loadId } = await travelled({ quizId }, 'json');
		expect((await receiptHead(pool, loadId)).quizzes).toMatchObject([{ title: 'Week 6 check', lacks: [] }]);
	});
	it('keeps in a standard package what that has a place for, and says the rest beforehand', async () => {
		const said = (await lossTable(pool, course.courseId, { quizId }, 'qti21')).quiz!.what.join(' ');
		for (const words of [
			'chosen by kinds and what was put in and left out by hand is not written',
			'“Warm-up” draws from its whole pool, without its quotas',
			'1 pair that never comes together may do so there',
			'1 group that comes whole may be torn there',
			'not with the easy ones first',
			'its description, that there are 2 attempts, its dates and its grade'
		])
			expect(said).toContain(words);
		for (const words of ['time limit', 'instructions', 'pass mark']) expect(said).not.toContain(words);
		const { proof, quiz } = await travelled({ quizId }, 'qti21');
		expect(proof).toMatchObject({ otherwise: 0, quiz: [], quizzesSent: 1 });
		expect(quiz.settings).toMatchObject({ minutes: 45, instructions: 'No phones.\n\nTake a pencil.', pass: 60 });
		expect(quiz.parts.map(({ draw, questions }) => [draw, questions.length])).toEqual([
			[3, 8],
			[2, 2],
			[null, 2]
		]);
	});
	it('whose groups have texts takes these along, and says where they are not given', async () => {
		await run(
			pool,
			"UPDATE questions SET kind = 'information', document = JSON_SET(JSON_REMOVE(document, '$.options', '$.shuffle', '$.combination', '$.bounds', '$.lostKeys'), '$.kind', 'information') WHERE course_id = ? AND title = 'l1'",
			[course.courseId]
		);
		const group = [idOf('l1'), idOf('s1'), idOf('s2')];
		await run(pool, 'UPDATE quizzes SET rules = ? WHERE id = ?', [
			JSON.stringify({ ...plainRules(), together: [group] }),
			quizId
		]);
		const { quiz, names } = await travelled({ quizId }, 'json');
		expect(quiz.rules.together.map(names)).toEqual([['l1', 's1', 's2']]);
		const said = (await lossTable(pool, course.courseId, { quizId }, 'qti22')).quiz!.what.join(' ');
		expect(said).toContain('1 text that travels with a group is in the file');
	});
});

describe('forms of a quiz', () => {
	it('go as quizzes that are fixed, each with the questions of its form in their order', async () => {
		const formsId = await makeForms(pool, course, quizId, { count: 3, same: false, seed: 'paper' });
		const { forms } = (await formsById(pool, course.courseId, formsId))!;
		const { proof, quizzes, other, names } = await travelled({ formsId }, 'qti21');
		expect(proof).toMatchObject({ otherwise: 0, missing: 0, quiz: [], quizzesSent: 3 });
		expect(quizzes.map(({ title }) => title).sort()).toEqual(
			['A', 'B', 'C'].map((letter) => `Week 6 check, form ${letter}`)
		);
		const here = new Map([...ids].map(([title, id]) => [id, title]));
		for (const form of forms.forms) {
			const { id } = quizzes.find(({ title }) => title.endsWith(`form ${form.name}`))!;
			const quiz = (await quizOf(pool, other.courseId, id))!;
			expect(quiz.parts.map(({ draw }) => draw)).toEqual(form.order.map(() => null));
			expect(quiz.parts.map(({ questions }) => names(questions))).toEqual(
				form.order.map((at) => form.parts[at]!.map((key) => here.get(key)))
			);
			expect(quiz.settings).toMatchObject({ minutes: 45, pass: 60 });
		}
	});
	it('of another course are not sent', async () => {
		const formsId = await makeForms(pool, course, quizId, { count: 1, same: false, seed: 'paper' });
		const other = await makeCourse(pool);
		expect(await begin(pool, other.courseId, other.personId, { formsId }, 'qti21')).toBeNull();
	});
});
