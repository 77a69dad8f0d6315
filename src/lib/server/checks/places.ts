import type { Pool, PoolConnection } from 'mysql2/promise';
import type { CheckedQuiz, Finding } from '$core/checks/check';
import { edition } from '$core/checks/edition';
import { findInQuiz, findInTree } from '$core/checks/places';
import { poolOf } from '$core/draws/pool';

import { ruleOf, type CheckRule } from '$core/reports/rules';
import type { Severity } from '$core/reports/report';
import { pathKey, pathOfKey } from '$core/take-in/paths';
import { bankNames } from '../banks/banks';
import { keptTrees, type CategoryNode } from '../banks/tree';
import { countsOf, type CourseCounts } from '../courses/counts';
import { checkRules } from '../courses/kept';
import { row, rows, run, transaction } from '../db/pool';
import { partsOf } from '../quizzes/quiz';
import { poolSource, type CoursePools } from '../quizzes/pools';

const boundRules = ['option-place', 'option-letters'];

/** Where a finding is that is of no question: a category of a bank or the bank itself, or a quiz. */
export type FindingPlace =
	{ bankId: number; bank: string; categoryId: number | null; category: string[] } | { quizId: number; quiz: string };

/** What a check over a tree or a quiz finds. */
export interface PlaceFinding {
	rule: CheckRule;
	severity: Severity;
	message: string;
	words: string[];
	place: FindingPlace;
}

async function inTrees(db: PoolConnection, courseId: number, counts: CourseCounts): Promise<PlaceFinding[]> {
	const banks = await bankNames(db, courseId);
	const trees = await keptTrees(
		db,
		banks.map(({ id }) => id),
		counts
	);
	return banks.flatMap((bank) => {
		const tree: CategoryNode[] = trees.get(bank.id) ?? [];
		const ids = new Map(tree.map(({ key, id }) => [key, id]));
		const categories = tree.map(({ key, all }) => ({ path: pathOfKey(key), questions: all }));
		return [...findInTree(categories)].map((found) => ({
			...said(found.check, found),
			place: {
				bankId: bank.id,
				bank: bank.name,
				categoryId: ids.get(pathKey([...found.subject])) ?? null,
				category: [...found.subject]
			}
		}));
	});
}

const said = (check: Parameters<typeof ruleOf>[0] & { severity: Severity }, { message, words = [] }: Finding) => ({
	rule: ruleOf(check),
	severity: check.severity,
	message,
	words
});

/** What questions are called whose options name one another by place or letter and may be shuffled, by their keys. */
async function boundQuestions(db: PoolConnection, courseId: number): Promise<Map<number, string>> {
	// by_rule
	const found = await rows<{ id: number; title: string }>(
		db,
		'SELECT q.id, q.title FROM (SELECT question_id FROM snags WHERE course_id = ? AND rule IN (?) UNION SELECT question_id FROM waived_snags WHERE course_id = ? AND rule IN (?)) s JOIN questions q ON q.id = s.question_id',
		[courseId, boundRules, courseId, boundRules]
	);
	return new Map(found.map(({ id, title }) => [id, title]));
}

async function inQuizzes(db: PoolConnection, courseId: number): Promise<PlaceFinding[]> {
	const quizzes = await rows<{ id: number; title: string }>(
		db,
		'SELECT id, title FROM quizzes WHERE course_id = ? ORDER BY id',
		[courseId]
	);
	const parts = await partsOf(
		db,
		quizzes.map(({ id }) => id)
	);
	const source: CoursePools = await poolSource(db, courseId, [...parts.values()].flat());
	const bound = await boundQuestions(db, courseId);
	return quizzes.flatMap(({ id, title }) => {
		const quiz: CheckedQuiz = {
			title,
			parts: parts.get(id)!.map((part) => ({
				title: part.title,
				draw: part.draw,
				pointsEach: part.pointsEach,
				shufflesOptions: part.shuffleOptions,
				lost: part.lost.map(({ kind, bank, name }) =>
					kind === 'bank' ? bank : kind === 'category' ? [bank, ...pathOfKey(name)].join(' › ') : name
				),
				pool: poolOf(part, source)
					.filter((number) => Object.hasOwn(source.points, number))
					.map((number) => ({
						number,
						points: source.points[number] ?? null,
						...(bound.has(number) ? { bound: bound.get(number)! } : {})
					}))
			}))
		};
		return [...findInQuiz(quiz)].map((found) => ({
			...said(found.check, found),
			place: { quizId: id, quiz: title }
		}));
	});
}

async function stateOf(db: Pool | PoolConnection, courseId: number): Promise<string> {
	const course = await row<{ stamp: number }>(db, 'SELECT stamp FROM courses WHERE id = ?', [courseId]);
	return `${course?.stamp ?? 0} ${edition}`;
}

/** What the checks over trees and quizzes found in a course last; undefined where something has changed since. */
export async function keptFindings(pool: Pool, courseId: number): Promise<PlaceFinding[] | undefined> {
	const kept = await row<{ document: string }>(
		pool,
		'SELECT document FROM course_findings WHERE course_id = ? AND state = ?',
		[courseId, await stateOf(pool, courseId)]
	);
	return kept && (JSON.parse(kept.document) as PlaceFinding[]);
}

/** What the checks over trees and quizzes find in a course: as it is kept, else found now and kept. */
export async function placeFindings(pool: Pool, courseId: number): Promise<PlaceFinding[]> {
	const kept = await keptFindings(pool, courseId);
	if (kept) return kept;
	const counts = await countsOf(pool, courseId);
	return transaction(pool, async (connection) => {
		// one moment for the state and for all that is found under it
		const state = await stateOf(connection, courseId);
		const { off, severities } = await checkRules(connection, courseId);
		const found = [...(await inTrees(connection, courseId, counts)), ...(await inQuizzes(connection, courseId))]
			.filter(({ rule }) => !off.has(rule))
			.map((finding) => ({ ...finding, severity: severities.get(finding.rule) ?? finding.severity }));
		await run(
			connection,
			'INSERT INTO course_findings (course_id, state, document) VALUES (?, ?, ?) ON DUPLICATE KEY UPDATE state = VALUES(state), document = VALUES(document)',
			[courseId, state, JSON.stringify(found)]
		);
		return found;
	});
}
