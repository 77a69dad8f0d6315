import { json } from '@sveltejs/kit';
import { object } from 'yup';
import { courseAt } from '$lib/server/access';
import { refusing } from '$lib/server/answers';
import { database } from '$lib/server/db/pool';
import { quizOfFilter, quizOfPlace } from '$lib/server/quizzes/make';
import { jsonOf, key, requiredKey } from '$lib/server/requests';

const shape = object({
	bankId: requiredKey('The bank'),
	categoryId: key('The category').nullable().default(null),
	filterId: key('The filter').nullable().default(null)
});

/** Makes a quiz that draws from a category or a whole bank, or from what a saved filter finds there. */
export const POST = async ({ locals, params, request }) => {
	const { course, person } = await courseAt(locals, params, 'work');
	const { bankId, categoryId, filterId } = await jsonOf(request, shape);
	const who = { courseId: course.id, personId: person.id };
	const place = { bankId, categoryId: categoryId ?? null };
	return json(
		await refusing(async () =>
			filterId == null
				? { quizId: await quizOfPlace(database(), who, place) }
				: quizOfFilter(database(), who, { ...place, filterId })
		)
	);
};
