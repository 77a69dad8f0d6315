import { error, json } from '@sveltejs/kit';
import { array, boolean, number, object } from 'yup';
import { courseAt, keyOf } from '$lib/server/access';
import { database } from '$lib/server/db/pool';
import { poolSource } from '$lib/server/quizzes/pools';
import { quizOf } from '$lib/server/quizzes/quiz';
import { jsonOf } from '$lib/server/requests';

const shape = object({
	categories: array(number().integer().required()).max(10_000).required(),
	withUnder: boolean().required()
});

/** What can be drawn from categories: asked for as one chooses them. */
export const POST = async ({ locals, params, request }) => {
	const { course } = await courseAt(locals, params);
	const wanted = await jsonOf(request, shape);
	if (!(await quizOf(database(), course.id, keyOf(params.quiz)))) error(404, 'There is no such quiz in this course.');
	const { inCategory, points } = await poolSource(database(), course.id, [{ ...wanted, questions: [], draw: null }]);
	return json({ inCategory, points });
};
