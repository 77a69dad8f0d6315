import { json } from '@sveltejs/kit';
import { array, number } from 'yup';
import { courseAt, keyOf } from '$lib/server/access';
import { database } from '$lib/server/db/pool';
import { namedQuestions } from '$lib/server/quizzes/pool-page';
import { theQuiz } from '$lib/server/quizzes/the-quiz';
import { jsonOf } from '$lib/server/requests';

const shape = array(number().integer().positive().required()).max(10_000).required();

/** What questions are called, where they stand and what they are worth. */
export const POST = async ({ locals, params, request }) => {
	const { course } = await courseAt(locals, params);
	await theQuiz(database(), course.id, keyOf(params.quiz));
	return json(await namedQuestions(database(), course.id, await jsonOf(request, shape)));
};
