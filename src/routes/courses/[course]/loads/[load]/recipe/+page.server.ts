import { error, fail, redirect } from '@sveltejs/kit';
import { object, string, ValidationError } from 'yup';
import { parseRecipe } from '$core/formats/recipe/recipe';
import { courseAt, keyOf } from '$lib/server/access';
import { database } from '$lib/server/db/pool';
import { loadOf } from '$lib/server/loads/loads';
import { formOf, jsonIn } from '$lib/server/requests';
import { readByRecipe, recipesOf } from '$lib/server/loads/recipes';
import { Refused } from '$lib/server/loads/refused';
import { threads } from '$lib/server/threads/ask';

function refuse(cause: unknown): never {
	if (cause instanceof Refused) error(409, cause.message);
	throw cause;
}

export const load = async ({ locals, params }) => {
	const { course } = await courseAt(locals, params, 'work');
	const db = database();
	const load = await loadOf(db, course.id, keyOf(params.load));
	if (!load || load.file_id === null) error(404, 'There is no such load in this course.');
	const [sketch, saved] = await Promise.all([threads().ask('sketch', load).catch(refuse), recipesOf(db, course.id)]);
	// a file that says itself what it holds has nothing to point at
	if (!sketch) redirect(303, `/courses/${course.id}/loads/${load.id}`);
	return { load, sketch, saved };
};

const shape = object({ recipe: string().required(), name: string().trim().max(120).default('') });

export const actions = {
	default: async ({ locals, params, request }) => {
		const { course, person } = await courseAt(locals, params, 'work');
		const load = await loadOf(database(), course.id, keyOf(params.load));
		if (!load) error(404, 'There is no such load in this course.');
		try {
			const given = await formOf(request, shape);
			const recipe = parseRecipe(jsonIn(given.recipe));
			if (!(await readByRecipe(database(), load, person.id, recipe, given.name)))
				return fail(409, { message: 'This load is in the course or is being read, so it cannot be read anew now.' });
		} catch (cause) {
			if (cause instanceof ValidationError)
				return fail(400, { message: `The recipe cannot be used: ${cause.message}.` });
			throw cause;
		}
		redirect(303, `/courses/${course.id}/loads`);
	}
};
