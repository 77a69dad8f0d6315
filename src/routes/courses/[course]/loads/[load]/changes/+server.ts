import { error, json } from '@sveltejs/kit';
import { courseAt, keyOf } from '$lib/server/access';
import { threads } from '$lib/server/threads/ask';

/** What taking a load in would do to its questions and quizzes, in full. */
export const GET = async ({ locals, params }) => {
	const { course } = await courseAt(locals, params);
	const changes = await threads().ask('changesOf', course.id, keyOf(params.load));
	if (!changes) error(404, 'There is no such load in this course.');
	return json(changes);
};
