import { json } from '@sveltejs/kit';
import { courseAt } from '$lib/server/access';
import { database } from '$lib/server/db/pool';
import { asidePage } from '$lib/server/loads/aside-list';
import { keyIn, placeIn } from '$lib/server/requests';

/** A page of the questions that are set aside. */
export const GET = async ({ locals, params, url }) => {
	const { course } = await courseAt(locals, params);
	return json(await asidePage(database(), course.id, { loadId: keyIn(url, 'load'), from: placeIn(url, 'from') }));
};
