import { json } from '@sveltejs/kit';
import { courseAt } from '$lib/server/access';
import { waitingIn } from '$lib/server/courses/courses';
import { database } from '$lib/server/db/pool';
import { loadsOf } from '$lib/server/loads/loads';

export const GET = async ({ locals, params }) => {
	const { course } = await courseAt(locals, params);
	const [loads, waiting] = await Promise.all([loadsOf(database(), course.id), waitingIn(database(), course.id)]);
	return json({ loads, waiting });
};
