import type { Pool, PoolConnection } from 'mysql2/promise';
import type { CheckedQuiz, Finding } from '$core/checks/check';
import { edition } from '$core/checks/edition';
import { findInQuiz, findInTree } from '$core/checks/places';
import { poolOf } from '$core/draws/pool';
import { lookInto, totalOf } from '$core/draws/sheets';

import { ruleOf, type CheckRule } from '$core/reports/rules';
import type { Severity } from '$core/reports/report';
import { pathKey, pathOfKey } from '$core/take-in/paths';
import { bankNames } from '../banks/banks';
import { keptTrees, type CategoryNode } from '../banks/tree';
import { countsOf, type CourseCounts } from '../courses/counts';
import { checkRules } from '../courses/kept';
import { row, rows, run, transaction } from '../db/pool';
import { keptRules, partsOf } from '../quizzes/quiz';
import { sheetIn, type DrawnQuiz } from '../quizzes/sheet';
import { withTitles } from '../quizzes/titles';
import { poolSource, type CoursePools } from '../quizzes/pools';

import { boundRules } from '../quizzes/bound';

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

/** What drawing finds of a quiz whose quotas, pairs, groups or overlapping pools make more of it than its parts show. */
function drawnOf(source: CoursePools, quiz: DrawnQuiz): Pick<CheckedQuiz, 'drawn'> {
	const { never, together } = quiz.rules!;
	const pools = quiz.parts.map((part) => poolOf(part, source));
	const overlaps = new Set(pools.flat()).size < pools.reduce((sum, pool) => sum + pool.length, 0);
	const isUneven = overlaps && quiz.parts.some((part) => part.pointsEach === null);
	if (!never.length && !together.length && !isUneven && !quiz.parts.some((part) => part.quotas?.length)) return {};
	const { plan } = sheetIn(source, quiz);
	const looked = lookInto(plan);
	if ('conflict' in looked) return { drawn: { stops: looked.conflict.message, total: null } };
	if ('unknown' in looked) return {};
	const total = totalOf(plan, looked.sampler);
	return { drawn: { stops: null, total: total && [total.least, total.most] } };
}

async function inQuizzes(db: PoolConnection, courseId: number): Promise<PlaceFinding[]> {
	const quizzes = await rows<{ id: number; title: string; rules: string }>(
		db,
		'SELECT id, title, rules FROM quizzes WHERE course_id = ? ORDER BY id',
		[courseId]
	);
	const parts = await partsOf(
		db,
		quizzes.map(({ id }) => id)
	);
	const all = [...parts.values()].flat();
	const rulesOf = new Map(quizzes.map(({ id, rules }) => [id, keptRules(rules)]));
	const grouped = [...rulesOf.values()].flatMap(({ together }) => together.flat());
	const asked = all.some(({ quotas }) => quotas.length) ? { facts: true, tags: true, broken: true } : undefined;
	const source: CoursePools = await poolSource(db, courseId, all, undefined, asked, grouped);
	const bound = await boundQuestions(db, courseId);
	const findings = quizzes.flatMap(({ id, title }) => {
		const rules = rulesOf.get(id)!;
		const quiz: CheckedQuiz = {
			title,
			...drawnOf(source, { parts: parts.get(id)!, rules }),
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
						...(bound.has(number) && !rules.fixedOptions.includes(number) ? { bound: bound.get(number)! } : {})
					}))
			}))
		};
		return [...findInQuiz(quiz)].map((found) => ({
			...said(found.check, found),
			place: { quizId: id, quiz: title }
		}));
	});
	return Promise.all(
		findings.map(async (finding) => ({ ...finding, message: await withTitles(db, courseId, finding.message) }))
	);
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
