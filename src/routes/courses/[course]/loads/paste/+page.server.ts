import { courseAt } from '$lib/server/access';

export const load = async ({ locals, params }) => {
	await courseAt(locals, params, 'work');
};
