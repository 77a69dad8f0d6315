import { json } from '@sveltejs/kit';
import { courseAt } from '$lib/server/access';
import { database } from '$lib/server/db/pool';
import { keyIn } from '$lib/server/requests';
import { dispatchesOf } from '$lib/server/dispatches/dispatches';

export const GET = async ({ locals, params, url }) => {
	const { course } = await courseAt(locals, params);
	return json(await dispatchesOf(database(), course.id, keyIn(url, 'show')));
};
