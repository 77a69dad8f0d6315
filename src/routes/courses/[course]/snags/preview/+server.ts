import { error, json } from '@sveltejs/kit';
import { courseAt, keyOf } from '$lib/server/access';
import { storedQuestion } from '$lib/server/banks/banks';
import { database } from '$lib/server/db/pool';
import { threads } from '$lib/server/threads/ask';

export const GET = async ({ locals, params, url }) => {
	const { course } = await courseAt(locals, params);
	const id = keyOf(url.searchParams.get('question'));
	const [stored, preview] = await Promise.all([
		storedQuestion(database(), course.id, id),
		threads().ask('mendPreview', course.id, url.searchParams.get('check') ?? '', id)
	]);
	if (!stored) error(404, 'There is no such question in this course.');
	return json({ stored, preview });
};
