import { error, json } from '@sveltejs/kit';
import { throwAway } from '$lib/server/quizzes/make';
import { courseAt, keyOf } from '$lib/server/access';
import { database } from '$lib/server/db/pool';
import { quizShape, saveQuiz } from '$lib/server/quizzes/save';
import { changeOf, theQuiz } from '$lib/server/quizzes/the-quiz';
import { jsonOf } from '$lib/server/requests';

/** Which version of a quiz there is and who made it; with `whole`, the quiz. */
export const GET = async ({ locals, params, url }) => {
	const { course } = await courseAt(locals, params);
	const quizId = keyOf(params.quiz);
	const change = await changeOf(database(), course.id, quizId);
	return json(
		url.searchParams.has('whole') ? { ...change, quiz: await theQuiz(database(), course.id, quizId) } : change
	);
};

export const PUT = async ({ locals, params, request }) => {
	const { course, person } = await courseAt(locals, params, 'work');
	const quiz = await jsonOf(request, quizShape);
	const version = await saveQuiz(database(), course.id, keyOf(params.quiz), quiz, person.id);
	if (version === null)
		error(
			409,
			'Somebody else has saved this quiz in the meantime, or it is gone. What you have here is not saved yet.'
		);
	return json({ version });
};

/** Throws a quiz away; gives it as it was. */
export const DELETE = async ({ locals, params }) => {
	const { course, person } = await courseAt(locals, params, 'work');
	const quiz = await throwAway(database(), { courseId: course.id, personId: person.id }, keyOf(params.quiz));
	return json(quiz ?? error(404, 'There is no such quiz in this course.'));
};
