import type { Question } from '../../kinds';
import type { FoundQuestion, FoundQuiz } from '../../model/quiz';
import { renamedRules, type CarriedQuota } from '../../model/sheet';
import { planOfPools, type PooledPart } from './of-pools';
import type { Plan, PlannedQuestion, SheetQuota } from './plan';

/** What drawing needs to know of a question. */
export type DrawnQuestion = Pick<Question, 'identifier' | 'category' | 'kind' | 'points' | 'difficulty' | 'tags'>;

/** A question as drawing needs it, under a name of its own. */
function planned(question: DrawnQuestion, id: string): PlannedQuestion {
	const difficulty = Number(question.difficulty);
	return {
		id,
		category: question.category,
		kind: question.kind,
		points: question.points ?? 0,
		difficulty: question.difficulty && Number.isFinite(difficulty) ? difficulty : null,
		tags: question.tags,
		seconds: null,
		isText: question.kind === 'information'
	};
}

/** Names of questions: their identifiers, or their numbers where two have the same or one has none. */
function namesOf(questions: readonly DrawnQuestion[]): string[] {
	const seen = new Set<string>();
	return questions.map(({ identifier }, at) => {
		const name = identifier && !seen.has(identifier) ? identifier : `${identifier || 'question'}#${at + 1}`;
		seen.add(name);
		return name;
	});
}

/** A quota as a sheet has it. A category that nothing has is given where one is missing. */
export function formOfQuota({ by, values, spread, least, most }: CarriedQuota): SheetQuota {
	return {
		by,
		values: values.map(({ category, name, range }) =>
			by === 'category' ? (category ?? ['']) : by === 'difficulty' || by === 'points' ? (range ?? [0, 0]) : (name ?? '')
		),
		...(spread ? { spread } : { least: least ?? 0, ...(most === null ? {} : { most }) })
	};
}

/**
 * The plan of a quiz of a package: a part draws from the questions that it names, or gives all of them in their order;
 * `numberOf` gives the number of one that it names, from 1, among the questions, where it is there. What cannot be read is
 * never given. Throws WrongSheet where a quota contradicts itself.
 */
export function planOfQuiz(
	{ parts, rules }: FoundQuiz,
	questions: readonly DrawnQuestion[],
	numberOf: (named: FoundQuestion) => number | undefined
): Plan {
	const names = namesOf(questions);
	const placeOf = (named: FoundQuestion) => {
		const number = numberOf(named);
		return number === undefined ? undefined : number - 1;
	};
	const { never, together, partsShuffled } = renamedRules(rules ?? noRules, placeOf);
	const pooled = parts.map(({ title, draw, pointsEach, shuffle, questions: named, sheet }): PooledPart => {
		const pool = [...new Set(named.flatMap((question) => placeOf(question) ?? []))];
		return {
			title,
			draw,
			points: pointsEach,
			order: sheet?.order ?? (shuffle ? 'shuffled' : 'kept'),
			pool: pool.filter((at) => questions[at]!.kind !== 'unreadable'),
			isList: !sheet?.pool,
			quotas: (sheet?.quotas ?? []).map(formOfQuota)
		};
	});
	const pairs = never.flatMap(([one, other]) =>
		one === undefined || other === undefined ? [] : [[one, other] as const]
	);
	return planOfPools(
		questions.map((question, at) => planned(question, names[at]!)),
		pooled,
		{ never: pairs, together: together.filter((group) => group.length > 1), partsShuffled }
	);
}

const noRules: NonNullable<FoundQuiz['rules']> = { never: [], together: [], partsShuffled: false, fixedOptions: [] };
