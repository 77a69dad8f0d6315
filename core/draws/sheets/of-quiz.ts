import type { Question } from '../../kinds';
import type { FoundPart, FoundQuiz } from '../../model/quiz';
import type { Plan, PlannedPart, PlannedQuestion, Unit } from './plan';

/** A question as drawing needs it, under a name of its own. */
function planned(question: Question, id: string): PlannedQuestion {
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
function namesOf(questions: readonly Question[]): string[] {
	const seen = new Set<string>();
	return questions.map(({ identifier }, at) => {
		const name = identifier && !seen.has(identifier) ? identifier : `${identifier || 'question'}#${at + 1}`;
		seen.add(name);
		return name;
	});
}

/**
 * The plan of a quiz of a package: a part draws from the questions that it names, or gives all of them in their order;
 * `numberOf` gives the number of one that it names, from 1, among the questions, where it is there. What cannot be read is never given.
 */
export function planOfQuiz(
	{ parts }: FoundQuiz,
	questions: readonly Question[],
	numberOf: (named: FoundPart['questions'][number]) => number | undefined
): Plan {
	const names = namesOf(questions);
	const units: Unit[] = questions.map(({ kind }, at) => ({
		members: [at],
		counted: kind === 'information' ? [] : [at],
		never: []
	}));
	return {
		questions: questions.map((question, at) => planned(question, names[at]!)),
		units,
		parts: parts.map(({ title, draw, pointsEach, shuffle, questions: named }): PlannedPart => {
			const list = [
				...new Set(
					named.flatMap((one) => {
						const place = numberOf(one);
						return place === undefined ? [] : [place - 1];
					})
				)
			].filter(
				(at) => questions[at]!.kind !== 'unreadable' && (draw === null || questions[at]!.kind !== 'information')
			);
			return {
				title,
				draw: draw ?? list.filter((at) => questions[at]!.kind !== 'information').length,
				points: pointsEach,
				order: shuffle ? 'shuffled' : 'kept',
				units: list,
				isAll: draw === null,
				list,
				quotas: [],
				impossible: null
			};
		}),
		partsShuffled: false,
		warnings: []
	};
}
