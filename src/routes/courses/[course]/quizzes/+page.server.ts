import { fail, redirect } from '@sveltejs/kit';
import { string, ValidationError } from 'yup';
import { courseAt } from '$lib/server/access';
import { database } from '$lib/server/db/pool';
import { makeQuiz, quizzesOf } from '$lib/server/quizzes/quizzes';

export const load = async ({ locals, params }) => {
	const { course } = await courseAt(locals, params);
	return { quizzes: await quizzesOf(database(), course.id) };
};

export const actions = {
	make: async ({ locals, params, request }) => {
		const { course } = await courseAt(locals, params, 'change');
		let title;
		try {
			title = string()
				.trim()
				.max(255)
				.required('Give the quiz a title.')
				.validateSync((await request.formData()).get('title'));
		} catch (cause) {
			return fail(400, { message: (cause as ValidationError).message });
		}
		redirect(303, `/courses/${course.id}/quizzes/${await makeQuiz(database(), course.id, title)}`);
	}
};
