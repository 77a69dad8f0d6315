import { error, json } from '@sveltejs/kit';
import { courseAt, keyOf } from '$lib/server/access';
import { storedQuestion } from '$lib/server/banks/banks';
import { database } from '$lib/server/db/pool';

export const GET = async ({ locals, params }) => {
	const { course } = await courseAt(locals, params);
	const found = await storedQuestion(database(), course.id, keyOf(params.question));
	if (!found) error(404, 'There is no such question in this course.');
	return json(found);
};
