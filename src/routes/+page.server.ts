import { redirect } from '@sveltejs/kit';
import { object } from 'yup';
import { courseDetails } from '$lib/forms/course';
import { keeperAt, signedIn } from '$lib/server/access';
import { coursesOf, mayDo } from '$lib/server/courses/courses';
import { makeCourse, moveCourse } from '$lib/server/courses/make';
import { database } from '$lib/server/db/pool';
import { filledIn, slip } from '$lib/server/forms';
import { plainFormOf, requiredKey } from '$lib/server/requests';

export const load = async ({ locals }) => {
	const person = signedIn(locals);
	return { person, courses: await coursesOf(database(), person.id) };
};

export const actions = {
	make: async ({ locals, request }) => {
		const person = keeperAt(locals);
		const given = await filledIn(request, 'make', courseDetails);
		if ('failed' in given) return given.failed;
		const made = await makeCourse(database(), person.id, given.filled);
		if ('taken' in made) return slip('make', given.values, { code: made.taken });
		redirect(303, `/courses/${made.id}/loads`);
	},
	putBack: async ({ locals, request }) => {
		const person = signedIn(locals);
		const { course } = await plainFormOf(request, object({ course: requiredKey('The course') }));
		const found = (await coursesOf(database(), person.id)).find(({ id }) => id === course);
		if (found?.state === 'binned' && mayDo(found.role, 'manage'))
			await moveCourse(database(), found, person.id, 'open');
	}
};
