import { error } from '@sveltejs/kit';
import { courseAt, keyOf } from '$lib/server/access';
import { database } from '$lib/server/db/pool';
import { printAsked, printedForms } from '$lib/server/quizzes/print';
import { keyIn } from '$lib/server/requests';

export const load = async ({ locals, params, url }) => {
	const { course } = await courseAt(locals, params);
	const quizId = keyOf(params.quiz);
	const id = keyIn(url, 'forms');
	const printed = id === null ? undefined : await printedForms(database(), course.id, quizId, id, printAsked(url));
	if (!printed) error(404, 'There are no such forms of this quiz. Make them on its page.');
	return { quizId, ...printed };
};
