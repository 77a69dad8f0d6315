import { readdirSync, readFileSync } from 'node:fs';
import type { Pool } from 'mysql2/promise';
import { ZipWriter } from '../core/container/write-zip';
import { writtenFormat } from '../core/formats';
import type { Question } from '../core/kinds';
import { blankQuestion } from '../core/kinds/blank';
import { plainRules } from '../core/take-in/decision';
import { storedQuestion } from '../src/lib/server/banks/banks';
import { doBulk } from '../src/lib/server/changes/bulk';
import { makePool, row, rows, run } from '../src/lib/server/db/pool';
import { unhindered } from '../src/lib/server/jobs/control';
import { readLoad } from '../src/lib/server/loads/read';
import { receive } from '../src/lib/server/loads/loads';
import { takeIn } from '../src/lib/server/loads/take-in';
import { editQuestion, makeQuestion } from '../src/lib/server/questions/edit';
import { hashPassword } from '../src/lib/server/people/passwords';
import { plainSettings } from '../src/lib/forms/quiz';
import { saveQuiz } from '../src/lib/server/quizzes/save';
import { buoyage } from './banks/buoyage';
import { tides } from './banks/tides';
import { picture } from './build';
import { smallLoads, sumsPackage } from './loads';

/** How to sign in to the demo as somebody who may change its courses. */
export const demoSignIn = { email: 'mira@gullhaven.example', password: 'harbour-lights' };
/** How to sign in as somebody who may only look. */
export const demoLookIn = { email: 'tam@gullhaven.example', password: 'harbour-lights' };

const courses = [
	['TC-S27', 'Tides and Charts', 'spring intake'],
	['BL-S27', 'Buoyage and Lights', 'spring intake'],
	['RP-A26', 'Radio Procedure', 'autumn intake']
];

/** A demo bank as a QTI 2.1 package. */
export function packageOf(title: string, questions: Question[]): AsyncGenerator<Uint8Array> {
	const names = new Map(
		questions.flatMap((question) => question.attachments.map((one) => [one.hash!, one.name.split('/').pop()!]))
	);
	return writtenFormat('qti21')!.write({
		identifier: 'GULLHAVEN',
		title,
		count: questions.length,
		question: async (at) => questions[at]!,
		quizzes: [],
		media: async function* (hash) {
			yield picture(names.get(hash)!);
		}
	});
}

/** The package that waits for review: what is in demo/troubles, zipped. */
export async function* troubles(): AsyncGenerator<Uint8Array> {
	const folder = new URL('./troubles/', import.meta.url);
	const zip = new ZipWriter();
	const paths = readdirSync(folder, { recursive: true, withFileTypes: true })
		.filter((entry) => entry.isFile())
		.map((entry) =>
			`${entry.parentPath}/${entry.name}`.slice(folder.pathname.replace(/\/$/, '').length).replace(/^\/+/, '')
		);
	for (const path of paths.sort()) yield* zip.add(path, [readFileSync(new URL(path, folder))]);
	yield* zip.end();
}

async function* once(bytes: Uint8Array): AsyncGenerator<Uint8Array> {
	yield bytes;
}

async function loadFile(
	pool: Pool,
	courseId: number,
	personId: number,
	name: string,
	pieces: AsyncGenerator<Uint8Array>
): Promise<number> {
	const id = await receive(pool, courseId, personId, name, 0, pieces);
	await readLoad(pool, id, unhindered);
	await run(pool, "UPDATE jobs SET state = 'done' WHERE kind = 'read' AND subject_id = ?", [id]);
	return id;
}

/** Shows what is done by hand: keys verified and doubted, a question with a history, one in the bin. */
async function workByHand(pool: Pool, courseId: number, personId: number): Promise<void> {
	const bank = (await row<{ id: number }>(
		pool,
		"SELECT id FROM banks WHERE course_id = ? AND name = 'Marks of region A'",
		[courseId]
	))!;
	const standing = await rows<{ id: number }>(
		pool,
		"SELECT id FROM questions WHERE bank_id = ? AND kind = 'multiple-choice' ORDER BY id LIMIT 12",
		[bank.id]
	);
	const ids = standing.map(({ id }) => id);
	const chosen = (some: number[]) => ({
		bankId: bank.id,
		ids: some,
		categoryId: null,
		withUnder: true,
		words: '',
		filters: {},
		except: []
	});
	await doBulk(pool, courseId, personId, { do: 'key', chosen: chosen(ids.slice(0, 8)), state: 'verified', note: '' });
	await doBulk(pool, courseId, personId, {
		do: 'key',
		chosen: chosen(ids.slice(8, 9)),
		state: 'disputed',
		note: 'Is this so in region B too?'
	});
	const first = (await storedQuestion(pool, courseId, ids[9]!))!;
	const hints = ['Think of which hand the mark is on as you come in from sea.'];
	await editQuestion(pool, courseId, personId, first.id, first.version, { ...first.question, hints });
	const draft = {
		...blankQuestion('multiple-choice', 1, 'en'),
		title: 'A draft that was given up',
		stem: 'Which mark is this?'
	};
	const made = await makeQuestion(pool, courseId, personId, { bankId: bank.id, categoryId: null }, draft);
	await doBulk(pool, courseId, personId, { do: 'bin', chosen: chosen([made.questionId]) });
}

