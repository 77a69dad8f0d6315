import { courseAt } from '$lib/server/access';
import { banksOf, questionRows } from '$lib/server/banks/banks';
import { categoryTree } from '$lib/server/banks/tree';
import { database } from '$lib/server/db/pool';
import { keyIn } from '$lib/server/requests';

/** The longest search, in letters. */
const mostWords = 500;

export const load = async ({ locals, params, url }) => {
	const { course } = await courseAt(locals, params);
	const db = database();
	const banks = await banksOf(db, course.id);
	const bank = banks.find((one) => one.id === keyIn(url, 'bank')) ?? banks[0] ?? null;
	const filter = {
		categoryId: keyIn(url, 'category'),
		withUnder: url.searchParams.get('under') !== '0',
		words: (url.searchParams.get('words') ?? '').slice(0, mostWords),
		kind: url.searchParams.get('kind') ?? ''
	};
	if (!bank) return { banks, bank, tree: [], questions: [], filter };
	const [tree, questions] = await Promise.all([
		categoryTree(db, bank.id),
		questionRows(db, { bankId: bank.id, ...filter })
	]);
	// in the order of the tree, which the keys of categories do not follow
	const place = new Map(tree.map((node, at) => [node.id, at]));
	questions.sort((a, b) => (place.get(a.categoryId ?? 0) ?? -1) - (place.get(b.categoryId ?? 0) ?? -1) || a.id - b.id);
	return { banks, bank, tree, questions, filter };
};
