import { json } from '@sveltejs/kit';
import { courseAt } from '$lib/server/access';
import { database } from '$lib/server/db/pool';
import { placeIn } from '$lib/server/requests';
import { snagCounts, snagRows } from '$lib/server/snags/snags';

export const GET = async ({ locals, params, url }) => {
	const { course } = await courseAt(locals, params);
	const check = (url.searchParams.get('check') ?? '').slice(0, 60);
	const from = placeIn(url, 'from');
	const [counts, rows] = await Promise.all([
		snagCounts(database(), course.id),
		snagRows(database(), course.id, check, from)
	]);
	return json({ total: counts.find(({ rule }) => rule === check)?.questions ?? 0, from, rows });
};
