import type { PlannedQuestions } from '$core/take-in/planned-question';

/** A bank of the course that a load belongs to, since most of it is there already, and why it seems so. */
export interface LikelyBank {
	bankId: number;
	why: 'questions' | 'categories';
	/** How many of the load's are there, of how many. */
	there: number;
	of: number;
}

const most = <T extends { there: number; of: number }>(list: T[]): T | null =>
	list.filter(({ there, of }) => there * 2 > of).sort((a, b) => b.there - a.there)[0] ?? null;

/**
 * The bank in which most of a load is already: the one with more than half of its questions, the same or changed, or else
 * with more than half of its categories. `banks` are those of the course with the paths of their categories.
 */
export function likelyBank(questions: PlannedQuestions[], banks: { id: number; paths: string[] }[]): LikelyBank | null {
	const of = questions.reduce((sum, { many }) => sum + many, 0);
	const there = new Map<number, number>();
	for (const { match, twins, many } of questions)
		if (twins[0] && (match === 'same' || match === 'changed'))
			there.set(twins[0].bankId, (there.get(twins[0].bankId) ?? 0) + many);
	const byQuestions = banks.map(({ id }) => ({
		bankId: id,
		why: 'questions' as const,
		there: there.get(id) ?? 0,
		of
	}));
	const categories = [...new Set(questions.map(({ category }) => category).filter(Boolean))];
	// one category of a common name says nothing
	const byCategories =
		categories.length < 2
			? []
			: banks.map(({ id, paths }) => {
					const known = new Set(paths);
					return {
						bankId: id,
						why: 'categories' as const,
						there: categories.filter((category) => known.has(category)).length,
						of: categories.length
					};
				});
	return most<LikelyBank>(byQuestions) ?? most<LikelyBank>(byCategories);
}
