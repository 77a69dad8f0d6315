import { fail, redirect } from '@sveltejs/kit';
import { object, string, ValidationError } from 'yup';
import { courseAt } from '$lib/server/access';
import { bankNames } from '$lib/server/banks/banks';
import { database } from '$lib/server/db/pool';
import { formOf } from '$lib/server/requests';
import { blankPart, makeWholeQuiz } from '$lib/server/quizzes/make';
import { quizzesOf } from '$lib/server/quizzes/quizzes';

export const load = async ({ locals, params }) => {
	const { course } = await courseAt(locals, params);
	return { quizzes: await quizzesOf(database(), course.id), banks: await bankNames(database(), course.id) };
};

const shape = object({
	title: string().trim().max(255, 'A title has 255 letters at the most.').required('Give the quiz a title.')
});

export const actions = {
	make: async ({ locals, params, request }) => {
		const { course, person } = await courseAt(locals, params, 'work');
		let title;
		try {
			({ title } = await formOf(request, shape));
		} catch (cause) {
			if (cause instanceof ValidationError) return fail(400, { message: cause.message });
			throw cause;
		}
		const who = { courseId: course.id, personId: person.id };
		const quizId = await makeWholeQuiz(database(), who, { title, parts: [blankPart('Part 1')] });
		redirect(303, `/courses/${course.id}/quizzes/${quizId}`);
	}
};
