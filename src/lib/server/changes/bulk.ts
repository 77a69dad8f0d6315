import type { Pool, PoolConnection } from 'mysql2/promise';
import { applyEdit, editShape, editWords, type EditAsked } from '$core/edits';
import type { Question } from '$core/kinds';
import { parseQuestion } from '$core/kinds/schema';
import { lazy, number, object, string, type InferType } from 'yup';
import { chosenShape } from '../banks/filter';
import { chosenIds } from '../banks/pages';
import { lockGroups } from '../checks/notes';
import { categoryTree } from '../banks/tree';
import { row, rows, transaction, type Database } from '../db/pool';
import { Refused } from '../loads/refused';
import { lockedQuestions, saveQuestions, type ByDeed } from '../questions/save';
import { tellProgress } from '../threads/progress';
import { binPlace } from './bin';
import { copyQuestions } from './copy';
import { checkedTogether } from '../checks/around';
import { beginDeed, endDeed, type Done } from './deed';
import { changeKeys, keySet } from './key-state';
import { placeQuestions } from './place';
import { touchedBy } from './touched';

const key = number().integer().min(1).max(Number.MAX_SAFE_INTEGER);
/** Where questions go: a bank, and a category of it. */
const target = object({
	bankId: key.required('Choose a bank.'),
	categoryId: key.nullable().default(null)
});

/** What is done to chosen questions, and to which of them. */
const shapes = {
	edit: object({ do: string().required(), chosen: chosenShape.required(), what: editShape }),
	move: object({ do: string().required(), chosen: chosenShape.required(), to: target.required() }),
	copy: object({ do: string().required(), chosen: chosenShape.required(), to: target.required() }),
	key: object({
		do: string().required(),
		chosen: chosenShape.required(),
		state: string()
			.oneOf(['verified', 'unverified', 'disputed'] as const)
			.required(),
		note: string().trim().max(1000, 'A note has 1,000 letters at the most.').default('')
	}),
	machine: object({
		do: string().required(),
		chosen: chosenShape.required(),
		on: string()
			.oneOf(['yes', 'no'] as const)
			.required()
	}),
	bin: object({ do: string().required(), chosen: chosenShape.required() })
};

type Shapes = typeof shapes;

/** Something that is done to chosen questions. */
export type Bulk = { [Name in keyof Shapes]: Omit<InferType<Shapes[Name]>, 'do'> & { do: Name } }[keyof Shapes];

const names = Object.keys(shapes) as (keyof Shapes)[];

/** What is done, out of what came from outside. */
export const bulkShape = lazy((value: unknown) => {
	const asked = (value as { do?: unknown } | null)?.do;
	const name = names.find((known) => known === asked);
	return (
		name ? shapes[name] : object({ do: string().oneOf(names, 'There is no such thing to do.').required() })
	) as never;
});

/** Who does it, where. */
interface Doer {
	courseId: number;
	personId: number;
}

/** A part of what is done: what stands in the ledger, and how it is done; gives how many questions it changed. */
interface Work {
	deed: string;
	subject: string;
	words: (questions: number) => string;
	does: (connection: PoolConnection, ids: readonly number[], by: ByDeed) => Promise<number>;
}

const some = (questions: number) => (questions === 1 ? '1 question' : `${questions.toLocaleString('en')} questions`);
const batch = 500;

/** Puts questions through an edit, a batch at a time; gives how many it changed. */
export async function rewrite(
	connection: PoolConnection,
	courseId: number,
	ids: readonly number[],
	by: ByDeed,
	change: (question: Question, id: number) => Question
): Promise<number> {
	return checkedTogether(connection, async (later) => {
		let count = 0;
		for (let at = 0; at < ids.length; at += batch) {
			const stored = await lockedQuestions(connection, courseId, ids.slice(at, at + batch));
			const changed = stored.flatMap(({ id, bankId, document }) => {
				const before = parseQuestion(JSON.parse(document));
				const question = change(before, id);
				return question === before ? [] : [{ id, bankId, question }];
			});
			await saveQuestions(connection, courseId, changed, { ...by, later });
			count += changed.length;
			tellProgress(Math.min(ids.length, at + batch), ids.length);
		}
		return count;
	});
}

