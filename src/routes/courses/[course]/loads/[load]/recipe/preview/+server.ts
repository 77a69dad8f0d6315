import { error, json } from '@sveltejs/kit';
import { ValidationError } from 'yup';
import { parseRecipe } from '$core/formats/recipe/recipe';
import { courseAt, keyOf } from '$lib/server/access';
import { database } from '$lib/server/db/pool';
import { loadOf } from '$lib/server/loads/loads';
import { Refused } from '$lib/server/loads/refused';
import { jsonIn, textOf } from '$lib/server/requests';
import { threads } from '$lib/server/threads/ask';

export const POST = async ({ locals, params, request }) => {
	const { course } = await courseAt(locals, params, 'work');
	const load = await loadOf(database(), course.id, keyOf(params.load));
	if (!load || load.file_id === null) error(404, 'There is no such load in this course.');
	try {
		return json(await threads().ask('previewOf', load, parseRecipe(jsonIn(await textOf(request)))));
	} catch (cause) {
		if (cause instanceof ValidationError) error(400, `The recipe cannot be used: ${cause.message}.`);
		if (cause instanceof Refused) error(409, cause.message);
		throw cause;
	}
};
