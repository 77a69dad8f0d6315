import type { TreeCheck } from './check';

const byLetters = (a: string, b: string) => (a < b ? -1 : a > b ? 1 : 0);
const byNumbers = new Intl.Collator('en', { numeric: true }).compare;

/** Names of one level that have numbers in them, and sort otherwise by letters than people mean them. */
export const categoryOrder: TreeCheck = {
	id: 'category-order',
	version: 1,
	scope: 'tree',
	title: 'Categories that sort wrongly by letters',
	short: 'order',
	severity: 'untidy',
	why: 'Many systems sort categories by letters, and then 10 comes before 2. With as many figures in each, as in 02 and 10, they stand in the order that is meant everywhere.',
	find(categories) {
		const levels = new Map<string, { parent: readonly string[]; names: string[] }>();
		for (const { path } of categories) {
			const parent = path.slice(0, -1);
			const level = levels.get(JSON.stringify(parent)) ?? { parent, names: [] };
			levels.set(JSON.stringify(parent), level);
			level.names.push(path.at(-1)!);
		}
		return [...levels.values()].flatMap(({ parent, names }) => {
			const numbered = [...new Set(names.filter((name) => /\d/.test(name)))];
			const meant = [...numbered].sort(byNumbers);
			const sorted = [...numbered].sort(byLetters);
			const astray = meant.filter((name, at) => sorted[at] !== name);
			if (!astray.length) return [];
			const where = parent.length ? `under “${parent.join(' › ')}”` : 'at the top of the bank';
			return [
				{
					subject: parent,
					message: `By letters, the categories ${where} stand as ${sorted.slice(0, 4).join(', ')}${sorted.length > 4 ? ' …' : ''}; what is meant is ${meant.slice(0, 4).join(', ')}${meant.length > 4 ? ' …' : ''}. Write their numbers with as many figures each.`,
					words: astray
				}
			];
		});
	}
};
