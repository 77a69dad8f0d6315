import { courseAt } from '$lib/server/access';
import { database } from '$lib/server/db/pool';
import { asideLoads, asidePage, asidePageSize } from '$lib/server/loads/aside-list';
import { keyIn } from '$lib/server/requests';

export const load = async ({ locals, params, url }) => {
	const { course } = await courseAt(locals, params);
	const loads = await asideLoads(database(), course.id);
	const asked = keyIn(url, 'load');
	const from = loads.find(({ id }) => id === asked)?.id ?? null;
	return {
		loads,
		from,
		pageSize: asidePageSize,
		page: await asidePage(database(), course.id, { loadId: from, from: 0 })
	};
};
