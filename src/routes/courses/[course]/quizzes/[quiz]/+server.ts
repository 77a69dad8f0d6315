import { error, json } from '@sveltejs/kit';
import { courseAt, keyOf } from '$lib/server/access';
import { database } from '$lib/server/db/pool';
import { quizShape, saveQuiz } from '$lib/server/quizzes/save';
import { jsonOf } from '$lib/server/requests';

export const PUT = async ({ locals, params, request }) => {
	const { course } = await courseAt(locals, params, 'work');
	const quiz = await jsonOf(request, quizShape);
	const version = await saveQuiz(database(), course.id, keyOf(params.quiz), quiz);
	if (version === null)
		error(
			409,
			'Somebody else has saved this quiz in the meantime, or it is gone. Load the page anew to see theirs; what you have here is not saved.'
		);
	return json({ version });
};
