import { courseAt } from '$lib/server/access';
import { inBin } from '$lib/server/changes/in-bin';
import { database } from '$lib/server/db/pool';

export const load = async ({ locals, params }) => {
	const { course } = await courseAt(locals, params);
	return { bin: await inBin(database(), course.id) };
};