/** A place where questions are to go, with its name in words. Throws Refused where it is not there, or not the person's to fill. */
export async function placeNamed(
	db: Database,
	personId: number,
	{ bankId, categoryId }: { bankId: number; categoryId: number | null }
): Promise<{ courseId: number; bankId: number; categoryId: number | null; words: string; course: string }> {
	const bank = await row<{ courseId: number; name: string; course: string }>(
		db,
		`SELECT c.id AS courseId, b.name, CONCAT(c.name, ' (', c.code, ')') AS course FROM banks b JOIN courses c ON c.id = b.course_id AND c.state = 'open' JOIN people p ON p.id = ? LEFT JOIN memberships m ON m.course_id = c.id AND m.person_id = p.id
		WHERE b.id = ? AND (p.keeper = 1 OR m.role IN ('work', 'manage'))`,
		[personId, bankId]
	);
	if (!bank) throw new Refused('There is no such bank, or you may not change the course that it is in.');
	const category = categoryId === null ? null : (await categoryTree(db, bankId)).find(({ id }) => id === categoryId);
	if (category === undefined) throw new Refused('There is no such category in that bank any more.');
	return {
		courseId: bank.courseId,
		bankId,
		categoryId,
		words: `${bank.name}${category ? ` › ${category.name}` : ''}`,
		course: bank.course
	};
}

async function workOf(connection: PoolConnection, { courseId, personId }: Doer, bulk: Bulk): Promise<Work> {
	if (bulk.do === 'edit') {
		const what = bulk.what as unknown as EditAsked;
		const { deed, says, keepsKey } = editWords(what);
		return {
			deed,
			subject: says,
			words: (questions) => `${some(questions)}: ${says}.`,
			does: async (_, ids, by) =>
				rewrite(
					connection,
					courseId,
					(await touchedBy(connection, courseId, ids, what)) ?? ids,
					{ ...by, keepsKey },
					(question) => applyEdit(question, what)
				)
		};
	}
	if (bulk.do === 'key') {
		const change = bulk.state === 'disputed' ? { state: bulk.state, note: bulk.note } : { state: bulk.state };
		return {
			deed: { verified: 'verified the key of', unverified: 'took the verification of', disputed: 'doubted the key of' }[
				bulk.state
			],
			subject: bulk.note || 'chosen questions',
			words: (questions) => `${some(questions)}: key ${bulk.state}.`,
			does: (_, ids, by) => changeKeys(connection, courseId, ids, keySet(change, by), by.deedId)
		};
	}
	if (bulk.do === 'machine')
		return {
			deed: bulk.on === 'yes' ? 'marked as written by a machine' : 'marked as written by a person',
			subject: 'chosen questions',
			words: (questions) => `${some(questions)}: written by a ${bulk.on === 'yes' ? 'machine' : 'person'}.`,
			does: (_, ids, by) =>
				changeKeys(connection, courseId, ids, { sql: 'q.machine = ?', values: [bulk.on === 'yes' ? 1 : 0] }, by.deedId)
		};
	if (bulk.do === 'bin')
		return {
			deed: 'put in the bin',
			subject: 'chosen questions',
			words: (questions) => `${some(questions)} in the bin.`,
			does: async (_, ids, by) => {
				const bin = await binPlace(connection, courseId);
				const placings = ids.map((id) => ({ id, bankId: bin.bankId, categoryId: null }));
				return placeQuestions(connection, courseId, bin.courseId, placings, by);
			}
		};
	const to = await placeNamed(connection, personId, bulk.to);
	const where = to.courseId === courseId ? to.words : `${to.words} in ${to.course}`;
	if (bulk.do === 'copy')
		return {
			deed: 'copied',
			subject: `to ${where}`,
			words: (questions) => `${some(questions)} copied to ${where}.`,
			does: (_, ids, by) =>
				copyQuestions(
					connection,
					to.courseId,
					ids.map((id) => ({ id, bankId: to.bankId, categoryId: to.categoryId })),
					by
				)
		};
	return {
		deed: 'moved',
		subject: `to ${where}`,
		words: (questions) => `${some(questions)} moved to ${where}.`,
		does: (_, ids, by) =>
			placeQuestions(
				connection,
				courseId,
				to.courseId,
				ids.map((id) => ({ id, bankId: to.bankId, categoryId: to.categoryId })),
				by
			)
	};
}

