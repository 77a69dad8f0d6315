import type { PartToWrite, QuizToWrite } from '../../model/quiz';
import type { CarriedPart, CarriedRules } from '../../model/sheet';
import { counted, listed } from './words';
import type { QuizLimits } from './quiz-limits';

const named = ({ title }: PartToWrite) => `The part “${title}”`;

/** What the pool of a part asks of its questions, by name. */
function askedBy({ pool }: CarriedPart<number>): string[] {
	if (!pool) return [];
	const { tags, kinds, difficulty, key, unbroken, since } = pool.conditions;
	return [
		...(tags.any.length + tags.all.length + tags.none.length ? ['tags'] : []),
		...(kinds.length ? ['kinds'] : []),
		...(difficulty ? ['difficulty'] : []),
		...(key ? ['the state of their keys'] : []),
		...(unbroken ? ['having no broken snag'] : []),
		...(since ? ['the day on which they were made'] : []),
		...(pool.include.length + pool.exclude.length ? ['what was put in and left out by hand'] : [])
	];
}

/** Parts for a format that knows lists of questions and how many are drawn, with what is lost of them in sentences. */
export function plainParts(parts: readonly PartToWrite[], what: string[]): PartToWrite[] {
	return parts.flatMap((part) => {
		const { sheet, exact, ...plain } = part;
		if (!sheet) return [plain];
		const asked = askedBy(sheet);
		if (asked.length)
			what.push(
				`${named(part)} draws from the ${counted(part.questions.length, 'question')} that are in its pool now. That they are chosen by ${listed(asked)} is not written: what fits later does not come in there.`
			);
		if (sheet.order === 'easy first')
			what.push(`${named(part)} is given in the order of the file, not with the easy ones first.`);
		if (!sheet.quotas.length) return [plain];
		if (!exact) {
			what.push(
				`${named(part)} draws from its whole pool, without its quotas. Balance it equally by numbers that come out even, and it is written as parts that are exactly the same; or make forms of the quiz, and send these as quizzes that are fixed.`
			);
			return [plain];
		}
		what.push(`${named(part)} becomes ${counted(exact.length, 'part')}, which give exactly the same by its quotas.`);
		return exact.map((own) => ({ ...plain, ...own }));
	});
}

/**
 * The rules of a sheet as far as a format has a place for them, and undefined where it has none, with what is lost in
 * sentences. `together` are the groups that its parts hold there.
 */
export function fitRules(
	{ rules, parts }: QuizToWrite,
	together: number[][],
	limits: QuizLimits,
	what: string[]
): CarriedRules<number> | undefined {
	if (!rules || limits.sheets) return rules;
	const { never, partsShuffled, fixedOptions } = rules;
	if (never.length)
		what.push(
			`${counted(never.length, 'pair')} that never ${never.length === 1 ? 'comes' : 'come'} together may do so there.`
		);
	if (partsShuffled && !limits.mixes) what.push('Its parts are given in their order, not in a random one.');
	if (fixedOptions.length || parts.some(({ sheet }) => sheet && !sheet.shuffleOptions))
		what.push('Options are shuffled as each question says, whatever the quiz says of them.');
	const mixed = partsShuffled && limits.mixes;
	return mixed || together.length ? { never: [], together, partsShuffled: mixed, fixedOptions: [] } : undefined;
}
