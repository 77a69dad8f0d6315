import { renamedRules } from '$core/model/sheet';
import type { KeptRules } from '$lib/forms/quiz';
import type { Part } from './quiz';
import type { EditedPart } from './save';

/** What stands for what in another course: keys there by the keys here. */
export interface CarriedKeys {
	questions: ReadonlyMap<number, number>;
	categories: ReadonlyMap<number, number>;
	banks: ReadonlyMap<number, number>;
}

const over = (keys: ReadonlyMap<number, number>, ids: readonly number[]) => ids.flatMap((id) => keys.get(id) ?? []);

/** The key there of a category, or of a bank whose key is made negative. */
function placeOf({ categories, banks }: CarriedKeys, key: number): number | undefined {
	if (key > 0) return categories.get(key);
	const bank = banks.get(-key);
	return bank === undefined ? undefined : -bank;
}

/** A part as it is in another course; what is not found there is left out of it. */
export function carriedPart(part: Part, keys: CarriedKeys): EditedPart {
	return {
		...part,
		lost: [],
		categories: part.categories.flatMap((key) => placeOf(keys, key) ?? []),
		questions: over(keys.questions, part.questions),
		include: over(keys.questions, part.include),
		exclude: over(keys.questions, part.exclude),
		quotas: part.quotas.flatMap((quota) => {
			if (quota.by !== 'category') return [quota];
			const values = quota.values.flatMap(({ category }) => {
				const now = placeOf(keys, category ?? 0);
				return now === undefined ? [] : [{ category: now }];
			});
			return values.length ? [{ ...quota, values }] : [];
		})
	};
}

/** The rules of a sheet as they are in another course; pairs and groups of which something is missing there are left out. */
export const carriedRules = (rules: KeptRules, { questions }: Pick<CarriedKeys, 'questions'>): KeptRules =>
	renamedRules(rules, (id) => questions.get(id));
