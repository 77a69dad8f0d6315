import { json } from '@sveltejs/kit';
import { courseAt } from '$lib/server/access';
import { database } from '$lib/server/db/pool';
import { placeIn } from '$lib/server/requests';
import { snagFilterIn } from '$lib/server/snags/filter';
import { snagRows, snagsFound } from '$lib/server/snags/list';

export const GET = async ({ locals, params, url }) => {
	const { course } = await courseAt(locals, params);
	const filter = snagFilterIn(url);
	const from = placeIn(url, 'from');
	const [total, listed] = await Promise.all([
		snagsFound(database(), course.id, filter),
		snagRows(database(), course.id, filter, from)
	]);
	return json({ total, from, rows: listed });
};
