import { json } from '@sveltejs/kit';
import { courseAt } from '$lib/server/access';
import { banksToFill, categoriesToFill } from '$lib/server/banks/fillable';
import { database } from '$lib/server/db/pool';
import { keyIn } from '$lib/server/requests';

/** The banks that the person may put questions into, those of this course first; or the categories of one of them. */
export const GET = async ({ locals, params, url }) => {
	const { course, person } = await courseAt(locals, params);
	const bank = keyIn(url, 'bank');
	return json(
		bank === null
			? await banksToFill(database(), person.id, course.id)
			: await categoriesToFill(database(), person.id, bank)
	);
};
