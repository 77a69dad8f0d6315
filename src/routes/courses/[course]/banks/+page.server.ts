import { courseAt } from '$lib/server/access';
import { bankAbout, banksOf } from '$lib/server/banks/banks';
import { filterIn } from '$lib/server/banks/filter';
import { pageSize, questionsPage } from '$lib/server/banks/pages';
import { savedFilters } from '$lib/server/banks/saved';
import { keptTree } from '$lib/server/banks/tree';
import { weaveBy, weaveOf } from '$lib/server/banks/weave';
import { countsOf } from '$lib/server/courses/counts';
import { settingsOf } from '$lib/server/courses/settings';
import { database } from '$lib/server/db/pool';
import { keyIn } from '$lib/server/requests';
import { columnsCookie, columnsIn } from './columns';

export const load = async ({ locals, params, url, cookies }) => {
	const { course } = await courseAt(locals, params);
	const db = database();
	const counts = await countsOf(db, course.id);
	const banks = await banksOf(db, course.id, counts);
	const bank = banks.find(({ id }) => id === keyIn(url, 'bank')) ?? banks[0] ?? null;
	const filter = filterIn(url, bank?.id ?? 0);
	const columns = columnsIn(cookies.get(columnsCookie));
	const { language, points } = await settingsOf(db, course.id);
	const common = { banks, bank, filter, pageSize, columns, begins: { language, points } };
	const nothing = { total: 0, from: 0, rows: [] };
	if (!bank) return { ...common, tree: [], page: nothing, about: null, saved: [], weave: null };
	const tree = await keptTree(db, bank.id, counts);
	const [about, saved] = await Promise.all([bankAbout(db, course.id, bank.id), savedFilters(db, course.id)]);
	if (url.searchParams.get('view') === 'weave') {
		const by = weaveBy(url.searchParams.get('across'));
		const beside = banks.find(({ id }) => id === keyIn(url, 'beside')) ?? null;
		const weaves = [{ ...(await weaveOf(db, bank, by, tree, counts.state)), tree }];
		if (beside && beside.id !== bank.id) {
			const other = await keptTree(db, beside.id, counts);
			weaves.push({ ...(await weaveOf(db, beside, by, other, counts.state)), tree: other });
		}
		return { ...common, tree, page: nothing, about, saved, weave: { by, weaves } };
	}
	const page = await questionsPage(db, course.id, filter, { questionId: keyIn(url, 'question') }, { tree, counts });
	return { ...common, tree, page, about, saved, weave: null };
};
