import { error, json } from '@sveltejs/kit';
import { array, number } from 'yup';
import { courseAt } from '$lib/server/access';
import { questionsById } from '$lib/server/banks/banks';
import { database } from '$lib/server/db/pool';

const shape = array(number().integer().positive().required()).max(10_000).required();

export const POST = async ({ locals, params, request }) => {
	const { course } = await courseAt(locals, params);
	let ids;
	try {
		ids = shape.validateSync(await request.json());
	} catch {
		error(400, 'The questions were not named as they should be.');
	}
	return json(Object.fromEntries(await questionsById(database(), course.id, ids)));
};
