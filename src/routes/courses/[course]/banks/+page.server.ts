import { courseAt } from '$lib/server/access';
import { banksOf } from '$lib/server/banks/banks';
import { filterIn } from '$lib/server/banks/filter';
import { pageSize, questionsPage } from '$lib/server/banks/pages';
import { keptTree } from '$lib/server/banks/tree';
import { countsOf } from '$lib/server/courses/counts';
import { database } from '$lib/server/db/pool';
import { keyIn } from '$lib/server/requests';

export const load = async ({ locals, params, url }) => {
	const { course } = await courseAt(locals, params);
	const db = database();
	const counts = await countsOf(db, course.id);
	const banks = await banksOf(db, course.id, counts);
	const bank = banks.find(({ id }) => id === keyIn(url, 'bank')) ?? banks[0] ?? null;
	const filter = filterIn(url, bank?.id ?? 0);
	if (!bank) return { banks, bank, tree: [], filter, page: { total: 0, from: 0, rows: [] }, pageSize };
	const tree = await keptTree(db, bank.id, counts);
	const page = await questionsPage(db, course.id, filter, { questionId: keyIn(url, 'question') }, { tree, counts });
	return { banks, bank, tree, filter, page, pageSize };
};
