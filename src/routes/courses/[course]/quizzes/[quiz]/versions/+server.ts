import { json } from '@sveltejs/kit';
import { object } from 'yup';
import { courseAt, keyOf } from '$lib/server/access';
import { database } from '$lib/server/db/pool';
import { theQuiz } from '$lib/server/quizzes/the-quiz';
import { versionOf, versionsOf } from '$lib/server/quizzes/versions';
import { jsonOf, requiredKey } from '$lib/server/requests';

/** The versions of a quiz that are kept. */
export const GET = async ({ locals, params }) => {
	const { course } = await courseAt(locals, params);
	const { id } = await theQuiz(database(), course.id, keyOf(params.quiz));
	return json(await versionsOf(database(), course.id, id));
};

const shape = object({ id: requiredKey('The version') });

/** A quiz as it was in a version. */
export const POST = async ({ locals, params, request }) => {
	const { course } = await courseAt(locals, params);
	const { id } = await jsonOf(request, shape);
	return json(await versionOf(database(), course.id, keyOf(params.quiz), id));
};
