import { error, redirect } from '@sveltejs/kit';
import { courseAt, keyOf } from '$lib/server/access';
import { countsOf } from '$lib/server/courses/counts';
import { database } from '$lib/server/db/pool';
import { poolSource } from '$lib/server/quizzes/pools';
import { dropQuiz } from '$lib/server/quizzes/quizzes';
import { quizOf } from '$lib/server/quizzes/quiz';

export const load = async ({ locals, params }) => {
	const { course } = await courseAt(locals, params);
	const db = database();
	const quiz = await quizOf(db, course.id, keyOf(params.quiz));
	if (!quiz) error(404, 'There is no such quiz in this course.');
	const source = await poolSource(db, course.id, quiz.parts, await countsOf(db, course.id));
	return { quiz, source };
};

export const actions = {
	drop: async ({ locals, params }) => {
		const { course } = await courseAt(locals, params, 'work');
		await dropQuiz(database(), course.id, keyOf(params.quiz));
		redirect(303, `/courses/${course.id}/quizzes`);
	}
};
