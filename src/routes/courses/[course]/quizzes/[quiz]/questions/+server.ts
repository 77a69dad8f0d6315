import { json } from '@sveltejs/kit';
import { array, number } from 'yup';
import { courseAt } from '$lib/server/access';
import { questionsById } from '$lib/server/banks/banks';
import { database } from '$lib/server/db/pool';
import { jsonOf } from '$lib/server/requests';

const shape = array(number().integer().positive().required()).max(10_000).required();

export const POST = async ({ locals, params, request }) => {
	const { course } = await courseAt(locals, params);
	const ids = await jsonOf(request, shape);
	return json(Object.fromEntries(await questionsById(database(), course.id, ids)));
};
