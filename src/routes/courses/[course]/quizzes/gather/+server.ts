import { json } from '@sveltejs/kit';
import { array, boolean, number, object, string } from 'yup';
import { courseAt } from '$lib/server/access';
import { following, refusing } from '$lib/server/answers';
import { database } from '$lib/server/db/pool';
import { namedBy } from '$lib/server/quizzes/gather';
import { jsonOf, key } from '$lib/server/requests';
import { threads } from '$lib/server/threads/ask';

const shape = object({
	quizzes: array(number().integer().min(1).required()).min(1, 'Choose quizzes.').max(500).required(),
	bankId: key('The bank').nullable().default(null),
	bankName: string().trim().max(190, 'The name of a bank has 190 letters at the most.').default(''),
	category: string().trim().max(255, 'The name of a category has 255 letters at the most.').default(''),
	looseOnly: boolean().default(false)
});

/** Gathers the questions that quizzes name into a bank, or with `preview` says how many these are. */
export const POST = async ({ locals, params, request, url }) => {
	const { course, person } = await courseAt(locals, params, 'work');
	const { quizzes, ...to } = await jsonOf(request, shape);
	if (url.searchParams.has('preview')) return json(await refusing(() => namedBy(database(), course.id, quizzes)));
	const who = { courseId: course.id, personId: person.id };
	return following(request, threads().begin('gatherQuestions', who, quizzes, { ...to, bankId: to.bankId ?? null }));
};
