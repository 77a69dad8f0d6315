import { json } from '@sveltejs/kit';
import { number, string } from 'yup';
import { courseAt, keyOf } from '$lib/server/access';
import { refusing } from '$lib/server/answers';
import { database } from '$lib/server/db/pool';
import { lookAt } from '$lib/server/quizzes/looks';
import { poolPage, poolSorts } from '$lib/server/quizzes/pool-page';
import { sheetShape } from '$lib/server/quizzes/save';
import { theQuiz } from '$lib/server/quizzes/the-quiz';
import { jsonOf } from '$lib/server/requests';

const shape = sheetShape.shape({
	attempts: number().integer().min(1).max(1000).nullable().default(null),
	part: number().integer().min(0).required(),
	from: number().integer().min(0).max(10_000_000).default(0),
	sort: string().oneOf(poolSorts).default('order')
});

/** A page of the questions that a part of a sheet can give, each with its chance. */
export const POST = async ({ locals, params, request }) => {
	const { course } = await courseAt(locals, params);
	const { attempts, part, from, sort, ...quiz } = await jsonOf(request, shape);
	await theQuiz(database(), course.id, keyOf(params.quiz));
	const asked = quiz.parts[part];
	if (!asked) return json({ total: 0, from, rows: [] });
	const running = await lookAt(course.id, quiz, { figures: true, attempts: attempts ?? null });
	const { chances } = await refusing(() => running.result);
	const byKey = new Map(chances.ids.map((id, at) => [id, chances.chances[at]!]));
	return json(await poolPage(database(), course.id, asked, byKey, { from, sort }));
};
