import { array, number, object } from 'yup';
import { courseAt } from '$lib/server/access';
import { following } from '$lib/server/answers';
import { jsonOf, requiredKey } from '$lib/server/requests';
import { threads } from '$lib/server/threads/ask';

const shape = object({
	found: array(object({ id: requiredKey('The question'), difficulty: number().min(0).max(1).required() }).required())
		.min(1, 'There is no question in it.')
		.max(10_000)
		.required()
});

/** Writes how hard questions were found into them, as one deed. */
export const POST = async ({ locals, params, request }) => {
	const { course, person } = await courseAt(locals, params, 'work');
	const { found } = await jsonOf(request, shape);
	const who = { courseId: course.id, personId: person.id };
	return following(request, threads().begin('writeDifficulties', who, found));
};
