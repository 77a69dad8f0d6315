import { json } from '@sveltejs/kit';
import { object, string } from 'yup';
import { courseAt } from '$lib/server/access';
import { dropFilter, saveFilter, savedFilters } from '$lib/server/banks/saved';
import { database } from '$lib/server/db/pool';
import { jsonOf, keyIn } from '$lib/server/requests';

const shape = object({
	name: string().trim().max(120, 'A name has 120 letters at the most.').required('Give the filter a name.'),
	query: string().max(4000).defined()
});

/** Saves a filter by name for all of the course; one of the same name is written over. */
export const POST = async ({ locals, params, request }) => {
	const { course, person } = await courseAt(locals, params, 'work');
	const { name, query } = await jsonOf(request, shape);
	await saveFilter(database(), course.id, person.id, name, query);
	return json(await savedFilters(database(), course.id));
};

/** Takes a saved filter away. */
export const DELETE = async ({ locals, params, url }) => {
	const { course } = await courseAt(locals, params, 'work');
	await dropFilter(database(), course.id, keyIn(url, 'id') ?? 0);
	return json(await savedFilters(database(), course.id));
};
