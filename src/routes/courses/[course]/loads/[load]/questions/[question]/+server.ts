import { error, json } from '@sveltejs/kit';
import { courseAt, keyOf } from '$lib/server/access';
import { database } from '$lib/server/db/pool';
import { loadOf } from '$lib/server/loads/loads';
import { stagedQuestion } from '$lib/server/loads/review';

export const GET = async ({ locals, params }) => {
	const { course } = await courseAt(locals, params);
	const one = await loadOf(database(), course.id, keyOf(params.load));
	const found = one && (await stagedQuestion(database(), one.id, keyOf(params.question)));
	if (!found) error(404, 'There is no such question in this load.');
	return json(found);
};
