import { error, json } from '@sveltejs/kit';
import { ValidationError } from 'yup';
import { courseAt, keyOf } from '$lib/server/access';
import { database } from '$lib/server/db/pool';
import { parseQuiz, saveQuiz } from '$lib/server/quizzes/quizzes';

export const PUT = async ({ locals, params, request }) => {
	const { course } = await courseAt(locals, params, 'change');
	let quiz;
	try {
		quiz = parseQuiz(await request.json());
	} catch (cause) {
		error(400, cause instanceof ValidationError ? cause.message : 'That is no quiz.');
	}
	const version = await saveQuiz(database(), course.id, keyOf(params.quiz), quiz);
	if (version === null)
		error(
			409,
			'Somebody else has saved this quiz in the meantime, or it is gone. Load the page anew to see theirs; what you have here is not saved.'
		);
	return json({ version });
};
