import { error, json } from '@sveltejs/kit';
import { ValidationError } from 'yup';
import { courseAt, keyOf } from '$lib/server/access';
import { database } from '$lib/server/db/pool';
import { listIn } from '$lib/server/loads/list-filter';
import { listPage } from '$lib/server/loads/listed';
import { loadOf } from '$lib/server/loads/loads';
import { placeIn } from '$lib/server/requests';

/** A page of the questions of a load. */
export const GET = async ({ locals, params, url }) => {
	const { course } = await courseAt(locals, params);
	const found = await loadOf(database(), course.id, keyOf(params.load));
	if (!found) error(404, 'There is no such load in this course.');
	try {
		const { filter, order } = listIn(url);
		return json(await listPage(database(), course.id, found.id, filter, order, { from: placeIn(url, 'from') }));
	} catch (cause) {
		if (cause instanceof ValidationError) error(400, `${cause.message}.`);
		throw cause;
	}
};
