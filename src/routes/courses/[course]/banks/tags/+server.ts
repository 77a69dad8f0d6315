import { json } from '@sveltejs/kit';
import { courseAt } from '$lib/server/access';
import { database } from '$lib/server/db/pool';
import { tagsBeginning } from '$lib/server/questions/tags';

const mostOfTag = 120;

/** The tags of the course that begin with some letters. */
export const GET = async ({ locals, params, url }) => {
	const { course } = await courseAt(locals, params);
	const letters = (url.searchParams.get('begins') ?? '').slice(0, mostOfTag);
	return json(letters ? await tagsBeginning(database(), course.id, letters) : []);
};
