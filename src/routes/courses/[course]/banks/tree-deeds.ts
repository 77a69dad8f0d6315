/** What is done to a bank or to a category of it, in the order of the menus: what it is called there, and whether a sheet asks for more. */
export const bankDeeds = [
	{ value: 'makeBank', name: 'Make a bank …' },
	{ value: 'renameBank', name: 'Rename, describe …' },
	{ value: 'mergeBanks', name: 'Merge into another bank …' },
	{ value: 'copyBank', name: 'Copy …' },
	{ value: 'moveBank', name: 'Move to another course …' },
	{ value: 'carry', name: 'Carry all categories elsewhere …' },
	{ value: 'quizOf', name: 'Make a quiz that draws from it' },
	{ value: 'sortCategories', name: 'Sort the top level by name' },
	{ value: 'numberCategories', name: 'Number the top level' },
	{ value: 'binBank', name: 'Put it in the bin' }
] as const;

export const categoryDeeds = [
	{ value: 'makeCategory', name: 'Make a category under it …' },
	{ value: 'renameCategory', name: 'Rename, give a code …' },
	{ value: 'moveCategory', name: 'Move in this bank …' },
	{ value: 'mergeCategory', name: 'Merge into another …' },
	{ value: 'carry', name: 'Move or copy to another bank …' },
	{ value: 'split', name: 'Split by a rule …' },
	{ value: 'splitBank', name: 'Make it a bank of its own …' },
	{ value: 'quizOf', name: 'Make a quiz that draws from it' },
	{ value: 'sortCategories', name: 'Sort what is under it by name' },
	{ value: 'numberCategories', name: 'Number what is under it' },
	{ value: 'dropCategory', name: 'Take it away …' }
] as const;

/** One of these. */
export type TreeDeed = (typeof bankDeeds)[number]['value'] | (typeof categoryDeeds)[number]['value'];

/** Those that are done at once. */
export const atOnce = new Set<TreeDeed>(['sortCategories', 'numberCategories', 'binBank']);
