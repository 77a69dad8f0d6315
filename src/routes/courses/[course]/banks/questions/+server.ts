import { json } from '@sveltejs/kit';
import { mixed, object } from 'yup';
import { courseAt } from '$lib/server/access';
import { refusing } from '$lib/server/answers';
import { jsonOf, key, requiredKey } from '$lib/server/requests';
import { threads } from '$lib/server/threads/ask';

const shape = object({
	bankId: requiredKey('The bank'),
	categoryId: key('The category').nullable().default(null),
	question: mixed().required('The question is missing')
});

/** Makes a question by hand. */
export const POST = async ({ locals, params, request }) => {
	const { course, person } = await courseAt(locals, params, 'work');
	const { bankId, categoryId, question } = await jsonOf(request, shape);
	return json(
		await refusing(() => threads().ask('makeQuestion', course.id, person.id, { bankId, categoryId }, question))
	);
};
