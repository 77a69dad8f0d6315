import { array, lazy, number, object, string, type InferType, type ObjectSchema } from 'yup';
import { bankDescription as description, bankName, categoryCode as code, categoryName } from '$lib/forms/tree';
import type { Done } from '../changes/deed';
import { courseFor, mayDo } from '../courses/courses';
import { database } from '../db/pool';
import { Refused } from '../loads/refused';
import { threads, type Running } from '../threads/ask';
import { splitRules } from './split';

const key = number().integer().min(1).max(Number.MAX_SAFE_INTEGER);
const bank = { bankId: key.required('The bank is not named.') };
const category = { ...bank, categoryId: key.required('The category is not named.') };
const parent = { parentId: key.nullable().default(null) };

/** All that is done to banks and categories, each with what it needs to know. */
const shapes = {
	makeBank: object({ name: bankName, description }),
	renameBank: object({ ...bank, name: bankName, description }),
	binBank: object(bank),
	mergeBanks: object({ ...bank, into: key.required('Choose a bank.') }),
	moveBank: object({ ...bank, courseId: key.required('Choose a course.') }),
	copyBank: object({ ...bank, name: bankName, courseId: key.required('Choose a course.') }),
	splitBank: object({ ...category, name: bankName }),
	makeCategory: object({ ...bank, ...parent, name: categoryName }),
	renameCategory: object({
		...category,
		name: categoryName,
		code
	}),
	moveCategory: object({ ...category, ...parent, beforeId: key.nullable().default(null) }),
	mergeCategory: object({ ...category, into: key.required('Choose a category.') }),
	sortCategories: object({ ...bank, ...parent }),
	numberCategories: object({ ...bank, ...parent }),
	dropCategory: object({
		...category,
		questions: string()
			.oneOf(['above', 'bin', 'category'] as const)
			.required('Say what becomes of its questions.'),
		into: key.nullable().default(null)
	}),
	splitCategory: object({ ...category, rule: string().oneOf(splitRules).required('Choose a rule.') }),
	carryCategories: object({
		...bank,
		categories: array(key.required()).min(1, 'Choose categories.').max(2000).required(),
		to: object({ bankId: key.required('Choose a bank.'), categoryId: key.nullable().default(null) }).required(),
		how: string()
			.oneOf(['move', 'copy'] as const)
			.required()
	})
};

/** Categories that are to be carried elsewhere. */
export const carryShape = shapes.carryCategories;

type Shapes = typeof shapes;

/** Something that is done to a bank or to categories. */
export type TreeAsked = { [Name in keyof Shapes]: { do: Name } & InferType<Shapes[Name]> }[keyof Shapes];

const names = Object.keys(shapes) as (keyof Shapes)[];

/** The same out of what came from outside. */
export const treeShape = lazy((value: unknown) => {
	const asked = (value as { do?: unknown } | null)?.do;
	const name = names.find((known) => known === asked);
	const shape = (name ? shapes[name] : object()) as ObjectSchema<object>;
	return shape.shape({ do: string().oneOf(names, 'There is no such thing to do.').required() }).required() as never;
});

/** A course that a person may put banks into. Throws Refused. */
async function courseToWorkIn(personId: number, courseId: number): Promise<{ id: number; name: string; code: string }> {
	const to = await courseFor(database(), personId, courseId);
	if (!to || to.state !== 'open' || !mayDo(to.role, 'work'))
		throw new Refused('Choose a course in which you may work.');
	return to;
}

/** Begins what is asked for to the banks and categories of a course. Throws Refused in words. */
export async function changeTree(courseId: number, personId: number, asked: TreeAsked): Promise<Running<Done>> {
	const who = { courseId, personId };
	const task = threads();
	switch (asked.do) {
		case 'makeBank':
			return task.begin('makeBank', who, asked.name, asked.description);
		case 'renameBank':
			return task.begin('renameBank', who, asked.bankId, asked.name, asked.description);
		case 'binBank':
			return task.begin('binBank', who, asked.bankId);
		case 'mergeBanks':
			return task.begin('mergeBanks', who, asked.bankId, asked.into);
		case 'moveBank': {
			const to = await courseToWorkIn(personId, asked.courseId);
			if (to.id === courseId) throw new Refused('It is in this course already. Choose another.');
			return task.begin('moveBank', who, asked.bankId, to);
		}
		case 'copyBank':
			return task.begin('copyBank', who, asked.bankId, asked.name, await courseToWorkIn(personId, asked.courseId));
		case 'splitBank':
			return task.begin('splitBank', who, asked.bankId, asked.categoryId, asked.name);
		case 'makeCategory':
			return task.begin('makeCategory', who, asked.bankId, asked.parentId, asked.name);
		case 'renameCategory':
			return task.begin('renameCategory', who, asked.bankId, asked.categoryId, asked);
		case 'moveCategory':
			return task.begin('moveCategory', who, asked.bankId, asked.categoryId, asked.parentId, asked.beforeId);
		case 'mergeCategory':
			return task.begin('mergeCategory', who, asked.bankId, asked.categoryId, asked.into);
		case 'sortCategories':
			return task.begin('sortCategories', who, asked.bankId, asked.parentId);
		case 'numberCategories':
			return task.begin('numberCategories', who, asked.bankId, asked.parentId);
		case 'dropCategory': {
			const to = asked.questions === 'category' ? { categoryId: asked.into ?? 0 } : asked.questions;
			return task.begin('dropCategory', who, asked.bankId, asked.categoryId, to);
		}
		case 'splitCategory':
			return task.begin('splitCategory', who, asked.bankId, asked.categoryId, asked.rule);
		case 'carryCategories':
			return task.begin('carryCategories', who, asked.bankId, asked.categories, asked.to, asked.how);
	}
}
