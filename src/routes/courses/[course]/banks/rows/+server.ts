import { error, json } from '@sveltejs/kit';
import { courseAt } from '$lib/server/access';
import { bankNames } from '$lib/server/banks/banks';
import { filterIn } from '$lib/server/banks/filter';
import { questionsPage } from '$lib/server/banks/pages';
import { database } from '$lib/server/db/pool';
import { keyIn, placeIn } from '$lib/server/requests';

export const GET = async ({ locals, params, url }) => {
	const { course } = await courseAt(locals, params);
	const bankId = keyIn(url, 'bank');
	const bank = (await bankNames(database(), course.id)).find(({ id }) => id === bankId);
	if (!bank) error(404, 'There is no such bank in this course.');
	return json(await questionsPage(database(), course.id, filterIn(url, bank.id), { from: placeIn(url, 'from') }));
};
