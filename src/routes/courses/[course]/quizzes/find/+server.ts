import { json } from '@sveltejs/kit';
import { courseAt } from '$lib/server/access';
import { database } from '$lib/server/db/pool';
import { questionsByWords } from '$lib/server/quizzes/pool-page';

/** Questions of a course by words of their title or stem, for a quiz to name them. */
export const GET = async ({ locals, params, url }) => {
	const { course } = await courseAt(locals, params);
	return json(await questionsByWords(database(), course.id, (url.searchParams.get('words') ?? '').slice(0, 200)));
};
