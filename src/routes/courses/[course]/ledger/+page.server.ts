import { courseAt } from '$lib/server/access';
import { database } from '$lib/server/db/pool';
import { deedsOf } from '$lib/server/ledger/ledger';

export const load = async ({ locals, params }) => {
	const { course } = await courseAt(locals, params);
	return { deeds: await deedsOf(database(), course.id) };
};
