import { fail } from '@sveltejs/kit';
import { object } from 'yup';
import { courseAt } from '$lib/server/access';
import { database } from '$lib/server/db/pool';
import { plainFormOf, requiredKey } from '$lib/server/requests';
import { asideCount } from '$lib/server/loads/aside-list';
import { loadOf, loadsOf, readAgain, stopReading, throwAway } from '$lib/server/loads/loads';

export const load = async ({ locals, params }) => {
	const { course } = await courseAt(locals, params);
	const db = database();
	const [loads, aside] = await Promise.all([loadsOf(db, course.id), asideCount(db, course.id)]);
	return { loads, aside };
};

const shape = object({ load: requiredKey('The load') });

const chosen = async (locals: App.Locals, params: { course?: string }, request: Request) => {
	const { course } = await courseAt(locals, params, 'work');
	const id = (await plainFormOf(request, shape)).load;
	return (await loadOf(database(), course.id, id)) ?? null;
};

export const actions = {
	stop: async ({ locals, params, request }) => {
		const load = await chosen(locals, params, request);
		if (load) await stopReading(database(), load.id);
	},
	again: async ({ locals, params, request }) => {
		const load = await chosen(locals, params, request);
		if (load) await readAgain(database(), load.id);
	},
	away: async ({ locals, params, request }) => {
		const load = await chosen(locals, params, request);
		if (load && !(await throwAway(database(), load.id)))
			return fail(409, {
				message: `“${load.file_name}” is in the course or is being worked on, so it cannot be thrown away now.`
			});
		return undefined;
	}
};
