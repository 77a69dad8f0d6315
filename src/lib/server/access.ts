import { error, redirect } from '@sveltejs/kit';
import { courseFor, mayDo, type Course, type Role } from './courses/courses';
import { database } from './db/pool';
import type { Person } from './people/sessions';

/** The person who is signed in; anybody else is led to the sign-in page. */
export function signedIn(locals: App.Locals): Person {
	if (!locals.person) redirect(303, '/signin');
	return locals.person;
}

/** A key out of an address, in plain decimal digits. Answers 404 where it is none. */
export function keyOf(text: string | null | undefined): number {
	if (!/^[1-9]\d{0,14}$/.test(text ?? '')) error(404, 'There is nothing at this address.');
	return Number(text);
}

/** The course of an address, for a person who belongs to it and may do there what is asked for. */
export async function courseAt(
	locals: App.Locals,
	params: { course?: string },
	role: Role = 'look'
): Promise<{ course: Course; person: Person }> {
	const person = signedIn(locals);
	const course = await courseFor(database(), person.id, keyOf(params.course));
	if (!course) error(404, 'There is no such course, or you do not belong to it.');
	if (!mayDo(course.role, role))
		error(
			403,
			role === 'manage'
				? 'Only somebody who manages this course may do that. Ask one of them.'
				: 'You may look at this course, and not change it. Ask whoever looks after it.'
		);
	if (role === 'work' && course.state === 'archived')
		error(403, 'This course is in the archive, where nothing is changed. Take it out on its settings page.');
	return { course, person };
}

/** The person who is signed in, where they look after the installation; others are told that there is nothing. */
export function keeperAt(locals: App.Locals): Person {
	const person = signedIn(locals);
	if (!person.keeper) error(403, 'Only somebody who looks after the installation may do that.');
	return person;
}
