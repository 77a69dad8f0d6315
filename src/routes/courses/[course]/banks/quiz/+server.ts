import { json } from '@sveltejs/kit';
import { object, string } from 'yup';
import { courseAt } from '$lib/server/access';
import { refusing } from '$lib/server/answers';
import { chosenShape } from '$lib/server/banks/filter';
import { quizOfChosen } from '$lib/server/changes/bulk';
import { database } from '$lib/server/db/pool';
import { jsonOf } from '$lib/server/requests';

const shape = object({
	chosen: chosenShape.required(),
	title: string().trim().max(255, 'A title has 255 letters at the most.').required('Give the quiz a title.')
});

/** Makes a quiz of chosen questions. */
export const POST = async ({ locals, params, request }) => {
	const { course } = await courseAt(locals, params, 'work');
	const { chosen, title } = await jsonOf(request, shape);
	return json(await refusing(() => quizOfChosen(database(), course.id, chosen, title)));
};
