import { array, boolean, number, object, string, type InferType } from 'yup';

/** What is known of the key of a question, as a pool may ask for it. */
export const keyStates = ['verified', 'not disputed'] as const;
/** How the questions of a part are ordered: by chance, as the list or the bank has them, or by difficulty. */
export const partOrders = ['shuffled', 'kept', 'easy first'] as const;
/** By what a quota counts; points are those of the question itself, as a range. */
export const quotaMeasures = ['category', 'kind', 'tag', 'difficulty', 'points'] as const;
/** How a quota over several values is filled in. */
export const quotaSpreads = ['equal', 'proportional'] as const;

const tags = () => array(string().max(120).required()).max(200).default([]);
const day = () => string().matches(/^\d{4}-\d{2}-\d{2}$/, 'A day is written as 2026-11-29.');

/** A range of difficulty: the easier end and the harder one. */
export const difficultyRange = () =>
	array(number().required())
		.length(2)
		.test('order', 'Put the easier end of the difficulty first.', (ends) => !ends || ends[0]! <= ends[1]!);

/** What is asked of the questions of the categories that a part draws from. */
export const conditionsShape = object({
	tags: object({ any: tags(), all: tags(), none: tags() }),
	kinds: array(string().max(40).required()).max(60).default([]),
	difficulty: difficultyRange().nullable().default(null),
	key: string().oneOf(keyStates).nullable().default(null),
	unbroken: boolean().default(false),
	since: day().nullable().default(null)
});

/** How many a quota asks for: a share for each of its values, or a least and a most. */
export const quotaBounds = {
	by: string().oneOf(quotaMeasures).required(),
	spread: string().oneOf(quotaSpreads).nullable().default(null),
	least: number().integer().min(0).max(10_000).nullable().default(null),
	most: number().integer().min(0).max(10_000).nullable().default(null)
};

const steps = () => array(string().max(500).required()).min(1).max(60);

/** A quota as a file carries it: categories by their steps, kinds and tags by name. */
export const carriedQuotaShape = object({
	...quotaBounds,
	values: array(
		object({ category: steps(), name: string().max(120), range: difficultyRange().default(undefined) }).required()
	)
		.min(1)
		.max(500)
		.required()
}).test(
	'order',
	'The least of a quota is over its most.',
	({ least, most }) => least == null || most == null || least <= most
);

/** A quota as a file carries it. */
export type CarriedQuota = InferType<typeof carriedQuotaShape>;
/** What is asked of the questions of the categories of a part. */
export type KeptConditions = InferType<typeof conditionsShape>;

/** What a part draws from by rule; `Named` is how a question is named. A category of no steps is the whole bank. */
export interface CarriedPool<Named> {
	categories: string[][];
	withUnder: boolean;
	conditions: KeptConditions;
	/** Questions that were taken into it, or out of it, by hand. */
	include: Named[];
	exclude: Named[];
}

/** What a part of a sheet says beside what it draws and how many. */
export interface CarriedPart<Named> {
	order: (typeof partOrders)[number];
	shuffleOptions: boolean;
	/** Null where the part lists its questions. */
	pool: CarriedPool<Named> | null;
	quotas: CarriedQuota[];
}

/** What holds for a whole sheet. */
export interface CarriedRules<Named> {
	/** Pairs that do not come together in one sitting. */
	never: Named[][];
	/** Groups that come whole or not at all, in their order. */
	together: Named[][];
	partsShuffled: boolean;
	/** Questions whose options keep their order, also where those of their part are shuffled. */
	fixedOptions: Named[];
}

/** Renames questions; one that has no other name gives undefined. */
type Rename<From, To> = (named: From) => To | undefined;

const over = <From, To>(list: readonly From[], rename: Rename<From, To>): To[] =>
	list.flatMap((named) => {
		const now = rename(named);
		return now === undefined ? [] : [now];
	});

/** A part of a sheet with its questions under other names; those that have none are left out. */
export function renamedPart<From, To>(part: CarriedPart<From>, rename: Rename<From, To>): CarriedPart<To> {
	const { pool } = part;
	return {
		...part,
		pool: pool && { ...pool, include: over(pool.include, rename), exclude: over(pool.exclude, rename) }
	};
}

/** The rules of a sheet with questions under other names; pairs and groups of which something has none are left out. */
export function renamedRules<From, To>(rules: CarriedRules<From>, rename: Rename<From, To>): CarriedRules<To> {
	const whole = (list: readonly From[]) => {
		const now = over(list, rename);
		return now.length === list.length ? [now] : [];
	};
	return {
		...rules,
		never: rules.never.flatMap(whole),
		together: rules.together.flatMap(whole),
		fixedOptions: over(rules.fixedOptions, rename)
	};
}
