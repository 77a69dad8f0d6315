import { courseAt } from '$lib/server/access';
import { courseNames, waitingIn } from '$lib/server/courses/courses';
import { settings } from '$lib/server/config';
import { database } from '$lib/server/db/pool';
import { widthsCookie } from '$lib/ui/widths';

export const load = async ({ locals, params, depends, cookies }) => {
	depends('barrow:course');
	const { course, person } = await courseAt(locals, params);
	const [courses, waiting] = await Promise.all([courseNames(database(), person.id), waitingIn(database(), course.id)]);
	return {
		course,
		person,
		courses,
		waiting,
		mayChange: course.role !== 'look' && course.state === 'open',
		limit: settings().uploadLimit,
		widths: widthsCookie(cookies.get('columns'))
	};
};
