import type { CarryCounts } from '$lib/server/banks/carry';
import type { CategoryNode } from '$lib/server/banks/tree';
import { bankDescription, bankName, categoryCode, categoryName, slipOf } from '$lib/forms/tree';
import { count } from '$lib/ui/words';
import type { TreeDeed } from './tree-deeds';

/** What the sheet of a deed says and asks: its title, what its button will do, whether all that is needed is there, and what is sent then. */
export interface TreeSheet {
	title: string;
	does: string;
	ready: boolean;
	asked: () => object;
}

/** What was filled in on a sheet. */
export interface TreeFilled {
	name: string;
	/** A description or a code. */
	more: string;
	/** The bank, course or category that is meant. */
	into: number | null;
	to: { bankId: number | null; categoryId: number | null };
	how: 'move' | 'copy';
	questions: 'above' | 'bin' | 'category';
	rule: 'kind' | 'tag' | 'points' | 'difficulty' | 'language';
	/** What carrying would come to, once that is known. */
	carry: CarryCounts | null;
}

/** What is changed: a bank, and a category of it or, where that is null, the bank as a whole. */
export interface TreeSubject {
	bank: { id: number; name: string; questions: number };
	tree: CategoryNode[];
	category: CategoryNode | null;
}

type Making = (subject: TreeSubject, filled: TreeFilled) => TreeSheet;

const named = ({ bank, category }: TreeSubject) => `“${category?.name ?? bank.name}”`;
const ofBank = ({ bank }: TreeSubject) => count(bank.questions, 'question');
const all = ({ bank, category }: TreeSubject) => count(category ? category.all : bank.questions, 'question');
const here = ({ bank, category }: TreeSubject) => ({ bankId: bank.id, categoryId: category?.id ?? 0 });
/** What is wrong with what is filled in for a deed, by what the server asks of it too; empty where nothing is. */
export function slipIn(deed: TreeDeed, { name, more }: Pick<TreeFilled, 'name' | 'more'>): string {
	if (deed === 'makeCategory' || deed === 'renameCategory')
		return slipOf(categoryName, name) || (deed === 'renameCategory' ? slipOf(categoryCode, more) : '');
	if (deed === 'copyBank' || deed === 'splitBank') return slipOf(bankName, name);
	return deed === 'makeBank' || deed === 'renameBank' ? slipOf(bankName, name) || slipOf(bankDescription, more) : '';
}

/** The sheets of all deeds that need one. */
const sheets: Partial<Record<TreeDeed, Making>> = {
	makeBank: (_, filled) => ({
		title: 'A new bank',
		does: 'Make the bank',
		ready: true,
		asked: () => ({ do: 'makeBank', name: filled.name, description: filled.more })
	}),
	renameBank: (subject, filled) => ({
		title: `The bank ${named(subject)}`,
		does: 'Keep it',
		ready: true,
		asked: () => ({ do: 'renameBank', ...here(subject), name: filled.name, description: filled.more })
	}),
	mergeBanks: (subject, { into }) => ({
		title: `Merge ${named(subject)} into another bank`,
		does: `Put ${ofBank(subject)} there`,
		ready: into !== null,
		asked: () => ({ do: 'mergeBanks', ...here(subject), into })
	}),
	moveBank: (subject, { into }) => ({
		title: `Move ${named(subject)} to another course`,
		does: `Move ${ofBank(subject)}`,
		ready: into !== null,
		asked: () => ({ do: 'moveBank', ...here(subject), courseId: into })
	}),
	copyBank: (subject, filled) => ({
		title: `Copy ${named(subject)}`,
		does: `Copy ${ofBank(subject)}`,
		ready: filled.into !== null,
		asked: () => ({ do: 'copyBank', bankId: subject.bank.id, name: filled.name, courseId: filled.into })
	}),
	splitBank: (subject, filled) => ({
		title: `Make ${named(subject)} a bank of its own`,
		does: `Move ${all(subject)}`,
		ready: true,
		asked: () => ({ do: 'splitBank', ...here(subject), name: filled.name })
	}),
	makeCategory: (subject, filled) => ({
		title: subject.category ? `A category under ${named(subject)}` : 'A category at the top',
		does: 'Make the category',
		ready: true,
		asked: () => ({
			do: 'makeCategory',
			bankId: subject.bank.id,
			parentId: subject.category?.id ?? null,
			name: filled.name
		})
	}),
	renameCategory: (subject, filled) => ({
		title: `The category ${named(subject)}`,
		does: 'Keep it',
		ready: true,
		asked: () => ({ do: 'renameCategory', ...here(subject), name: filled.name, code: filled.more })
	}),
	moveCategory: (subject, { into }) => ({
		title: `Move ${named(subject)} with ${all(subject)}`,
		does: 'Move it',
		ready: true,
		asked: () => ({ do: 'moveCategory', ...here(subject), parentId: into })
	}),
	mergeCategory: (subject, { into }) => ({
		title: `Merge ${named(subject)} into another category`,
		does: `Put ${all(subject)} there`,
		ready: into !== null,
		asked: () => ({ do: 'mergeCategory', ...here(subject), into })
	}),
	carry: (subject, { how, to, carry }) => ({
		title: `${how === 'move' ? 'Move' : 'Copy'} ${subject.category ? named(subject) : 'all categories'} to another bank`,
		does: `${how === 'move' ? 'Move' : 'Copy'} ${carry ? count(carry.inAll - carry.same, 'question') : `up to ${all(subject)}`}`,
		ready: carry !== null,
		asked: () => ({ ...carryAsked(subject, to), do: 'carryCategories', how })
	}),
	split: (subject, { rule }) => ({
		title: `Split ${named(subject)}`,
		does: `Sort ${count(subject.category?.own ?? 0, 'question')}`,
		ready: true,
		asked: () => ({ do: 'splitCategory', ...here(subject), rule })
	}),
	dropCategory: (subject, { questions, into }) => ({
		title: `Take ${named(subject)} away`,
		does: `Take it away, ${all(subject)} ${questions === 'bin' ? 'to the bin' : 'elsewhere'}`,
		ready: questions !== 'category' || into !== null,
		asked: () => ({ do: 'dropCategory', ...here(subject), questions, into })
	})
};

/** What is carried where, as it is asked for. */
export const carryAsked = ({ bank, tree, category }: TreeSubject, to: TreeFilled['to']): object => ({
	bankId: bank.id,
	categories: category ? [category.id] : tree.filter((node) => node.parentId === null).map(({ id }) => id),
	to
});

/** The sheet of a deed; null for one that is done without. */
export function treeSheet(deed: TreeDeed, subject: TreeSubject, filled: TreeFilled): TreeSheet | null {
	const sheet = sheets[deed]?.(subject, filled);
	return sheet ? { ...sheet, ready: sheet.ready && !slipIn(deed, filled) } : null;
}
