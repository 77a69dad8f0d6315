import { courseAt } from '$lib/server/access';
import { settings } from '$lib/server/config';

export const load = async ({ locals, params }) => {
	await courseAt(locals, params, 'change');
	return { limit: settings().uploadLimit };
};
