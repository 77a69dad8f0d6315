import { json } from '@sveltejs/kit';
import { courseAt } from '$lib/server/access';
import { database } from '$lib/server/db/pool';
import { putQuizBack } from '$lib/server/quizzes/make';
import { quizShape } from '$lib/server/quizzes/save';
import { jsonOf } from '$lib/server/requests';

/** Puts a quiz back that was thrown away, as it was. */
export const POST = async ({ locals, params, request }) => {
	const { course, person } = await courseAt(locals, params, 'work');
	const quiz = await jsonOf(request, quizShape);
	return json({ quizId: await putQuizBack(database(), { courseId: course.id, personId: person.id }, quiz) });
};