async function makeQuiz(pool: Pool, courseId: number): Promise<void> {
	const quiz = await run(pool, 'INSERT INTO quizzes (course_id, title) VALUES (?, ?)', [courseId, 'Week 6 check']);
	const found = await rows<{ id: number; name: string; parentId: number | null }>(
		pool,
		'SELECT c.id, c.name, c.parent_id AS parentId FROM categories c JOIN banks b ON b.id = c.bank_id WHERE b.course_id = ?',
		[courseId]
	);
	const ids = (...names: string[]) =>
		found.filter((category) => names.includes(category.name)).map((category) => category.id);
	const under = (name: string) =>
		found.flatMap(({ id, parentId }) => (ids(name).some((top) => top === parentId) ? [id] : []));
	const part = (title: string, draw: number, pointsEach: number, categories: number[], withUnder: boolean) => ({
		title,
		draw,
		pointsEach,
		order: 'shuffled' as const,
		shuffleOptions: true,
		withUnder,
		categories,
		questions: []
	});
	await saveQuiz(pool, courseId, quiz.id, {
		title: 'Week 6 check',
		state: 'draft',
		version: 1,
		parts: [
			part('Warm-up', 4, 1, ids('Springs and neaps'), false),
			part('Heights of tide', 5, 2, ids('Rule of twelfths', 'Levels', 'Tide tables'), false),
			{
				...part('On the chart', 6, 1, ids('Chartwork'), true),
				quotas: [
					{
						by: 'category' as const,
						values: under('Chartwork').map((category) => ({ category })),
						spread: 'proportional' as const,
						least: null,
						most: null
					}
				]
			}
		],
		settings: {
			...plainSettings(),
			instructions: 'Tide tables and a calculator are allowed. Answer every question.',
			minutes: 45,
			attempts: 2,
			opens: '2027-03-02T08:00',
			due: '2027-03-09T18:00'
		}
	});
}

/** Fills an empty database with the demo school, by the same ways that a user's files take. Gives false where there are people already. */
export async function fillDemo(databaseUrl: string): Promise<boolean> {
	const pool = makePool(databaseUrl, 4);
	try {
		if (await row(pool, 'SELECT id FROM people LIMIT 1')) {
			// a filling that was cut short is begun again; one that was finished has its quiz
			if (
				(await row(pool, 'SELECT id FROM quizzes LIMIT 1')) ||
				!(await row(pool, 'SELECT id FROM people WHERE email = ?', [demoSignIn.email])) ||
				(await row<{ n: number }>(pool, 'SELECT COUNT(*) AS n FROM courses'))!.n !== courses.length
			)
				return false;
			await run(pool, 'DELETE FROM courses');
			await run(pool, 'DELETE FROM people');
		}
		const hash = await hashPassword(demoSignIn.password);
		const mira = (
			await run(pool, 'INSERT INTO people (name, email, password_hash, keeper) VALUES (?, ?, ?, 1)', [
				'Mira Olden',
				demoSignIn.email,
				hash
			])
		).id;
		const tam = (
			await run(pool, 'INSERT INTO people (name, email, password_hash) VALUES (?, ?, ?)', [
				'Tam Reach',
				demoLookIn.email,
				hash
			])
		).id;
		const first = (await run(pool, 'INSERT INTO courses (code, name, intake) VALUES ?', [courses])).id;
		await run(pool, 'INSERT INTO memberships (person_id, course_id, role) VALUES ?', [
			courses.flatMap((_, at) => [
				[mira, first + at, 'manage'],
				[tam, first + at, 'look']
			])
		]);
		const banks = [
			{ course: first, file: 'spring-intake.zip', name: 'Spring intake', questions: tides },
			{ course: first + 1, file: 'marks-of-region-a.zip', name: 'Marks of region A', questions: buoyage }
		];
		for (const bank of banks) {
			const load = await loadFile(pool, bank.course, mira, bank.file, packageOf(bank.name, bank.questions));
			await takeIn(pool, bank.course, load, mira, {
				...plainRules,
				bankId: null,
				bankName: bank.name,
				quizBank: null,
				leftOut: [],
				landings: {}
			});
		}
		// a bank with troubles of its own, so that there is something to mend
		const old = await loadFile(pool, first + 1, mira, 'old-charts.zip', troubles());
		await takeIn(pool, first + 1, old, mira, {
			...plainRules,
			bankId: null,
			bankName: 'Old chart questions',
			quizBank: null,
			leftOut: [],
			landings: {}
		});
		await loadFile(pool, first, mira, 'autumn-charts.zip', troubles());
		await loadFile(pool, first, mira, 'chart-sums.zip', sumsPackage());
		for (const [name, bytes] of Object.entries(smallLoads)) await loadFile(pool, first + 2, mira, name, once(bytes()));
		await workByHand(pool, first + 1, mira);
		await makeQuiz(pool, first);
		return true;
	} finally {
		await pool.end();
	}
}
