import { json } from '@sveltejs/kit';
import { object } from 'yup';
import { courseAt } from '$lib/server/access';
import { refusing } from '$lib/server/answers';
import { chosenShape } from '$lib/server/banks/filter';
import { database } from '$lib/server/db/pool';
import { selectToSend } from '$lib/server/dispatches/select';
import { jsonOf } from '$lib/server/requests';

const shape = object({ chosen: chosenShape.required() });

/** Keeps which questions are chosen, so that they can be sent. */
export const POST = async ({ locals, params, request }) => {
	const { course } = await courseAt(locals, params, 'work');
	const { chosen } = await jsonOf(request, shape);
	return json(await refusing(() => selectToSend(database(), course.id, chosen)));
};
