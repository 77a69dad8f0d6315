import { error, json } from '@sveltejs/kit';
import { boolean, object } from 'yup';
import { courseAt } from '$lib/server/access';
import { following } from '$lib/server/answers';
import { wayBackOf } from '$lib/server/changes/undo';
import { database } from '$lib/server/db/pool';
import { jsonOf, keyIn, requiredKey } from '$lib/server/requests';
import { threads } from '$lib/server/threads/ask';

/** What taking a deed back would touch. */
export const GET = async ({ locals, params, url }) => {
	const { course } = await courseAt(locals, params);
	const way = await wayBackOf(database(), course.id, keyIn(url, 'deed') ?? 0);
	if (!way) error(404, 'There is no way back from this any more.');
	return json(way);
};

const shape = object({ deed: requiredKey('The deed'), all: boolean().default(false) });

/** Takes a deed back. */
export const POST = async ({ locals, params, request }) => {
	const { course, person } = await courseAt(locals, params, 'work');
	const { deed, all } = await jsonOf(request, shape);
	return following(request, threads().begin('undoDeed', course.id, person.id, deed, all));
};
