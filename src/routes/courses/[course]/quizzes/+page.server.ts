import { redirect } from '@sveltejs/kit';
import { newQuiz } from '$lib/forms/quiz';
import { courseAt } from '$lib/server/access';
import { bankNames } from '$lib/server/banks/banks';
import { database } from '$lib/server/db/pool';
import { filledIn } from '$lib/server/forms';
import { blankPart, makeWholeQuiz } from '$lib/server/quizzes/make';
import { quizzesOf } from '$lib/server/quizzes/quizzes';

export const load = async ({ locals, params }) => {
	const { course } = await courseAt(locals, params);
	return { quizzes: await quizzesOf(database(), course.id), banks: await bankNames(database(), course.id) };
};

export const actions = {
	make: async ({ locals, params, request }) => {
		const { course, person } = await courseAt(locals, params, 'work');
		const given = await filledIn(request, 'make', newQuiz);
		if ('failed' in given) return given.failed;
		const who = { courseId: course.id, personId: person.id };
		const quizId = await makeWholeQuiz(database(), who, { title: given.filled.title, parts: [blankPart('Part 1')] });
		redirect(303, `/courses/${course.id}/quizzes/${quizId}`);
	}
};
