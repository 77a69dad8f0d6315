import { json } from '@sveltejs/kit';
import { object, string } from 'yup';
import { courseAt, keyOf } from '$lib/server/access';
import { refusing } from '$lib/server/answers';
import { jsonOf, requiredKey } from '$lib/server/requests';
import { threads } from '$lib/server/threads/ask';

const shape = object({
	id: requiredKey('The forms'),
	csv: string().max(5_000_000, 'These are more answers than are taken at once.').required('There is no answer in it.')
});

/** Marks answers that were typed from paper; nothing is kept of them. */
export const POST = async ({ locals, params, request }) => {
	const { course } = await courseAt(locals, params);
	const { id, csv } = await jsonOf(request, shape);
	return json(await refusing(() => threads().ask('markForms', course.id, keyOf(params.quiz), id, csv)));
};
