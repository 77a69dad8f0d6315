import type { Pool } from 'mysql2/promise';
import { poolOf } from '$core/draws/pool';
import type { Severity } from '$core/reports/report';
import { pathOfKey } from '$core/take-in/paths';
import { bankNames } from '../banks/banks';
import { keptTrees } from '../banks/tree';
import type { PlaceFinding } from '../checks/places';
import { countsOf } from '../courses/counts';
import { rows } from '../db/pool';
import { partsOf } from '../quizzes/quiz';
import { poolSource } from '../quizzes/pools';

/** By what snags are gone through. */
export const orders = ['check', 'category', 'question', 'quiz'] as const;

/** By what snags are gone through. */
export type Order = (typeof orders)[number];

/** A category, a question or a quiz with the snags that it has. */
export interface Head {
	/** What an address names it by: some parts of a filter. */
	asks: Record<string, string>;
	name: string;
	/** What it stands in. */
	within: string;
	/** The worst of its snags. */
	severity: Severity;
	snags: number;
}

/** So many questions are listed, those with the most snags first. */
const mostQuestions = 200;
const grave: Severity[] = ['broken', 'doubtful', 'untidy'];
const worse = (a: Severity, b: Severity) => (grave.indexOf(a) <= grave.indexOf(b) ? a : b);

/** The categories of a course in which snags are open, bank after bank in the order of their trees. */
async function byCategory(pool: Pool, courseId: number): Promise<Head[]> {
	const counts = await countsOf(pool, courseId);
	const banks = await bankNames(pool, courseId);
	const trees = await keptTrees(
		pool,
		banks.map(({ id }) => id),
		{ places: [], snags: [] }
	);
	const found = new Map<string, { severity: Severity; snags: number }>();
	for (const { bankId, categoryId, severity, snags } of counts.snags) {
		const place = `${bankId} ${categoryId ?? 0}`;
		const known = found.get(place);
		found.set(place, {
			severity: known ? worse(known.severity, severity) : severity,
			snags: (known?.snags ?? 0) + snags
		});
	}
	return banks.flatMap(({ id: bankId, name }) =>
		[{ id: 0, key: '' }, ...(trees.get(bankId) ?? [])].flatMap(({ id, key }) => {
			const here = found.get(`${bankId} ${id}`);
			const asks = { bank: String(bankId), category: String(id) };
			return here ? [{ asks, name: pathOfKey(key).join(' › ') || 'in no category', within: name, ...here }] : [];
		})
	);
}

/** The questions of a course with the most open snags. */
async function byQuestion(pool: Pool, courseId: number): Promise<Head[]> {
	// by_severity
	const found = await rows<{ id: number; title: string; bank: string; severity: number; snags: number }>(
		pool,
		`SELECT q.id, q.title, b.name AS bank, f.severity, f.snags FROM (SELECT question_id, COUNT(DISTINCT rule) AS snags, MIN(severity + 0) AS severity FROM snags WHERE course_id = ? GROUP BY question_id ORDER BY snags DESC, severity, question_id LIMIT ${mostQuestions}) f
		JOIN questions q ON q.id = f.question_id JOIN banks b ON b.id = q.bank_id ORDER BY f.snags DESC, f.severity, q.id`,
		[courseId]
	);
	return found.map(({ id, title, bank, severity, snags }) => ({
		asks: { question: String(id) },
		name: title,
		within: bank,
		severity: grave[Number(severity) - 1]!,
		snags
	}));
}

/** The quizzes of a course that have snags of their own, or questions with snags to draw from. */
async function byQuiz(pool: Pool, courseId: number, findings: readonly PlaceFinding[]): Promise<Head[]> {
	const quizzes = await rows<{ id: number; title: string }>(
		pool,
		'SELECT id, title FROM quizzes WHERE course_id = ? ORDER BY title, id',
		[courseId]
	);
	const parts = await partsOf(
		pool,
		quizzes.map(({ id }) => id)
	);
	const source = await poolSource(pool, courseId, [...parts.values()].flat());
	// by_severity
	const counted = await rows<{ id: number; severity: number; snags: number }>(
		pool,
		'SELECT question_id AS id, MIN(severity + 0) AS severity, COUNT(DISTINCT rule) AS snags FROM snags WHERE course_id = ? GROUP BY question_id',
		[courseId]
	);
	const snagsOf = new Map(counted.map((question) => [question.id, question]));
	return quizzes.flatMap(({ id, title }) => {
		const own = findings.filter(({ place }) => 'quizId' in place && place.quizId === id);
		const drawn = [...new Set(parts.get(id)!.flatMap((part) => poolOf(part, source)))].flatMap(
			(question) => snagsOf.get(question) ?? []
		);
		const severity = [
			...own.map((found) => found.severity),
			...drawn.map((found) => grave[Number(found.severity) - 1]!)
		];
		const snags = own.length + drawn.reduce((sum, found) => sum + found.snags, 0);
		const asks = { quiz: String(id) };
		return snags
			? [
					{
						asks,
						name: title,
						within: own.length ? `${own.length} of the quiz itself` : '',
						severity: severity.reduce(worse),
						snags
					}
				]
			: [];
	});
}

/** What snags are gone through by, each with how many it has; by checks they are counted elsewhere. */
export function headsOf(
	pool: Pool,
	courseId: number,
	order: Order,
	findings: readonly PlaceFinding[]
): Promise<Head[]> | Head[] {
	if (order === 'category') return byCategory(pool, courseId);
	if (order === 'question') return byQuestion(pool, courseId);
	return order === 'quiz' ? byQuiz(pool, courseId, findings) : [];
}