/** Does something to all questions that are chosen, in one transaction and as one deed. Throws Refused in words. */
export async function doBulk(pool: Pool, courseId: number, personId: number, bulk: Bulk): Promise<Done> {
	return transaction(pool, async (connection) => {
		const ids = await chosenIds(connection, courseId, bulk.chosen);
		if (!ids.length) throw new Refused('Nothing is chosen that is still there.');
		const work = await workOf(connection, { courseId, personId }, bulk);
		const deedId = await beginDeed(connection, {
			courseId,
			personId,
			deed: work.deed,
			subject: work.subject,
			address: `/courses/${courseId}/banks?bank=${bulk.chosen.bankId}`
		});
		tellProgress(0, ids.length);
		await lockGroups(connection, courseId);
		const questions = await work.does(connection, ids, { deedId, personId });
		tellProgress(ids.length, ids.length);
		await endDeed(connection, deedId, questions);
		return { deedId, questions, words: work.words(questions) };
	});
}

/** What doing something would change, in numbers, before it is done. */
export interface BulkPreview {
	/** How many are chosen, and how many of them it would change. */
	chosen: number;
	changes: number;
	/** What it says in words. */
	words: string;
	/** How many of them parts of quizzes name. */
	inQuizzes: number;
	/** Some of them before and after, where what they say is changed. */
	examples: { id: number; before: Question; after: Question }[];
}

const mostExamples = 20;

/** How many questions an edit would change, and some of them; it is tried on each of which the columns do not tell. */
async function tried(
	db: Database,
	courseId: number,
	ids: readonly number[],
	what: EditAsked
): Promise<Pick<BulkPreview, 'changes' | 'examples'>> {
	const touched = await touchedBy(db, courseId, ids, what);
	const looked = touched?.slice(0, mostExamples) ?? ids;
	const examples: BulkPreview['examples'] = [];
	let changes = 0;
	for (let at = 0; at < looked.length; at += batch) {
		// by key
		const stored = await rows<{ id: number; document: string }>(
			db,
			'SELECT id, document FROM questions WHERE course_id = ? AND id IN (?) ORDER BY id',
			[courseId, looked.slice(at, at + batch)]
		);
		tellProgress(at, looked.length);
		for (const { id, document } of stored) {
			const before = parseQuestion(JSON.parse(document));
			const after = applyEdit(before, what);
			if (after === before) continue;
			changes += 1;
			if (examples.length < mostExamples) examples.push({ id, before, after });
		}
	}
	return { changes: touched?.length ?? changes, examples };
}

/** Says what doing something would change. */
export async function previewBulk(pool: Pool, courseId: number, personId: number, bulk: Bulk): Promise<BulkPreview> {
	return transaction(pool, async (connection) => {
		const ids = await chosenIds(connection, courseId, bulk.chosen);
		if (!ids.length) throw new Refused('Nothing is chosen that is still there.');
		const { words } = await workOf(connection, { courseId, personId }, bulk);
		const used = ids.length
			? await row<{ n: number }>(
					connection,
					"SELECT COUNT(DISTINCT question_id) AS n FROM quiz_part_questions WHERE question_id IN (?) AND role <> 'excluded'",
					[ids]
				)
			: { n: 0 };
		const { changes, examples } =
			bulk.do === 'edit'
				? await tried(connection, courseId, ids, bulk.what as unknown as EditAsked)
				: { changes: ids.length, examples: [] };
		return { chosen: ids.length, changes, words: words(changes), inQuizzes: used!.n, examples };
	});
}
