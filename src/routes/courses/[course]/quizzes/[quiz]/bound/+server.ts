import { json } from '@sveltejs/kit';
import { courseAt, keyOf } from '$lib/server/access';
import { database } from '$lib/server/db/pool';
import { boundIn } from '$lib/server/quizzes/bound';
import { sheetShape } from '$lib/server/quizzes/save';
import { theQuiz } from '$lib/server/quizzes/the-quiz';
import { jsonOf } from '$lib/server/requests';

/** The questions of a sheet whose options are shuffled though they name places or letters, each with the reason. */
export const POST = async ({ locals, params, request }) => {
	const { course } = await courseAt(locals, params);
	await theQuiz(database(), course.id, keyOf(params.quiz));
	return json(await boundIn(database(), course.id, await jsonOf(request, sheetShape)));
};
