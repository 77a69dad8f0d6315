import { json } from '@sveltejs/kit';
import { boolean, number, object, string } from 'yup';
import { courseAt, keyOf } from '$lib/server/access';
import { refusing } from '$lib/server/answers';
import { database } from '$lib/server/db/pool';
import { dropForms, formsOf } from '$lib/server/quizzes/forms';
import { theQuiz } from '$lib/server/quizzes/the-quiz';
import { jsonOf, requiredKey } from '$lib/server/requests';
import { threads } from '$lib/server/threads/ask';

const shape = object({
	count: number()
		.integer()
		.min(1, 'Make at least one form.')
		.max(60, 'So many forms are 60 at the most.')
		.required('Say how many forms.'),
	same: boolean().default(false),
	seed: string().trim().max(100, 'A seed has 100 letters at the most.').default('paper')
});

/** The forms that were made of a quiz. */
export const GET = async ({ locals, params }) => {
	const { course } = await courseAt(locals, params);
	const { id } = await theQuiz(database(), course.id, keyOf(params.quiz));
	return json(await formsOf(database(), course.id, id));
};

/** Makes forms of a quiz for paper. */
export const POST = async ({ locals, params, request }) => {
	const { course, person } = await courseAt(locals, params, 'work');
	const asked = await jsonOf(request, shape);
	const who = { courseId: course.id, personId: person.id };
	return json({ id: await refusing(() => threads().ask('makeForms', who, keyOf(params.quiz), asked)) });
};

const dropped = object({ id: requiredKey('The forms') });

/** Throws forms away. */
export const DELETE = async ({ locals, params, request }) => {
	const { course } = await courseAt(locals, params, 'work');
	const { id } = await jsonOf(request, dropped);
	await dropForms(database(), course.id, keyOf(params.quiz), id);
	return json({});
};
