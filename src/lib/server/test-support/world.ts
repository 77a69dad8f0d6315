import { listPage, wholeLoad, type ListedQuestion } from '../loads/listed';
import type { Pool, PoolConnection } from 'mysql2/promise';
import { zipped, type Files } from '$core/test-support/packages';
import { plainRules, type Decision } from '$core/take-in/decision';
import type { QuestionFilter } from '../banks/filter';
import { questionsPage } from '../banks/pages';
import type { QuestionRow } from '../banks/question-rows';
import { beginDeed } from '../changes/deed';
import { makePool, run, transaction } from '../db/pool';
import { unhindered } from '../jobs/control';
import { receive } from '../loads/loads';
import { readLoad } from '../loads/read';

/** A pool on the database of the test run. */
export function testPool(): Pool {
	return makePool(process.env.DATABASE_URL!, 6);
}

let count = 0;

/** A course of its own for a test, with a person who may change it. */
export async function makeCourse(pool: Pool): Promise<{ courseId: number; personId: number }> {
	count += 1;
	const mark = `${process.pid}-${Date.now()}-${count}`;
	const personId = (
		await run(pool, 'INSERT INTO people (name, email, password_hash) VALUES (?, ?, ?)', [
			'Ines Carrow',
			`ines-${mark}@gullhaven.example`,
			'x'
		])
	).id;
	const courseId = (
		await run(pool, 'INSERT INTO courses (code, name) VALUES (?, ?)', [`T-${mark}`, 'Vessel Stability'])
	).id;
	await run(pool, "INSERT INTO memberships (person_id, course_id, role) VALUES (?, ?, 'manage')", [personId, courseId]);
	return { courseId, personId };
}

/** Bytes as they arrive from an upload, in small pieces. */
export async function* arriving(bytes: Uint8Array, step = 1000): AsyncGenerator<Uint8Array> {
	for (let at = 0; at < bytes.length; at += step) yield bytes.subarray(at, at + step);
}

/** Loads a package and reads it, as an upload and the job after it do. */
export async function loadPackage(
	pool: Pool,
	course: { courseId: number; personId: number },
	files: Files | Uint8Array,
	name = 'package.zip'
): Promise<number> {
	const bytes = files instanceof Uint8Array ? files : zipped(files);
	const id = await receive(pool, course.courseId, course.personId, name, bytes.length, arriving(bytes));
	await readLoad(pool, id, unhindered);
	await run(pool, "UPDATE jobs SET state = 'done' WHERE subject_id = ? AND kind = 'read'", [id]);
	return id;
}

/** A decision to take everything into a new bank. */
export function decide(more: Partial<Decision> = {}): Decision {
	return {
		...plainRules,
		bankId: null,
		bankName: 'Autumn',
		quizBank: null,
		leftOut: [],
		landings: {},
		same: 'beside',
		...more
	};
}

/** A QTI 1.2 multiple choice; without a key where none is named. */
export function item(ident: string, stem: string, options: string[], key: string | null = 'A', more = ''): string {
	const labels = options
		.map(
			(text, at) =>
				`<response_label ident="${'ABCDE'[at]}"><material><mattext>${text}</mattext></material></response_label>`
		)
		.join('');
	const rules =
		key === null
			? ''
			: `<resprocessing><outcomes><decvar varname="SCORE" vartype="Decimal" minvalue="0" maxvalue="1"/></outcomes><respcondition><conditionvar><varequal respident="R">${key}</varequal></conditionvar><setvar varname="SCORE" action="Set">1</setvar></respcondition></resprocessing>`;
	return `<item ident="i-${ident}" title="${ident}"><presentation><material><mattext>${stem}</mattext>${more}</material><response_lid ident="R" rcardinality="Single"><render_choice shuffle="Yes">${labels}</render_choice></response_lid></presentation>${rules}</item>`;
}

/** A QTI 1.2 document of sections with items. */
export function bankXml(sections: Record<string, string[]>): string {
	return `<questestinterop>${Object.entries(sections)
		.map(([title, items]) =>
			title ? `<section ident="${title}" title="${title}">${items.join('')}</section>` : items.join('')
		)
		.join('')}</questestinterop>`;
}

/** All questions of a bank as a filter, or those that more is asked of. */
export function wholeBank(bankId: number, more: Partial<QuestionFilter> = {}): QuestionFilter {
	return { bankId, categoryId: null, withUnder: true, words: '', filters: {}, sort: 'tree', down: false, ...more };
}

/** All questions of a bank that fit a filter, page by page as a list asks for them. */
export async function allRows(pool: Pool, courseId: number, filter: QuestionFilter): Promise<QuestionRow[]> {
	const found: QuestionRow[] = [];
	for (;;) {
		const page = await questionsPage(pool, courseId, filter, { from: found.length });
		found.push(...page.rows);
		if (!page.rows.length || found.length >= page.total) return found;
	}
}

/** All questions of a load, as its list shows them. */
export async function allListed(pool: Pool, courseId: number, loadId: number): Promise<ListedQuestion[]> {
	return (await listPage(pool, courseId, loadId, wholeLoad, 'file', { from: 0, size: 100_000 })).rows;
}

/** Does what needs a deed, as one who may change a course, and gives the key of the deed. */
export async function byDeed(
	pool: Pool,
	course: { courseId: number; personId: number },
	work: (connection: PoolConnection, by: { deedId: number; personId: number }) => Promise<unknown>
): Promise<number> {
	return transaction(pool, async (connection) => {
		const { courseId, personId } = course;
		const deedId = await beginDeed(connection, { courseId, personId, deed: 'changed', subject: 'a test' });
		await work(connection, { deedId, personId });
		return deedId;
	});
}

/** Makes a quiz without parts; gives its key. */
export async function makeQuiz(pool: Pool, courseId: number, title: string): Promise<number> {
	return (await run(pool, 'INSERT INTO quizzes (course_id, title) VALUES (?, ?)', [courseId, title])).id;
}
