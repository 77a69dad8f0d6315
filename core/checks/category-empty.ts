import type { TreeCheck } from './check';

/** A category with nothing in it. */
export const categoryEmpty: TreeCheck = {
	id: 'category-empty',
	version: 1,
	scope: 'tree',
	title: 'Empty category',
	short: 'empty',
	severity: 'untidy',
	why: 'A quiz that draws from it gets nothing, and whoever looks for questions looks there for nothing.',
	find: (categories) =>
		categories
			.filter(({ questions }) => questions === 0)
			// of one with others under it, the uppermost is said
			.filter(
				({ path }) =>
					!categories.some(
						(other) =>
							other.questions === 0 &&
							other.path.length === path.length - 1 &&
							other.path.every((step, at) => step === path[at])
					)
			)
			.map(({ path }) => ({
				subject: path,
				message: `Nothing stands in “${path.at(-1)!}”, nor under it. Fill it, or take it out.`,
				words: [path.at(-1)!]
			}))
};
