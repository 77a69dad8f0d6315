import { error, redirect } from '@sveltejs/kit';
import { courseFor, type Course, type Role } from './courses/courses';
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

/** The course of an address, for a person who belongs to it and, where something is changed, may change it. */
export async function courseAt(
	locals: App.Locals,
	params: { course?: string },
	role: Role = 'look'
): Promise<{ course: Course; person: Person }> {
	const person = signedIn(locals);
	const course = await courseFor(database(), person.id, keyOf(params.course));
	if (!course) error(404, 'There is no such course, or you do not belong to it.');
	if (role === 'change' && course.role !== 'change')
		error(403, 'You may look at this course, and not change it. Ask whoever looks after it.');
	return { course, person };
}
