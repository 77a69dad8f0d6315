import { json } from '@sveltejs/kit';
import { object } from 'yup';
import { courseAt } from '$lib/server/access';
import { refusing } from '$lib/server/answers';
import { database } from '$lib/server/db/pool';
import { quizOfPlace } from '$lib/server/quizzes/make';
import { jsonOf, key, requiredKey } from '$lib/server/requests';

const shape = object({ bankId: requiredKey('The bank'), categoryId: key('The category').nullable().default(null) });

/** Makes a quiz that draws from a category or a whole bank. */
export const POST = async ({ locals, params, request }) => {
	const { course, person } = await courseAt(locals, params, 'work');
	const { bankId, categoryId } = await jsonOf(request, shape);
	const who = { courseId: course.id, personId: person.id };
	const quizId = await refusing(() => quizOfPlace(database(), who, { bankId, categoryId: categoryId ?? null }));
	return json({ quizId });
};
