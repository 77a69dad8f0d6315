import { error, redirect } from '@sveltejs/kit';
import { courseAt, keyOf } from '$lib/server/access';
import { database } from '$lib/server/db/pool';
import { dropQuiz, poolSource, quizOf } from '$lib/server/quizzes/quizzes';

export const load = async ({ locals, params }) => {
	const { course } = await courseAt(locals, params);
	const [quiz, source] = await Promise.all([
		quizOf(database(), course.id, keyOf(params.quiz)),
		poolSource(database(), course.id)
	]);
	if (!quiz) error(404, 'There is no such quiz in this course.');
	return { quiz, source };
};

export const actions = {
	drop: async ({ locals, params }) => {
		const { course } = await courseAt(locals, params, 'change');
		await dropQuiz(database(), course.id, keyOf(params.quiz));
		redirect(303, `/courses/${course.id}/quizzes`);
	}
};
