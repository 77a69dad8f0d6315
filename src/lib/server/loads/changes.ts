import type { Pool } from 'mysql2/promise';
import { planTakeIn } from '$core/take-in/plan';
import type { Outcome } from '$core/take-in/planned-question';
import { rows } from '../db/pool';
import { foundQuizzes, numbersIn } from './found-quizzes';
import { plannedQuestions } from './planned';
import { reviewSummary } from './summary';

/** What taking a load in would do to its questions and quizzes, in full. */
export interface LoadChanges {
	/** What becomes of questions: how many, and the first of them. */
	outcomes: { outcome: Outcome; questions: number; first: { id: number; number: number; title: string }[] }[];
	/**
	 * What becomes of the questions of each quiz: how many it has, how many are in the course, how many will be missing; and
	 * whether the course has a quiz with its title.
	 */
	quizzes: { id: number; title: string; questions: number; there: number; missing: number; isKnown: boolean }[];
}

/** How many questions of an outcome are named. */
const mostNamed = 100;

/** Those titles of some quizzes that quizzes of a course have already, in small letters. */
async function titlesThere(pool: Pool, courseId: number, quizzes: readonly { title: string }[]): Promise<Set<string>> {
	if (!quizzes.length) return new Set();
	const there = await rows<{ title: string }>(pool, 'SELECT title FROM quizzes WHERE course_id = ? AND title IN (?)', [
		courseId,
		quizzes.map(({ title }) => title)
	]);
	return new Set(there.map(({ title }) => title.toLowerCase()));
}

/** What taking in a load by its decision would do, in full. Undefined where there is no such load. */
export async function changesOf(pool: Pool, courseId: number, loadId: number): Promise<LoadChanges | undefined> {
	const summary = await reviewSummary(pool, courseId, loadId);
	if (!summary) return undefined;
	const questions = await plannedQuestions(pool, courseId, loadId, summary.decision);
	const plan = planTakeIn(questions, summary.decision, []);
	const ids = new Map<Outcome, number[]>();
	const byNumber = new Map<number, Outcome>();
	questions.forEach(({ id, number }, at) => {
		const outcome = plan.outcomes[at]!;
		byNumber.set(number, outcome);
		const list = ids.get(outcome);
		if (list) list.push(id);
		else ids.set(outcome, [id]);
	});
	const named = [...ids.values()].flatMap((list) => list.slice(0, mostNamed));
	const titles = new Map(
		named.length
			? (
					await rows<LoadChanges['outcomes'][number]['first'][number]>(
						pool,
						'SELECT id, number, title FROM staged_questions WHERE id IN (?)',
						[named]
					)
				).map((question) => [question.id, question])
			: []
	);
	const found = await foundQuizzes(pool, loadId);
	const known = await titlesThere(pool, courseId, found);
	return {
		outcomes: [...ids].map(([outcome, list]) => ({
			outcome,
			questions: list.length,
			first: list.slice(0, mostNamed).flatMap((id) => titles.get(id) ?? [])
		})),
		quizzes: found.map((quiz) => {
			const { id, title } = quiz;
			const numbers = numbersIn(quiz);
			const of = (...outcomes: Outcome[]) => numbers.filter((at) => outcomes.includes(byNumber.get(at)!)).length;
			return {
				id,
				title,
				questions: numbers.length,
				there: of('skipped', 'replaced'),
				missing: of('aside', 'left'),
				isKnown: known.has(title.toLowerCase())
			};
		})
	};
}
