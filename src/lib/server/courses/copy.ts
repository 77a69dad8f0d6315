import type { Pool, PoolConnection } from 'mysql2/promise';
import type { CourseDetails } from '$lib/forms/course';
import { ensureCategories, keptTrees } from '../banks/tree';
import { copyQuestions } from '../changes/copy';
import { beginDeed, endDeed } from '../changes/deed';
import { rows, run, transaction } from '../db/pool';
import { carriedPart, carriedRules } from '../quizzes/carried';
import { keptRules, partsOf } from '../quizzes/quiz';
import { writeParts } from '../quizzes/save';
import { pathOfKey } from '$core/take-in/paths';
import { otherOf, taken } from './make';

/** What of a course is copied beside its banks. */
export interface CopyWhat {
	quizzes: boolean;
	rules: boolean;
}

/** What a copy came to. */
export interface CourseCopy {
	id: number;
	banks: number;
	questions: number;
	quizzes: number;
}

interface Landings {
	banks: Map<number, number>;
	categories: Map<number, number>;
}

/** Makes the banks of a course in another, with their categories; gives the key of each by that of the one it is like. */
async function copyBanks(connection: PoolConnection, from: number, to: number): Promise<Landings> {
	const banks = await rows<{ id: number; name: string; description: string | null }>(
		connection,
		'SELECT id, name, description FROM banks WHERE course_id = ? ORDER BY id',
		[from]
	);
	const landings: Landings = { banks: new Map(), categories: new Map() };
	if (!banks.length) return landings;
	const { id: first } = await run(connection, 'INSERT INTO banks (course_id, name, description) VALUES ?', [
		banks.map(({ name, description }) => [to, name, description])
	]);
	banks.forEach(({ id }, at) => landings.banks.set(id, first + at));
	const trees = await keptTrees(
		connection,
		banks.map(({ id }) => id),
		{ places: [], snags: [] }
	);
	for (const [bankId, tree] of trees) {
		const paths = tree.map((node) => pathOfKey(node.key));
		const { ids } = await ensureCategories(connection, landings.banks.get(bankId)!, paths, null);
		for (const node of tree) landings.categories.set(node.id, ids.get(node.key)!);
	}
	const pairs = [...landings.categories].map(([old, now]) => [now, old]);
	if (pairs.length)
		await run(
			connection,
			`UPDATE categories n JOIN (${pairs.map(() => 'SELECT ? AS now, ? AS old').join(' UNION ALL ')}) x ON x.now = n.id JOIN categories o ON o.id = x.old SET n.position = o.position, n.code = o.code`,
			pairs.flat()
		);
	return landings;
}

async function copyQuizzes(connection: PoolConnection, from: number, to: number, landings: Landings): Promise<number> {
	const quizzes = await rows<{ id: number; title: string; rules: string; settings: string; rule: number }>(
		connection,
		'SELECT id, title, rules, settings, drawing_rule AS rule FROM quizzes WHERE course_id = ? ORDER BY id',
		[from]
	);
	if (!quizzes.length) return 0;
	const parts = await partsOf(
		connection,
		quizzes.map(({ id }) => id)
	);
	const copies = await rows<{ id: number; old: number }>(
		connection,
		'SELECT id, copied_from AS old FROM questions WHERE course_id = ? AND copied_from IS NOT NULL',
		[to]
	);
	const questions = new Map(copies.map(({ id, old }) => [old, id]));
	const keys = { questions, categories: landings.categories, banks: landings.banks };
	const { id: first } = await run(
		connection,
		'INSERT INTO quizzes (course_id, title, rules, settings, drawing_rule) VALUES ?',
		[
			quizzes.map(({ title, rules, settings, rule }) => [
				to,
				title,
				JSON.stringify(carriedRules(keptRules(rules), keys)),
				settings,
				rule
			])
		]
	);
	for (const [at, { id }] of quizzes.entries())
		await writeParts(
			connection,
			to,
			first + at,
			parts.get(id)!.map((part) => carriedPart(part, keys))
		);
	return quizzes.length;
}

/**
 * Copies a course under another code: its banks with all that is in them and, where that is asked for, its quizzes, which
 * draw from the copies, and its rules and settings. Its loads, dispatches and people stay. Says which other has the code
 * where one has it.
 */
export async function copyCourse(
	pool: Pool,
	courseId: number,
	personId: number,
	details: CourseDetails,
	what: CopyWhat
): Promise<CourseCopy | { taken: string }> {
	return transaction(pool, async (connection) => {
		const other = await otherOf(connection, details.code, 0);
		if (other) return taken(details.code, other.name);
		const { id } = await run(
			connection,
			'INSERT INTO courses (code, name, intake, settings) SELECT ?, ?, ?, IF(?, settings, NULL) FROM courses WHERE id = ?',
			[details.code, details.name, details.intake, what.rules ? 1 : 0, courseId]
		);
		await run(connection, "INSERT INTO memberships (person_id, course_id, role) VALUES (?, ?, 'manage')", [
			personId,
			id
		]);
		if (what.rules)
			await run(
				connection,
				'INSERT INTO rule_sets (course_id, name, document) SELECT ?, name, document FROM rule_sets WHERE course_id = ?',
				[id, courseId]
			);
		const deedId = await beginDeed(connection, {
			courseId: id,
			personId,
			deed: 'copied the course',
			subject: details.name
		});
		const landings = await copyBanks(connection, courseId, id);
		const standing = await rows<{ id: number; bankId: number; categoryId: number | null }>(
			connection,
			'SELECT q.id, q.bank_id AS bankId, q.category_id AS categoryId FROM questions q JOIN banks b ON b.id = q.bank_id WHERE b.course_id = ? ORDER BY q.id',
			[courseId]
		);
		const questions = await copyQuestions(
			connection,
			id,
			standing.map((question) => ({
				id: question.id,
				bankId: landings.banks.get(question.bankId)!,
				categoryId: question.categoryId === null ? null : landings.categories.get(question.categoryId)!
			})),
			{ deedId, personId }
		);
		const quizzes = what.quizzes ? await copyQuizzes(connection, courseId, id, landings) : 0;
		await endDeed(connection, deedId, questions);
		// the way back from a copy is the bin of the course
		await run(connection, "UPDATE ledger SET way_back = 'none' WHERE id = ?", [deedId]);
		return { id, banks: landings.banks.size, questions, quizzes };
	});
}
