import { signedIn } from '$lib/server/access';
import { coursesOf } from '$lib/server/courses/courses';
import { database } from '$lib/server/db/pool';

export const load = async ({ locals }) => {
	const person = signedIn(locals);
	return { person, courses: await coursesOf(database(), person.id) };
};
